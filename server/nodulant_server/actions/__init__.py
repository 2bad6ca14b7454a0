"""One change to a job each: permission, input, one transaction, log."""
