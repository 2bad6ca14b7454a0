"""Build steps generated from the design."""
