"""A profile out of an SVG: paths with their transforms, arcs and curves, in the units of the
picture itself. Read by a general library."""

from __future__ import annotations

import io
import math
import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any
from xml.etree.ElementTree import Element, ParseError, fromstring, register_namespace, tostring

from ..geometry import Arc, Circle, Line, Point
from ..geometry.ellipse import Ellipse
from ..geometry.fitted import fitted
from ..measure import Unit
from ..outside import read_number
from ..plan.errors import ClauseError
from ..tolerance import NOUGHT, OF_ONE
from .cubics import Cubic, as_arc, as_oval
from .digits import Ways as Written
from .digits import last_decimal
from .profile import MOST_ENTITIES, Curve, ProfileError, is_sound, tolerance

OUTLINE = "outline"
"""The class of the outlines in the desk's own drawings."""

SVG_NAMES = "http://www.w3.org/2000/svg"

MM = {"mm": 1.0, "cm": 10.0, "in": 25.4, "pt": 25.4 / 72, "pc": 25.4 / 6, "q": 0.25}
"""Millimetres in the units of a picture (CSS Values and Units, section 6.2); pixels have no length
on paper."""


UNREADABLE = (
    ArithmeticError,
    AssertionError,
    AttributeError,
    LookupError,
    RecursionError,
    TypeError,
    ValueError,
)
"""What the library comes upon in a picture that is none."""


@dataclass
class OfSvg:
    """What an SVG holds."""

    curves: list[Curve] = field(default_factory=list)
    unit: Unit | None = None
    notes: list[str] = field(default_factory=list)
    last: float = 0.0


def _scale(root: Element) -> float:
    """Return the scale a sheet says it is drawn to; nought where it says none."""
    try:
        found = float(read_number(_attribute(root, "data-scale") or "0"))
    except ClauseError:
        return 0.0
    return found if found > 0 else 0.0


HREF = "{http://www.w3.org/1999/xlink}href"


def _check_uses(root: Element) -> None:
    """Refuse a picture in which things stand for so many others that it would never be read to its
    end."""
    named = {element.get("id"): element for element in root.iter() if element.get("id")}
    counts: dict[Element, int] = {}

    def count(element: Element) -> int:
        """Return how many things an element comes to."""
        if element in counts:
            if not counts[element]:
                raise ProfileError("a part of this SVG is used within itself")
            return counts[element]
        counts[element] = 0
        result = 1 + sum(map(count, element))
        used = element.get("href", element.get(HREF, "")).removeprefix("#")
        if element.tag.endswith("use") and used in named:
            result += count(named[used])
        if result > MOST_ENTITIES:
            raise ProfileError(f"a profile has at most {MOST_ENTITIES} pieces")
        counts[element] = result
        return result

    count(root)


def of_svg(data: bytes, asked: float | None) -> OfSvg:
    """Read an SVG.

    Parameters
    ----------
    data : bytes
    asked : float or None
        Curves that are not round are followed by arcs within this, in the plan's unit; None for
        what is usual.

    Raises
    ------
    ProfileError
    """
    from svgelements import SVG, Shape

    if b"<!ENTITY" in data:
        raise ProfileError("this SVG has entities of its own, which are not read")
    try:
        root = fromstring(data)
        if not root.tag.endswith("svg"):
            raise ProfileError("this is no SVG that can be read: it has no <svg>")
        _check_uses(root)
        # Sizes are worked out here: the library's inches to the millimetre are rounded.
        bare = Element(root.tag, {k: v for k, v in root.items() if k not in ("width", "height")})
        bare.extend(root)
        register_namespace("", SVG_NAMES)
        picture = SVG.parse(io.BytesIO(tostring(bare)), reify=True)
        shapes = [each for each in picture.elements() if isinstance(each, Shape) and _is_seen(each)]
    except (ParseError, *UNREADABLE) as error:
        raise ProfileError(
            f"this is no SVG that can be read: {error or type(error).__name__}"
        ) from error
    unit, by = _unit(root)
    out = OfSvg([], unit)
    lined_in = [each for each in shapes if OUTLINE in str(each.values.get("class", "")).split()]
    if lined_in and len(lined_in) < len(shapes):
        out.notes.append(f"{len(shapes) - len(lined_in)} pieces that are not lined in left out")
    scale = _scale(root) if lined_in else 0.0
    if scale > 0:
        # A whole sheet, drawn to a scale: the part is in the units of its plan.
        by = 1 / scale
        out.unit = next(
            (each for each in Unit if each.value == _attribute(root, "data-unit")), None
        )
    within = tolerance(asked, out.unit)
    drawn = [each for each in lined_in or shapes if not _is_broken(each)]
    if drawn and len(drawn) < len(lined_in or shapes):
        left = len(lined_in or shapes) - len(drawn)
        out.notes.append(f"{left} pieces drawn as broken lines left out")
    followed = unsound = 0
    written: list[Written] = []
    for shape in drawn or lined_in or shapes:
        try:
            curves, bent = _of_shape(shape, within / by)
            written += _written(shape)
            curves = [_up(curve, by) for curve in curves]
        except UNREADABLE:
            unsound += 1
            continue
        followed += bent
        sound = [curve for curve in curves if is_sound(curve)]
        unsound += len(curves) - len(sound)
        out.curves += sound
        if len(out.curves) > MOST_ENTITIES:
            raise ProfileError(f"a profile has at most {MOST_ENTITIES} pieces")
    # What follows a curve is as exact as it follows it, whatever the file's decimals.
    out.last = 0.0 if followed else last_decimal(written) * by
    if unsound:
        out.notes.append(f"{unsound} pieces of no length, or of no place, left out")
    if followed:
        out.notes.append(
            f"{followed} curves that are not round were followed by arcs within {within:g}"
        )
    return out


def _of_shape(shape: Any, within: float) -> tuple[list[Curve], int]:
    """Return the pieces of a shape, and how many curves in it had to be followed by arcs."""
    from svgelements import Path

    if type(shape).__name__ in ("Circle", "Ellipse") and (whole := list(_round(shape))):
        return whole, 0
    found: list[Curve] = []
    followed = 0
    for sub in Path(shape).as_subpaths():
        pieces, bent = _subpath(list(sub), within)
        found += pieces
        followed += bent
        if len(found) > MOST_ENTITIES:
            break
    return found, followed


def _written(shape: Any) -> list[Written]:
    """Return the numbers of a shape as the picture has them."""
    from svgelements import Path

    if type(shape).__name__ in ("Circle", "Ellipse"):
        centre = shape.implicit_center
        return [((float(centre.x), float(centre.y), float(shape.implicit_rx)),)]
    return [
        ((float(each.end.x), float(each.end.y)),) for each in Path(shape) if each.end is not None
    ]


def _attribute(root: Element, name: str) -> str:
    return (root.get(name) or "").strip()


def _unit(root: Element) -> tuple[Unit | None, float]:
    """Return the unit of a picture, by its width, and how much of it one of its own units is."""
    size = re.fullmatch(r"([\d.]+(?:[eE][+-]?\d+)?)\s*([a-zA-Z]*)", _attribute(root, "width"))
    if size is None or size[2].lower() not in MM:
        return None, 1.0
    unit = Unit.INCH if size[2].lower() == "in" else Unit.MM
    width = float(size[1]) * MM[size[2].lower()] / float(unit.mm)
    view = re.split(r"[\s,]+", _attribute(root, "viewBox"))
    try:
        across = float(view[2])
    except (IndexError, ValueError):
        return unit, 25.4 / 96 / float(unit.mm)
    return (unit, width / across) if across > 0 and width > 0 else (None, 1.0)


def _is_broken(shape: Any) -> bool:
    dashes = str(shape.values.get("stroke-dasharray", "none")).strip()
    return dashes not in ("", "none", "0", "None")


def _is_seen(shape: Any) -> bool:
    return (
        str(shape.values.get("display", "")) != "none"
        and str(shape.values.get("visibility", "")) != "hidden"
    )


def _round(shape: Any) -> Iterator[Curve]:
    """Yield the circle or ellipse a shape is."""
    centre, rx, ry = _xy(shape.implicit_center), float(shape.implicit_rx), float(shape.implicit_ry)
    yield from _whole(centre, rx, ry, float(shape.rotation.as_radians))


def _whole(centre: Point, rx: float, ry: float, turn: float) -> Iterator[Curve]:
    if not (math.isfinite(rx) and math.isfinite(ry)) or min(rx, ry) <= 0:
        return
    if abs(rx - ry) <= OF_ONE * rx:
        yield Circle(centre, (rx + ry) / 2)
    else:
        along = turn if rx > ry else turn + math.pi / 2
        yield Ellipse(centre, Point(math.cos(along), math.sin(along)) * max(rx, ry), min(rx, ry))


def _subpath(segments: list[Any], within: float) -> tuple[list[Curve], int]:
    """Return the pieces of one stroke, and how many curves in it had to be followed by arcs."""
    found: list[Curve] = []
    followed = 0
    bows = [each for each in segments if type(each).__name__ == "Arc"]
    rest = [
        each
        for each in segments
        if type(each).__name__ not in ("Arc", "Move") and each.length(error=within) > within
    ]
    if (
        bows
        and not rest
        and abs(abs(sum(float(each.sweep) for each in bows)) - math.tau) < OF_ONE * 10
    ):
        sizes = [(float(each.rx), float(each.ry), _xy(each.center)) for each in bows]
        if all(
            abs(a - sizes[0][0]) + abs(b - sizes[0][1]) + abs(c - sizes[0][2]) <= OF_ONE * a * 10
            for a, b, c in sizes
        ):
            rx, ry, centre = sizes[0]
            return list(_whole(centre, rx, ry, float(bows[0].get_rotation().as_radians))), 0
    cubics = [_controls(each) for each in segments if type(each).__name__ == "CubicBezier"]
    if len(cubics) == len(rest) == 4 and not bows and (oval := as_oval(cubics)) is not None:
        return [oval], 0
    for each in segments:
        match type(each).__name__:
            case "Move":
                continue
            case "Line" | "Close":
                if (
                    each.start is not None
                    and each.end is not None
                    and _xy(each.start) != _xy(each.end)
                ):
                    found.append(Line.between(_xy(each.start), _xy(each.end)))
            case "Arc" if abs(float(each.rx) - float(each.ry)) <= OF_ONE * float(each.rx):
                arc = _arc(each, within)
                found += [arc] if arc else []
            case "CubicBezier" if (round_ := as_arc(_controls(each), within)) is not None:
                found.append(round_)
            case _:
                found += _followed(each, within)
                followed += 1
    return found, followed


def _controls(segment: Any) -> Cubic:
    """Return the four places a cubic curve goes by."""
    return (_xy(segment.start), _xy(segment.control1), _xy(segment.control2), _xy(segment.end))


def _arc(segment: Any, within: float) -> Arc | None:
    start, end, centre = _xy(segment.start), _xy(segment.end), _xy(segment.center)
    sweep = float(segment.sweep)
    half = abs(end - start) / 2
    if abs(half - float(segment.rx)) <= within:
        # A half turn: where its centre lies off the chord is all rounding, and there much of it.
        centre, sweep = (start + end) * 0.5, math.copysign(math.pi, sweep)
    radius = (abs(start - centre) + abs(end - centre)) / 2
    return Arc(centre, radius, (start - centre).angle, sweep) if radius > 0 and sweep else None


def _followed(segment: Any, within: float) -> Iterator[Curve]:
    """Yield arcs that follow a curve which is not round."""

    def place(at: float) -> Point:
        return _xy(segment.point(at))

    def heading(at: float) -> Point:
        for step in (OF_ONE, OF_ONE * 1000):
            way = place(min(at + step, 1.0)) - place(max(at - step, 0.0))
            if abs(way) > NOUGHT:
                return way.unit
        return Point(1.0, 0.0)

    yield from fitted(place, heading, (0.0, 0.25, 0.5, 0.75, 1.0), within)


def _xy(place: Any) -> Point:
    return Point(float(place.x), float(place.y))


def _up(curve: Curve, by: float) -> Curve:
    """Return a curve with upwards where a picture has downwards, so many times as large."""

    def there(spot: Point) -> Point:
        return Point(spot.x * by, -spot.y * by)

    match curve:
        case Line():
            return Line.between(
                there(curve.at(curve.start or 0.0)), there(curve.at(curve.end or 0.0))
            )
        case Circle():
            return Circle(there(curve.centre), curve.radius * by)
        case Arc():
            return Arc(there(curve.centre), curve.radius * by, -curve.start, -curve.sweep)
    return Ellipse(there(curve.centre), there(curve.major), curve.minor * by)
