"""A rectangular recess in a circle: the keyway of a hub or a shaft."""

from __future__ import annotations

import math

from ..geometry import Arc, Circle, Line, polar


def recess(
    circle: Circle | Arc, width: float, floor: float, angle: float
) -> list[tuple[str, Line]]:
    """Return left side, floor and right side of a keyway, its floor so far from the centre; the
    angle in radians."""
    ahead = polar(1.0, angle)
    across = ahead.normal * (width / 2)
    edge = math.sqrt(circle.radius**2 - width**2 / 4)
    left, right = (circle.centre + ahead * edge + across * side for side in (1, -1))
    base_left, base_right = (circle.centre + ahead * floor + across * side for side in (1, -1))
    return [
        ("left", Line.between(left, base_left)),
        ("floor", Line.between(base_left, base_right)),
        ("right", Line.between(base_right, right)),
    ]
