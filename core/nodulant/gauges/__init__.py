"""Gauges and jigs that a design is built with: what stands in for a part, holds a distance or proves a line."""
