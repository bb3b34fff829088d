"""SVG in millimetres, for the true size on screen and paper."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Sequence, Set
from itertools import groupby
from xml.sax.saxutils import escape, quoteattr

from ..display import (
    Arrowhead,
    DisplayList,
    DrawnArc,
    DrawnCircle,
    DrawnDot,
    DrawnLine,
    DrawnRun,
    Lettering,
    Mark,
)
from ..display.build import draw_outlines
from ..drawing.widths import LIGHT, WIDTHS, LineKind
from ..geometry import Loop, Point
from ..measure import Unit
from ..tolerance import ROUND

FACE = "Routed Gothic, sans-serif"


def write_svg(display: DisplayList, construction: bool = True, unit: Unit | None = None) -> str:
    """Write a display list as SVG.

    Parameters
    ----------
    display : DisplayList
    construction : bool
        Whether construction and pricked points are kept.
    unit : Unit, optional
        Of the plan; stated in the file.

    Returns
    -------
    str
        A document whose user unit is one millimetre; what is lined in is of the class ``outline``,
        and the scale by which it was drawn stands at its root, so that it can be read back.
    """
    body = "\n".join(
        _clipped(light, marks, display) for light, marks in by_light(display, construction)
    )
    width, height = f"{display.width:.6g}", f"{display.height:.6g}"
    words = f' data-unit="{unit.value}"' if unit else ""
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}mm" height="{height}mm" '
        f'viewBox="0 0 {width} {height}" data-scale="{display.factor:.12g}"{words} fill="none" '
        'stroke-linecap="round">\n'
        f'<rect width="{width}" height="{height}" '
        f'fill="#fffdf8"/>\n{_space(display)}{body}\n</svg>\n'
    )


def by_light(display: DisplayList, construction: bool) -> Iterator[tuple[bool, list[Mark]]]:
    """Return marks in order, in stretches of light work, which stops at the border, and of all
    else."""
    for light, marks in groupby(
        kept(display.marks, construction), lambda mark: mark.role in CLIPPED
    ):
        yield light and display.space is not None, list(marks)


OUTLINE = ' class="outline"'

CLIPPED = LIGHT - {"guide"}
"""Roles that stop at the border; the guide lines of the strip belong beyond it."""


def _space(display: DisplayList) -> str:
    if display.space is None:
        return ""
    left, low, right, high = display.space
    box = (
        f'x="{left:.6g}" y="{display.height - high:.6g}" width="{right - left:.6g}" '
        f'height="{high - low:.6g}"'
    )
    return f'<clipPath id="space"><rect {box}/></clipPath>\n'


def _clipped(light: bool, marks: Sequence[Mark], display: DisplayList) -> str:
    body = "\n".join(_mark(mark, display.height) for mark in marks)
    return f'<g clip-path="url(#space)">\n{body}\n</g>' if light else body


def thumbnail_svg(display: DisplayList, low: Point, high: Point) -> str:
    """Write the outline alone, cropped to its view, with lines that show when small.

    Parameters
    ----------
    display : DisplayList
    low, high : Point
        Corners of the view on paper, mm.
    """
    outline = [mark for mark in display.marks if mark.role == "outline"]
    marks = outline or [mark for mark in display.marks if mark.role == "construction"]
    body = [_mark(mark, display.height, 1.4) for mark in marks]
    room = 0.06 * max(high.x - low.x, high.y - low.y, 1.0)
    return _cropped(body, display.height, low, high, room)


def _cropped(body: Iterable[str], height: float, low: Point, high: Point, room: float) -> str:
    """Write marks as a picture of a part of the paper, with room about it."""
    wide, tall = max(high.x - low.x, 1.0), max(high.y - low.y, 1.0)
    box = (
        f"{low.x - room:.3f} {height - high.y - room:.3f} {wide + 2 * room:.3f} "
        f"{tall + 2 * room:.3f}"
    )
    drawn = "\n".join(body)
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{box}" fill="none" '
        f'stroke-linecap="round">\n{drawn}\n</svg>\n'
    )


ABOUT_SHEET = frozenset({"border", "strip", "guide", "lettering"})
"""Roles that belong to the sheet, not to what is drawn on it."""


def figure_svg(display: DisplayList, low: Point, high: Point, made: Sequence[Mark] = ()) -> str:
    """Write what is drawn, construction as well, cropped to its view, without the sheet.

    Parameters
    ----------
    display : DisplayList
    low, high : Point
        Corners of the view on paper, mm.
    made : sequence of Mark
        What is to stand out.
    """
    body = [_mark(mark, display.height) for mark in display.marks if mark.role not in ABOUT_SHEET]
    body += [_mark(mark, display.height, pen=BOLD) for mark in made]
    room = 0.1 * max(high.x - low.x, high.y - low.y) + 4
    return _cropped(body, display.height, low, high, room)


FINE = 'stroke="#9a9d94" stroke-width="0.8" vector-effect="non-scaling-stroke"'
BOLD = 'stroke="#191a17" stroke-width="2" vector-effect="non-scaling-stroke"'
"""Pens of a small figure, whose lines keep their width on screen."""


def small_svg(display: DisplayList, lines: Set[int], curves: Sequence[Mark] = ()) -> str:
    """Write what is drawn so that it is known when small: what some lines of the plan make stands
    out from what it is made with, and nothing is lettered.

    Parameters
    ----------
    display : DisplayList
    lines : set of int
        Of the plan.
    curves : sequence of Mark
        What they make, where it is drawn in other pieces than it is named by.
    """
    drawn = [
        mark
        for mark in display.marks
        if mark.role not in ABOUT_SHEET and not isinstance(mark, Lettering | Arrowhead)
    ]
    made = [*curves, *(mark for mark in drawn if mark.name and mark.line in lines)]
    seen = [mark for mark in drawn if mark.name or mark.role == "outline"] or drawn
    places = [place for mark in (*seen, *curves) for place in _reach(mark)]
    low = Point(min(x for x, _ in places), min(y for _, y in places))
    high = Point(max(x for x, _ in places), max(y for _, y in places))
    size = max(high.x - low.x, high.y - low.y, 1.0)
    body = [
        _mark(mark, display.height, pen=FINE) for mark in drawn if not isinstance(mark, DrawnDot)
    ]
    for mark in made:
        if not isinstance(mark, DrawnDot):
            body.append(_mark(mark, display.height, pen=BOLD))
        elif mark.role == "point" and not curves:
            ring = DrawnCircle(mark.x, mark.y, size / 30, mark.role)
            body.append(_mark(ring, display.height, pen=BOLD))
    return _cropped(body, display.height, low, high, 0.08 * size)


def _reach(mark: Mark) -> Iterator[tuple[float, float]]:
    """Yield places on paper between which a mark lies; an arc within its circle."""
    match mark:
        case DrawnLine():
            yield from ((mark.x1, mark.y1), (mark.x2, mark.y2))
        case DrawnCircle():
            yield from (
                (mark.cx - mark.r, mark.cy - mark.r),
                (mark.cx + mark.r, mark.cy + mark.r),
            )
        case DrawnArc():
            for share in (0.0, 0.25, 0.5, 0.75, 1.0):
                turn = math.radians(mark.start + share * mark.sweep)
                yield mark.cx + mark.r * math.cos(turn), mark.cy + mark.r * math.sin(turn)
        case DrawnRun():
            yield from ((x, y) for x, y, _ in mark.corners)
        case DrawnDot():
            yield mark.x, mark.y


def kept(marks: Iterable[Mark], construction: bool) -> list[Mark]:
    """Leave construction out of a drawing, or keep it."""
    return [mark for mark in marks if construction or mark.role not in LIGHT]


def ink(kind: LineKind) -> str:
    """Return the grey of a pencil line as a hex colour."""
    level = round(25 + (1 - kind.ink) * 200)
    return f"#{level:02x}{level:02x}{level:02x}"


def line_kind(role: str) -> LineKind:
    """Return width, dash and darkness of a role."""
    return WIDTHS.get(role, WIDTHS["lettering"])


def outline_paths(loops: Sequence[Loop]) -> list[str]:
    """Return outlines in plan units as one path each; y counts downwards."""
    return [
        _circle_path(mark) if isinstance(mark, DrawnCircle) else run_path(mark, 0.0)
        for mark in draw_outlines(loops)
        if isinstance(mark, DrawnRun | DrawnCircle)
    ]


def _circle_path(mark: DrawnCircle) -> str:
    """Return a circle as a path: a whole turn has no end to go to, so it is two halves."""
    half = f"A{mark.r:.6f} {mark.r:.6f} 0 0 1"
    left, right, y = mark.cx - mark.r, mark.cx + mark.r, -mark.cy
    return f"M{left:.6f} {y:.6f}{half} {right:.6f} {y:.6f}{half} {left:.6f} {y:.6f}Z"


def run_path(mark: DrawnRun, height: float) -> str:
    """Return a run of arcs as one path; y counts downwards from the top of the paper."""
    x, y, _ = mark.corners[0]
    parts = [f"M{x:.6f} {height - y:.6f}"]
    for x, y, u, v, bulge in mark.stretches:
        if abs(bulge) < ROUND:
            parts.append(f"L{u:.6f} {height - v:.6f}")
            continue
        radius = math.hypot(u - x, v - y) * (1 + bulge * bulge) / (4 * abs(bulge))
        parts.append(
            f"A{radius:.6f} {radius:.6f} 0 {int(abs(bulge) > 1)} {int(bulge < 0)} {u:.6f} "
            f"{height - v:.6f}"
        )
    return "".join(parts) + ("Z" if mark.closed else "")


def leaning(mark: Lettering, height: float) -> tuple[float, float, float, float, float, float]:
    """Return the matrix that sets lettering on an isometric plane; y counts downwards from the top
    of the paper."""
    along, up = math.radians(mark.angle), math.radians(mark.angle + 90 - mark.slant)
    return math.cos(along), -math.sin(along), -math.cos(up), math.sin(up), mark.x, height - mark.y


def _dashes(mark: Mark) -> str:
    dash = getattr(mark, "dash", ())
    return (
        f' stroke-dasharray="{" ".join(f"{part:.4f}" for part in dash)}" stroke-linecap="butt"'
        if dash
        else ""
    )


def _mark(mark: Mark, height: float, pixels: float = 0.0, pen: str = "") -> str:
    """Write one mark; with `pixels` its stroke keeps that width on screen however small the picture
    is; `pen` is how it is drawn where that is not by its role."""
    kind = line_kind(mark.role)
    width = (
        f'stroke-width="{pixels}" vector-effect="non-scaling-stroke"'
        if pixels
        else f'stroke-width="{kind.width}"'
    )
    shown = pen or (
        f'stroke="{ink(kind)}" {width}{_dashes(mark)}{OUTLINE if mark.role == "outline" else ""}'
    )
    match mark:
        case DrawnLine():
            y1, y2 = height - mark.y1, height - mark.y2
            return (
                f'<line x1="{mark.x1:.6f}" y1="{y1:.6f}" x2="{mark.x2:.6f}" y2="{y2:.6f}" {shown}/>'
            )
        case DrawnCircle():
            return (
                f'<circle cx="{mark.cx:.6f}" cy="{height - mark.cy:.6f}" r="{mark.r:.6f}" {shown}/>'
            )
        case DrawnArc():
            start, end = math.radians(mark.start), math.radians(mark.start + mark.sweep)
            x1, y1 = mark.cx + mark.r * math.cos(start), height - mark.cy - mark.r * math.sin(start)
            x2, y2 = mark.cx + mark.r * math.cos(end), height - mark.cy - mark.r * math.sin(end)
            large, sweep = int(abs(mark.sweep) > 180), int(mark.sweep < 0)
            path = (
                f"M{x1:.6f} {y1:.6f}A{mark.r:.6f} {mark.r:.6f} 0 {large} {sweep} {x2:.6f} {y2:.6f}"
            )
            return f'<path d="{path}" {shown}/>'
        case DrawnRun():
            return f'<path d="{run_path(mark, height)}" {shown}/>'
        case DrawnDot():
            return (
                f'<circle cx="{mark.x:.6f}" cy="{height - mark.y:.6f}" r="0.45" '
                f'fill="{ink(kind)}"/>'
            )
        case Arrowhead():
            corners = " ".join(f"{x:.6f},{height - y:.6f}" for x, y in mark.corners)
            return f'<polygon points="{corners}" fill="{ink(kind)}"/>'
        case Lettering():
            place = f'x="{mark.x:.6f}" y="{height - mark.y:.6f}"'
            if mark.slant:
                place = f'transform="matrix({" ".join(f"{n:.6f}" for n in leaning(mark, height))})"'
            elif mark.angle:
                place += (
                    f' transform="rotate({-mark.angle:.4g} {mark.x:.6f} {height - mark.y:.6f})"'
                )
            return (
                f'<text {place} font-size="{mark.height * 1.4:.4g}" '
                f'font-family={quoteattr(FACE)} text-anchor="{mark.anchor}" fill="#191919">'
                f"{escape(mark.text)}</text>"
            )
