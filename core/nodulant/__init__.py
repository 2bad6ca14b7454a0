"""Nodulant: the computation of suspension conversions, without any interface code."""
