"""Checks: value, limit, margin, verdict, place and why."""

from nodulant.checks.check import Check, Governs, Why, judge, not_computed, order

__all__ = ["Check", "Governs", "Why", "judge", "not_computed", "order"]
