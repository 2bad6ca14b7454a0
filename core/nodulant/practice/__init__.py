"""Practice: a clean job with one mistake planted in it, to be found with the same tools, and what it would have cost."""
