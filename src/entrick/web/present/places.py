"""From the core's results to what crosses the API: places."""

from __future__ import annotations

from ...core.geometry import Point


def pair(point: Point | None) -> tuple[float, float] | None:
    """Return a place as two numbers."""
    return None if point is None else (point.x, point.y)
