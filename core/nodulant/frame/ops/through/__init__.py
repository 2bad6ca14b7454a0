"""What cuts a rail in two and joins it again, or takes a piece out and puts it back."""
