"""Plates laid out on offcuts and sheets by their true outlines."""
