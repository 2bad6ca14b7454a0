"""What holds the vehicle up while it is worked on: stands, bodies, tipping."""
