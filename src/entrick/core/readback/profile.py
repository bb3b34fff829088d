"""Outlines out of an open file: DXF, or CSV of points. Cleaned, gathered into closed runs, and told what was mended."""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from itertools import islice

from ..geometry import Arc, Circle, Line, Point
from ..measure import Unit
from ..tolerance import OF_ONE

MOST_ENTITIES = 20_000
"""Pieces a file may have."""

LARGEST_FILE = 16 * 2**20

Curve = Line | Arc | Circle

INSUNITS = {1: Unit.INCH, 4: Unit.MM}
"""Units of a DXF by the number in its heading ($INSUNITS, DXF reference)."""

OUTLINE = "OUTLINE"
"""The layer a part's outlines stand on where a drawing keeps them apart; the desk's own drawings do."""

LEFT_OUT = frozenset({"TEXT", "MTEXT", "DIMENSION", "HATCH", "POINT", "LEADER", "ATTDEF", "VIEWPORT"})
"""What belongs to no outline."""


class ProfileError(ValueError):
    """A file that is no profile, or too much of one; says why."""


@dataclass(frozen=True, slots=True)
class Profile:
    """Outlines as a file has them.

    Attributes
    ----------
    runs : tuple of tuple of Line, Arc or Circle
        Closed; each piece begins where the one before it ends. A circle is a run by itself.
    unit : Unit or None
        As the file says; None where it does not.
    told : tuple of str
        What was mended or left out.
    """

    runs: tuple[tuple[Curve, ...], ...]
    unit: Unit | None
    told: tuple[str, ...] = ()


def read_profile(data: bytes, name: str, within: float) -> Profile:
    """Read a profile.

    Parameters
    ----------
    data : bytes
        Of a DXF, or of a CSV with x and y in its first two columns.
    name : str
        Of the file: its ending says what it is.
    within : float
        Ends that lie closer are one place, in the file's unit.

    Raises
    ------
    ProfileError
    """
    if len(data) > LARGEST_FILE:
        raise ProfileError("this file is larger than a profile may be")
    ending = name.lower().rpartition(".")[2]
    if ending == "csv":
        curves, unit = list(_of_csv(data)), None
        told: list[str] = []
    elif ending == "dxf":
        curves, unit, told = _of_dxf(data)
    else:
        raise ProfileError(f"{name}: a profile is a .dxf, or a .csv of points")
    if not curves:
        raise ProfileError(f"{name}: there is no line, arc or circle in it")
    runs = _gathered(_once(curves, within, told), within, told)
    if not runs:
        raise ProfileError(f"{name}: nothing in it closes within {within:g}")
    return Profile(tuple(runs), unit, tuple(told))


def _of_csv(data: bytes) -> Iterator[Curve]:
    text = data.decode("utf-8", "replace").removeprefix("\ufeff")
    try:
        rows = list(csv.reader(io.StringIO(text, newline="")))
    except csv.Error as error:
        raise ProfileError(f"this is no CSV: {error}") from error
    points = []
    for number, row in enumerate(rows, 1):
        if not any(cell.strip() for cell in row):
            continue
        try:
            points.append(Point(float(row[0]), float(row[1])))
        except (ValueError, IndexError) as error:
            if number == 1:
                continue
            raise ProfileError(f"row {number}: {','.join(row)} is no point; it has x and y") from error
        if len(points) > MOST_ENTITIES:
            raise ProfileError(f"a profile has at most {MOST_ENTITIES} pieces")
    if not all(math.isfinite(p.x) and math.isfinite(p.y) for p in points):
        raise ProfileError("a point is no place: it is not finite")
    if len(points) > 1 and points[0] == points[-1]:
        points.pop()
    if len(points) < 3:
        raise ProfileError("three points at least make an outline")
    for a, b in zip(points, [*points[1:], points[0]], strict=True):
        if a != b:
            yield Line.between(a, b)


def _of_dxf(data: bytes) -> tuple[list[Curve], Unit | None, list[str]]:
    from ezdxf import recover
    from ezdxf.lldxf.const import DXFError

    try:
        document, _ = recover.read(io.BytesIO(data))
    except (DXFError, OSError, ValueError, UnicodeError, IndexError, KeyError) as error:
        raise ProfileError(f"this is no DXF that can be read: {error or type(error).__name__}") from error
    curves: list[Curve] = []
    left: dict[str, int] = {}
    found = (e for e in _exploded(document.modelspace()) if e.dxftype() not in LEFT_OUT)
    entities = list(islice(found, MOST_ENTITIES + 1))
    if len(entities) > MOST_ENTITIES:
        raise ProfileError(f"a profile has at most {MOST_ENTITIES} pieces")
    # A whole drawing also holds what was only drawn lightly; the part is what stands on the layer of outlines.
    lined_in = [e for e in entities if e.dxf.layer.upper() == OUTLINE]
    aside = len(entities) - len(lined_in) if lined_in else 0
    for entity in lined_in or entities:
        kind = entity.dxftype()
        match kind:
            case "LINE":
                curves.append(_line(_xy(entity.dxf.start), _xy(entity.dxf.end)))
            case "CIRCLE":
                curves.append(Circle(_xy(entity.dxf.center), float(entity.dxf.radius)))
            case "ARC":
                start = math.radians(entity.dxf.start_angle)
                sweep = math.radians(entity.dxf.end_angle - entity.dxf.start_angle) % math.tau
                curves.append(Arc(_xy(entity.dxf.center), float(entity.dxf.radius), start, sweep or math.tau))
            case _:
                left[kind] = left.get(kind, 0) + 1
    told = [f"{count} of {kind} left out: it is not read yet" for kind, count in sorted(left.items())]
    if aside:
        told.append(f"{aside} pieces on other layers than {OUTLINE} left out")
    sound = [curve for curve in curves if _is_sound(curve)]
    if len(sound) < len(curves):
        told.append(f"{len(curves) - len(sound)} pieces of no length left out")
    return sound, INSUNITS.get(int(document.header.get("$INSUNITS", 0))), told


def _exploded(entities: Iterable, depth: int = 0) -> Iterator:  # type: ignore[type-arg]
    """Yield lines, arcs and circles: polylines piece by piece, blocks with what is in them."""
    for entity in entities:
        if entity.dxftype() in ("LWPOLYLINE", "POLYLINE", "INSERT") and depth < 8:
            yield from _exploded(entity.virtual_entities(), depth + 1)
        else:
            yield entity


def _xy(place: object) -> Point:
    return Point(float(place[0]), float(place[1]))  # type: ignore[index]


def _line(a: Point, b: Point) -> Line:
    return Line.between(a, b) if a != b else Line(a, Point(1.0, 0.0), 0.0, 0.0)


def _is_sound(curve: Curve) -> bool:
    numbers = (curve.through.x, curve.through.y) if isinstance(curve, Line) else (curve.centre.x, curve.radius)
    return all(map(math.isfinite, numbers)) and length_of(curve) > 0


def length_of(curve: Curve) -> float:
    """Return the length of a piece."""
    match curve:
        case Line():
            return (curve.end or 0.0) - (curve.start or 0.0)
        case Arc():
            return curve.radius * abs(curve.sweep)
    return math.tau * curve.radius


def ends_of(curve: Line | Arc) -> tuple[Point, Point]:
    """Return where a piece begins and ends."""
    if isinstance(curve, Arc):
        return curve.first, curve.last
    return curve.at(curve.start or 0.0), curve.at(curve.end or 0.0)


def turned(curve: Line | Arc) -> Line | Arc:
    """Return a piece from its other end."""
    if isinstance(curve, Arc):
        return Arc(curve.centre, curve.radius, curve.start + curve.sweep, -curve.sweep)
    a, b = ends_of(curve)
    return Line.between(b, a)


def _once(curves: Iterable[Curve], within: float, told: list[str]) -> list[Curve]:
    """Leave out what lies over another piece, end for end."""
    seen: set[tuple[int, ...]] = set()
    kept: list[Curve] = []
    double = 0
    for curve in curves:
        match curve:
            case Circle():
                spots = [curve.centre, Point(curve.radius, 0.0)]
            case Arc():
                spots = [*_sorted_ends(curve, within), curve.middle]
            case _:
                spots = _sorted_ends(curve, within)
        key = (len(spots), *(round(value / within) for spot in spots for value in (spot.x, spot.y)))
        if key in seen:
            double += 1
            continue
        seen.add(key)
        kept.append(curve)
    if double:
        told.append(f"{double} pieces lay over others, and were left out")
    return kept


def _sorted_ends(curve: Line | Arc, within: float) -> list[Point]:
    return sorted(ends_of(curve), key=lambda p: (round(p.x / within), round(p.y / within)))


def _gathered(curves: Iterable[Curve], within: float, told: list[str]) -> list[tuple[Curve, ...]]:
    """Gather pieces end to end into closed runs; what does not close is told and left out."""
    runs: list[tuple[Curve, ...]] = [(curve,) for curve in curves if isinstance(curve, Circle)]
    left = {n: curve for n, curve in enumerate(curves) if isinstance(curve, Line | Arc)}
    cells: dict[tuple[int, int], list[int]] = {}

    def cell(spot: Point) -> tuple[int, int]:
        return math.floor(spot.x / within / 4), math.floor(spot.y / within / 4)

    for n, curve in left.items():
        for end in ends_of(curve):
            cells.setdefault(cell(end), []).append(n)
    loose = 0
    gap = 0.0
    while left:
        _, curve = left.popitem()
        run: list[Line | Arc] = [curve]
        start, here = ends_of(curve)
        while abs(here - start) > within or (len(run) == 1 and isinstance(curve, Line)):
            column, row = cell(here)
            around = [(column + i, row + j) for i in (-1, 0, 1) for j in (-1, 0, 1)]
            near = {n for place in around for n in cells.get(place, ()) if n in left}
            best = min(
                ((abs(end - here), n, k) for n in near for k, end in enumerate(ends_of(left[n]))),
                default=(math.inf, 0, 0),
            )
            if best[0] > within:
                break
            found = left.pop(best[1])
            run.append(turned(found) if best[2] else found)
            gap = max(gap, best[0])
            here = ends_of(run[-1])[1]
        if abs(here - start) <= within and len(run) > 1:
            runs.append(_joined(run))
        elif len(run) == 1 and isinstance(run[0], Arc) and abs(abs(run[0].sweep) - math.tau) * run[0].radius <= within:
            runs.append((Circle(run[0].centre, run[0].radius),))
        else:
            loose += len(run)
    if loose:
        told.append(f"{loose} pieces close with no others within {within:g}, and were left out")
    if gap > within / 100:
        told.append(f"ends up to {gap:.2g} apart were taken for one")
    return runs


def _joined(run: list[Line | Arc]) -> tuple[Curve, ...]:
    """Join what is one line, or one arc, in several pieces; a run of arcs about one centre is a circle."""
    found: list[Line | Arc] = []
    for curve in run:
        if found and (joined := _one(found[-1], curve)) is not None:
            found[-1] = joined
        else:
            found.append(curve)
    while len(found) > 1 and (joined := _one(found[-1], found[0])) is not None:
        found = [joined, *found[1:-1]]
    if len(found) == 1 and isinstance(found[0], Arc):
        return (Circle(found[0].centre, found[0].radius),)
    return tuple(found)


def _one(first: Line | Arc, second: Line | Arc) -> Line | Arc | None:
    if isinstance(first, Line) and isinstance(second, Line):
        same = abs(first.direction.cross(second.direction)) < OF_ONE and first.direction.dot(second.direction) > 0
        return Line.between(ends_of(first)[0], ends_of(second)[1]) if same else None
    if isinstance(first, Arc) and isinstance(second, Arc):
        size = first.radius * OF_ONE * 10
        alike = abs(first.centre - second.centre) < size and abs(first.radius - second.radius) < size
        if alike and first.sweep * second.sweep > 0 and abs(first.sweep + second.sweep) <= math.tau + OF_ONE:
            return Arc(first.centre, first.radius, first.start, first.sweep + second.sweep)
    return None
