"""The planned frame, what is added to it and its suspension as closed bodies in space, for viewers and other programs."""
