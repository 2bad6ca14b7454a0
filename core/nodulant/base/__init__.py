"""Foundations shared by every layer: frozen models, typed errors and array names."""
