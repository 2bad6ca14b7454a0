"""Checks: value, limit, margin, verdict, place and why."""

from nodulant.checks.check import Check, Governs, Why, judge, not_computed, order
from nodulant.checks.groups import Group, counts, grouped

__all__ = ["Check", "Governs", "Group", "Why", "counts", "grouped", "judge", "not_computed", "order"]
