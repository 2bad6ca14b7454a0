"""The sweep and what goes along: bodies, distances, cuts that something needs."""
