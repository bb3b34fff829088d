"""What of a drawn curve lies inside a circle."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import pairwise

from ..tolerance import ROUND, same
from .meet import meet
from .shapes import Arc, Circle, Curve, Line, extremes


def inside(curve: Curve, circle: Circle) -> Iterator[Curve]:
    """Yield the parts of a drawn line, arc or circle that lie within a circle (closed form, by
    where they cross)."""
    spots = [meeting.point for meeting in meet(curve, circle)]
    near = circle.radius + same(circle.radius)
    match curve:
        case Line():
            ends = [curve.along(end) for end in extremes(curve)]
            cuts = sorted(
                {*ends, *(a for spot in spots if ends[0] < (a := curve.along(spot)) < ends[1])}
            )
            for low, high in pairwise(cuts):
                if abs(curve.at((low + high) / 2) - circle.centre) <= near and high - low > same(
                    near
                ):
                    yield Line.between(curve.at(low), curve.at(high))
        case Circle() | Arc():
            start, sweep = (curve.start, curve.sweep) if isinstance(curve, Arc) else (0.0, math.tau)
            way = math.copysign(1.0, sweep)
            turns = ((way * ((spot - curve.centre).angle - start)) % math.tau for spot in spots)
            cuts = sorted({0.0, abs(sweep), *(turn for turn in turns if turn < abs(sweep))})
            if not spots and isinstance(curve, Circle):
                if abs(curve.at(0.0) - circle.centre) <= near:
                    yield curve
                return
            for low, high in pairwise(cuts):
                middle = start + way * (low + high) / 2
                if high - low > ROUND and abs(curve.at(middle) - circle.centre) <= near:
                    yield Arc(
                        curve.centre,
                        curve.radius,
                        start + way * low,
                        way * (high - low),
                        curve.exact,
                    )
