"""Points as the screen gets them."""

from nodulant.evaluate.suspensions.travel_drawing import BodyPoint
from nodulant.linkage.mechanism import End


def point(end: End) -> BodyPoint:
    """An end in the reference position."""
    x, y, z = end.point
    return BodyPoint(body=end.body, x_mm=x, y_mm=y, z_mm=z)
