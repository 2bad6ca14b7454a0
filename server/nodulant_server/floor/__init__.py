"""Serving a shop's own network: certificates, the page that says how to trust them, and upkeep."""
