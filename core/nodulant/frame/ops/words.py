"""Words for choices that several operations offer."""

BUTTS = {
    "one-sided-backed": "one side, on a backing",
    "one-sided": "one side, root unseen",
    "two-sided": "both sides",
    "two-sided-ground": "both sides, ground, inspected",
}
ENDS = {"diamond": "diamond", "taper": "45° taper", "square": "square"}
HOLDS = {"air-spring": "an air spring", "bump-stop": "a bump stop"}
PLATES = ("outer_plate", "inner_plate")
"""Fields that hold a side plate."""
