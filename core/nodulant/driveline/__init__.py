"""Propeller shafts: joint angles, slip, critical speed."""
