"""A profile out of a DXF: lines, arcs, circles, polylines with bulges, ellipses, splines, and
blocks with what is in them. Read by a general library, which also mends files that are out of
order."""

from __future__ import annotations

import io
import math
import re
from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from itertools import islice
from typing import Any

from ..geometry import Arc, Circle, Line, Point
from ..geometry.ellipse import Ellipse
from ..geometry.fitted import fitted
from ..measure import Unit
from ..tolerance import NOUGHT, OF_ONE
from .cubics import Cubic, as_arc, as_oval
from .digits import Ways as Written
from .digits import last_decimal, numbers_of
from .profile import MOST_ENTITIES, Curve, ProfileError, is_sound, scaled, tolerance

INSUNITS = {
    1: (Unit.INCH, 1.0),
    2: (Unit.INCH, 12.0),
    4: (Unit.MM, 1.0),
    5: (Unit.MM, 10.0),
    6: (Unit.MM, 1000.0),
}
"""Units of a DXF by the number in its heading ($INSUNITS, DXF reference): inches, feet, mm, cm, m,
and what one of them is in the plan's unit."""

OUTLINE = "OUTLINE"
"""The layer a part's outlines stand on where a drawing keeps them apart; the desk's own drawings
do."""

LEFT_OUT = frozenset(
    {"TEXT", "MTEXT", "DIMENSION", "HATCH", "POINT", "LEADER", "ATTDEF", "ATTRIB", "VIEWPORT"}
)
"""What belongs to no outline."""

MOST_RECORDS = 200_000
"""Records a file may have in all; a library would take minutes over more."""

CUBIC = 3
"""Degree of the curves other programs write."""

DEEPEST = 8
"""Blocks within blocks."""


@dataclass
class OfDxf:
    """What a DXF holds."""

    curves: list[Curve] = field(default_factory=list)
    unit: Unit | None = None
    layers: tuple[str, ...] = ()
    notes: list[str] = field(default_factory=list)
    last: float = 0.0


def of_dxf(data: bytes, within: float | None, layers: Iterable[str] = ()) -> OfDxf:
    """Read a DXF.

    Parameters
    ----------
    data : bytes
        Of any encoding the file itself names.
    within : float or None
        Splines and parts of ellipses are followed by arcs within this, in the plan's unit; None for
        what is usual.
    layers : iterable of str, optional
        Only what stands on these; else what is lined in where a layer says so, else everything.

    Raises
    ------
    ProfileError
    """
    from ezdxf import recover
    from ezdxf.lldxf.const import DXFError

    _refuse_other_files(data)
    if (
        sum(1 for _ in islice(re.finditer(rb"\n[ \t]*0\r?\n", data), MOST_RECORDS + 1))
        > MOST_RECORDS
    ):
        raise ProfileError(f"a profile has at most {MOST_ENTITIES} pieces")
    try:
        document, _ = recover.read(io.BytesIO(data))
        found = (
            each for each in _exploded(document.modelspace()) if each.dxftype() not in LEFT_OUT
        )
        entities = list(islice(found, MOST_ENTITIES + 1))
        if not entities and any(
            len(sheet) for sheet in document.layouts if sheet.is_any_paperspace
        ):
            raise ProfileError(
                "nothing is drawn at full size in this DXF: what it has stands on a sheet of "
                "paper; save the model"
            )
        units = int(document.header.get("$INSUNITS", 0))
        names = tuple(dict.fromkeys(entity.dxf.layer for entity in entities))
    except ProfileError:
        raise
    except (
        DXFError,
        OSError,
        ArithmeticError,
        AssertionError,
        ValueError,
        LookupError,
        AttributeError,
        TypeError,
        RecursionError,
    ) as error:
        raise ProfileError(
            f"this is no DXF that can be read: {error or type(error).__name__}"
        ) from error
    if len(entities) > MOST_ENTITIES:
        raise ProfileError(f"a profile has at most {MOST_ENTITIES} pieces")
    unit, scale = INSUNITS.get(units, (None, 1.0))
    out = OfDxf([], unit, names if len(names) > 1 else ())
    wanted = {layer.upper() for layer in layers} or ({OUTLINE} & {name.upper() for name in names})
    chosen = [entity for entity in entities if not wanted or entity.dxf.layer.upper() in wanted]
    if len(chosen) < len(entities):
        words = ", ".join(name for name in names if name.upper() in wanted)
        out.notes.append(
            f"{len(entities) - len(chosen)} pieces on other layers than {words} left out"
        )
    drawn = [entity for entity in chosen if not _is_broken(entity, document)]
    if drawn and len(drawn) < len(chosen):
        left = len(chosen) - len(drawn)
        out.notes.append(f"{left} pieces drawn as centre or hidden lines left out")
        chosen = drawn
    _read(chosen, tolerance(within, unit) / scale, out)
    out.last *= scale
    if scale != 1.0:
        out.curves = [scaled(curve, scale) for curve in out.curves]
        out.notes.append(
            f"the file's lengths were taken {scale:g} times, for {unit.value if unit else ''}"
        )
    return out


BROKEN = re.compile(r"CENT|DASH|DOT|HIDDEN|PHANTOM|DIVIDE", re.IGNORECASE)
"""In the names of line types that bound nothing."""


def _is_broken(entity: Any, document: Any) -> bool:
    """Tell whether an entity is drawn as a centre or a hidden line, by itself or by its layer."""
    kind = str(entity.dxf.get("linetype", "BYLAYER"))
    if kind.upper() == "BYLAYER" and entity.dxf.layer in document.layers:
        kind = str(document.layers.get(entity.dxf.layer).dxf.get("linetype", ""))
    return bool(BROKEN.search(kind))


def _refuse_other_files(data: bytes) -> None:
    """Refuse what is called a DXF and is another file, by how it begins."""
    if re.match(rb"AC10\d\d", data):
        raise ProfileError("this is a DWG, whatever its name says: save it as DXF")
    if b"Binary DXF" in data[:32]:
        raise ProfileError("this is a DXF in binary: save it as text (ASCII)")
    if data[:2] == b"PK" or data[:4] == b"%PDF":
        kind = "PDF" if data[:4] == b"%PDF" else "zip"
        raise ProfileError(f"this is a {kind}, whatever its name says: a profile is drawn in DXF")


def _read(entities: Iterable[Any], within: float, out: OfDxf) -> None:
    from ezdxf.lldxf.const import DXFError

    left: Counter[str] = Counter()
    unsound = followed = rising = 0
    written: list[Written] = []
    for entity in entities:
        rising += _rises(entity)
        try:
            curves = list(_curves(entity, within))
        except (DXFError, ArithmeticError, AttributeError, LookupError, TypeError, ValueError):
            unsound += 1
            continue
        if not curves:
            left[entity.dxftype()] += 1
        sound = [curve for curve in curves if is_sound(curve)]
        unsound += len(curves) > len(sound)
        followed += entity.dxftype() == "SPLINE" or (
            entity.dxftype() == "ELLIPSE" and len(curves) > 1
        )
        out.curves += sound
        written += _written(entity, sound)
        if len(out.curves) > MOST_ENTITIES:
            raise ProfileError(f"a profile has at most {MOST_ENTITIES} pieces")
    # What follows a curve is as exact as it follows it, whatever the file's decimals.
    out.last = 0.0 if followed else last_decimal(written)
    out.notes += [f"{count} of {kind} left out: no outline" for kind, count in sorted(left.items())]
    if rising:
        words = "pieces do not lie flat" if rising > 1 else "piece does not lie flat"
        out.notes.append(f"{rising} {words}: its view from above was taken")
    if unsound:
        out.notes.append(f"{unsound} pieces of no length left out")
    if followed:
        out.notes.append(
            f"{followed} curves that are not round were followed by arcs within {within:g}"
        )


def _written(entity: Any, curves: Sequence[Curve]) -> list[Written]:
    """Return the numbers of an entity as it has them: of a spline those of its control points."""
    if entity.dxftype() == "SPLINE":
        return [((float(spot[0]), float(spot[1])),) for spot in entity.control_points]
    return [numbers_of(curve) for curve in curves]


def _exploded(entities: Iterable[Any], within: tuple[str, ...] = ()) -> Iterator[Any]:
    """Yield entities: polylines piece by piece, blocks with what is in them.

    `within` are the blocks they are in.
    """
    for entity in entities:
        kind = entity.dxftype()
        block = str(entity.dxf.name) if kind == "INSERT" else ""
        if block and block in within:
            raise ProfileError(f"the block {block} is inserted within itself")
        if kind in ("LWPOLYLINE", "POLYLINE", "INSERT") and len(within) < DEEPEST:
            yield from _exploded(entity.virtual_entities(), (*within, block))
        else:
            yield entity


def _rises(entity: Any) -> bool:
    """Tell whether a line goes up out of the plane of the drawing."""
    return bool(entity.dxftype() == "LINE" and entity.dxf.start.z != entity.dxf.end.z)


def _curves(entity: Any, within: float) -> Iterator[Curve]:
    match entity.dxftype():
        case "LINE":
            a, b = _xy(entity.dxf.start), _xy(entity.dxf.end)
            yield Line.between(a, b) if a != b else Line(a, Point(1.0, 0.0), 0.0, 0.0)
        case "CIRCLE":
            yield Circle(_xy(entity.ocs().to_wcs(entity.dxf.center)), float(entity.dxf.radius))
        case "ARC":
            start = math.radians(entity.dxf.start_angle)
            sweep = (
                math.radians(entity.dxf.end_angle - entity.dxf.start_angle) % math.tau or math.tau
            )
            centre = _xy(entity.ocs().to_wcs(entity.dxf.center))
            # Seen from behind an arc runs the other way round.
            behind = entity.dxf.extrusion.z < 0
            yield Arc(
                centre,
                float(entity.dxf.radius),
                math.pi - start if behind else start,
                -sweep if behind else sweep,
            )
        case "ELLIPSE":
            yield from _ellipse(entity, within)
        case "SPLINE":
            yield from _spline(entity, within)


def _ellipse(entity: Any, within: float) -> Iterator[Curve]:
    major = _xy(entity.dxf.major_axis)
    whole = Ellipse(_xy(entity.dxf.center), major, abs(major) * float(entity.dxf.ratio))
    behind = entity.dxf.extrusion.z < 0
    low, high = float(entity.dxf.start_param), float(entity.dxf.end_param)
    sweep = (high - low) % math.tau or math.tau
    if abs(whole.a - whole.b) <= OF_ONE * whole.a:
        start = major.angle + (-low if behind else low)
        yield (
            Circle(whole.centre, whole.a)
            if sweep == math.tau
            else Arc(whole.centre, whole.a, start, -sweep if behind else sweep)
        )
    elif math.tau - sweep < OF_ONE:
        yield whole
    else:
        low, high = (-low - sweep, -low) if behind else (low, low + sweep)
        knots = [low, *(low + (high - low) * k / 4 for k in (1, 2, 3)), high]
        yield from fitted(whole.at, whole.heading, knots, within)


def _spline(entity: Any, within: float) -> Iterator[Curve]:
    tool = entity.construction_tool()
    if tool.degree == CUBIC and not tool.is_rational and tool.is_clamped:
        # Other programs write arcs, circles and ellipses as cubic curves.
        cubics = [_cubic(each) for each in tool.bezier_decomposition()]
        oval = as_oval(cubics) if len(cubics) == 4 else None
        arcs = [as_arc(each, within) for each in cubics]
        if oval is not None or all(arcs):
            yield from [oval] if oval is not None else [arc for arc in arcs if arc]
            return
    knots = [float(knot) for knot in tool.knots()]
    low, high = knots[tool.order - 1], knots[-tool.order]
    inner = sorted({knot for knot in knots if low <= knot <= high})

    def place(at: float) -> Point:
        return _xy(tool.point(at))

    def heading(at: float) -> Point:
        way = _xy(tool.derivative(at, 1)[1])
        if abs(way) < NOUGHT:
            step = (high - low) * OF_ONE
            way = place(min(at + step, high)) - place(max(at - step, inner[0]))
        return way.unit

    yield from fitted(place, heading, inner, within)


def _cubic(places: Iterable[Any]) -> Cubic:
    a, b, c, d = map(_xy, places)
    return a, b, c, d


def _xy(place: Any) -> Point:
    return Point(float(place[0]), float(place[1]))
