"""Answers, not only checks."""
