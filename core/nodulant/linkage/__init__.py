"""Rigid carriers held by rods: one solver for every suspension and, later, steering."""
