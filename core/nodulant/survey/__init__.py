"""The vehicle as surveyed, before anything is taken apart."""
