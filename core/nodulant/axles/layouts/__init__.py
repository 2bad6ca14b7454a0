"""Layouts: each says by itself which rods, guides and pieces hold its axle or upright."""
