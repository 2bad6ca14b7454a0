"""One file an operation, and the union that lists them."""
