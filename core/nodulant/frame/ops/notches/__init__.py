"""A notch: its plan, shape, sections, plates and work."""
