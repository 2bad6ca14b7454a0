"""What stands outside: a steel yard and a cutting table, as ports, with simulated stand-ins that ship with the application."""
