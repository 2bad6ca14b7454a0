"""What moves past what: the axle tube against the rail and its notch."""
