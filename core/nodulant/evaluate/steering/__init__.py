"""Steering: drawings, curves, figures."""
