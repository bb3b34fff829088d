"""Involute teeth of any writer, by what their flanks follow: base circle, teeth, module, pressure
angle, shift or backlash, outside and root."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import minimize_scalar  # type: ignore[import-untyped]

from ..geometry import Arc, Line, Loop, Point, rotate, shift
from ..geometry.loop import boxed
from ..geometry.shapes import ends as ends_of
from ..geometry.transform import from_start
from ..measure import Unit
from ..memo import remembered
from ..plan.reader import read_plan
from ..rules.gear import PROPORTIONS, inv
from ..solve import solve
from .profile import Curve, Run, loop_of, middle_of, pieces_of
from .simplest import cost, simplest, worth

FEWEST_TEETH, MOST_TEETH = 6, 400

PRESSURES = (20.0, 14.5, 25.0, 22.5)
"""Pressure angles that are tried, degrees (the first three by published standards, from memory)."""

FLANK_FROM, FLANK_TO = 0.4, 0.93
"""Where along the depth of a tooth its flank is surely an involute: above the fillet, below the
tip's edge (by eye)."""

FLANK_OFF, ROOT_OFF = 0.012, 0.4
"""How far flanks and roots of another writer may be from those of the gear, in modules (by eye): a
root is cut in many ways."""

CLOSE = 0.0015
"""How near flanks are to those of a gear that is surely meant, in modules (by eye)."""

ROUND_OFF = 0.002
"""By how much a factor may be off the simplest number, in modules."""


@dataclass(frozen=True, slots=True)
class Teeth:
    """A gear as it is found in an outline, lengths in the outline's unit.

    Attributes
    ----------
    centre : Point
    turned : float
        Of the first tooth from upright, radians.
    said : str
        The gear as a statement has it, about ``CENTRE``.
    flank, root : float
        How far its flanks and roots are from the outline.
    loop : Loop
        The gear itself, about its centre and turned.
    """

    centre: Point
    turned: float
    said: str
    flank: float
    root: float
    loop: Loop


def as_gear(run: Run, within: float, unit: Unit) -> tuple[Run, str]:
    """Return the gear that a closed run follows, and what is to be told of it; the run and nothing
    where it follows none, or is one already."""
    found = teeth_in(run, within, unit)
    if found is None or max(found.flank, found.root) <= within:
        return run, ""
    if "addendum" in found.said and "addendum 1," not in found.said:
        return run, ""  # another's teeth are of the usual height, or no gear
    gear: list[Curve] = [
        piece.curve for piece in found.loop.pieces if isinstance(piece.curve, Line | Arc)
    ]
    name = found.said.partition(", about CENTRE, ")[2]
    words = (
        f"an outline follows a gear of {name} within {found.flank:.2g}; its roots are up to "
        f"{found.root:.2g} off those of the gear, which were taken"
    )
    return tuple(gear), words


def teeth_in(run: Run, within: float, unit: Unit, close: float = CLOSE) -> Teeth | None:
    """Return the gear whose teeth an outline has; None where it has none.

    Parameters
    ----------
    run : tuple
        Closed.
    within : float
        How far places may be off.
    unit : Unit
    close : float
        How near the simplest gear has to come that is taken before others that come nearer, in
        modules.
    """
    pieces = pieces_of(run)
    if len(pieces) < 4 * FEWEST_TEETH:
        return None
    start = ends_of(pieces[0])[0]
    alike = tuple(from_start(piece, start) for piece in pieces)
    found = _from_its_start(alike, within, unit, close)
    return found and replace(found, centre=found.centre + start, loop=shift(found.loop, start))


@remembered()
def _from_its_start(
    run: tuple[Line | Arc, ...], within: float, unit: Unit, close: float
) -> Teeth | None:
    """Find teeth as they lie from their first place: they are the same wherever the datum is."""
    pieces = pieces_of(run)
    outline = loop_of(run)
    centre = outline.centroid
    spots = [spot for piece in pieces for spot in (ends_of(piece)[0], *_inner(piece))]
    polar = np.array([[abs(spot - centre), (spot - centre).angle] for spot in spots])
    outer, inner = float(polar[:, 0].max()), float(polar[:, 0].min())
    teeth = _count(polar[:, 0], (outer + inner) / 2)
    if not FEWEST_TEETH <= teeth <= MOST_TEETH or inner < outer / 3:
        return None
    first = _first_tooth(polar, teeth, outer)
    flanks = _flanks(polar, teeth, first, inner, outer)
    if len(flanks) < 2 * teeth:
        return None
    base, half = _involute(flanks)
    if base <= 0:
        return None
    module = 2 * base / teeth
    best: Teeth | None = None
    for said in _statements(teeth, base, half, (inner, outer), unit):
        loop = _drawn(said, unit)
        if loop is None:
            continue
        there = shift(rotate(loop, Point(0.0, 0.0), first - math.pi / 2), centre)
        tried = _held(there, spots, centre, (inner, outer))
        found = Teeth(centre, first - math.pi / 2, said, *tried, there)
        if best is None or found.flank < best.flank:
            best = found
        if found.flank <= max(2 * within, close * module) and found.root <= ROOT_OFF * module:
            # The simplest that is near enough.
            best = found
            break
    if best is None or best.flank > max(FLANK_OFF * module, within):
        return None
    if best.root > ROOT_OFF * module:
        return None
    step = math.tau / teeth
    return replace(best, turned=math.remainder(best.turned, step))


def _inner(piece: Line | Arc) -> Sequence[Point]:
    """Return places of an arc between its ends; of a chord its ends alone lie on what it
    follows."""
    return (middle_of(piece),) if isinstance(piece, Arc) else ()


Places = NDArray[np.float64]


def _count(radii: Places, middle: float) -> int:
    """Return how often an outline comes out over a circle."""
    above = radii > middle
    return int(np.count_nonzero(above & ~np.roll(above, 1)))


def _first_tooth(polar: Places, teeth: int, outer: float) -> float:
    """Return the direction of a tooth: the mean of all, folded on each other."""
    tips = polar[polar[:, 0] > outer * (1 - TIP)]
    folded = np.exp(1j * teeth * tips[:, 1]).sum()
    return float(np.angle(folded)) / teeth


TIP = 1 / 2000
"""Of the outside radius, how far below it a place still belongs to the tip."""


def _flanks(polar: Places, teeth: int, first: float, inner: float, outer: float) -> Places:
    """Return radius and half angle of places on the flanks."""
    depth = outer - inner
    low, high = inner + FLANK_FROM * depth, inner + FLANK_TO * depth
    kept = polar[(polar[:, 0] > low) & (polar[:, 0] < high)]
    step = math.tau / teeth
    away = np.abs((kept[:, 1] - first + step / 2) % step - step / 2)
    return np.column_stack((kept[:, 0], away))


def _involute(flanks: Places) -> tuple[float, float]:
    """Return the base circle, and half the angle of a tooth there, whose involute flanks follow
    (least squares; the angle is linear)."""
    radius, away = flanks.T
    least = float(radius.min())

    def unrolled(base: float) -> Places:
        turn = np.arccos(np.clip(base / radius, -1.0, 1.0))
        return np.array(np.tan(turn) - turn + away)

    def off(base: float) -> float:
        return float(np.var(unrolled(base)))

    found = minimize_scalar(
        off, bounds=(0.7 * least, least), method="bounded", options={"xatol": FINE * least}
    )
    base = float(found.x)
    return base, float(unrolled(base).mean())


FINE = 1 / 100_000_000
"""How closely the base circle is looked for, as a share of it."""


def _statements(
    teeth: int, base: float, half: float, reach: tuple[float, float], unit: Unit
) -> list[str]:
    """Return the gears that have a base circle, the simplest first."""
    found: list[tuple[float, str]] = []
    for pressure in PRESSURES:
        angle = math.radians(pressure)
        exact = 2 * base / (teeth * math.cos(angle))
        size, module = _size(exact, unit)
        if abs(module - exact) > MODULE_OFF * exact:
            continue
        pitch = teeth * module / 2
        thickness = 2 * pitch * (half - inv(angle)) / module
        depths = (pitch - reach[0]) / module, (reach[1] - pitch) / module
        more = "" if pressure == PRESSURES[0] else f", pressure {pressure:g}°"
        for shape in _shapes(thickness, angle, depths, module):
            figures = cost(size) + cost(more) + cost(shape) + len(shape) / 100
            found.append((figures, f"gear, about CENTRE, {teeth} teeth, {size}{more}{shape}"))
    return [said for _, said in sorted(found)]


MODULE_OFF = 0.002
"""How far a module may be off the simplest number, as a share."""


def _size(module: float, unit: Unit) -> tuple[str, float]:
    pitch = 1 / module
    if unit is Unit.INCH and abs(pitch - round(pitch)) <= MODULE_OFF * pitch and pitch >= 1:
        return f"diametral pitch {round(pitch)}", 1 / round(pitch)
    text = simplest(module, Unit.MM, MODULE_OFF * module)
    return f"module {text}", worth(text)


def _shapes(
    thickness: float, angle: float, depths: tuple[float, float], module: float
) -> Iterator[str]:
    """Yield what a tooth may have besides its module: proportions, shift or backlash, by its
    thickness and depths in modules."""
    wide = thickness - math.pi / 2
    shifts = simplest(abs(wide / (2 * math.tan(angle))), Unit.MM, 2 * ROUND_OFF)
    sign = "-" if wide < 0 else ""
    shifted = math.copysign(worth(shifts), wide)
    yield _proportions(depths, 0.0)
    if wide < 0:
        play = simplest(-2 * wide * module, Unit.MM, ROUND_OFF * module)
        yield f"{_proportions(depths, 0.0)}, backlash {play}"
    if shifted:
        yield f"{_proportions(depths, shifted)}, profile shift {sign}{shifts}"


def _proportions(depths: tuple[float, float], shifted: float) -> str:
    dedendum, addendum = depths[0] + shifted, depths[1] - shifted
    for name, (add, ded) in PROPORTIONS.items():
        if max(abs(addendum - add), abs(dedendum - ded)) <= 2 * ROUND_OFF:
            return f", proportions {name}" if name != "full" else ""
    add_text, ded_text = (simplest(value, Unit.MM, ROUND_OFF) for value in (addendum, dedendum))
    return f", addendum {add_text}, dedendum {ded_text}"


def _drawn(said: str, unit: Unit) -> Loop | None:
    text = (
        f"units {unit.value}\nsheet A0\nO = datum, middle of sheet\n"
        f"g = {said.replace('CENTRE', 'O')}\nrim = line in, g\n"
    )
    made = solve(read_plan(text)).entries[-1].made
    return made.loops[0] if made and made.loops else None


def _held(
    gear: Loop, spots: Sequence[Point], centre: Point, reach: tuple[float, float]
) -> tuple[float, float]:
    """Return how far the flanks and tips, and the roots, of an outline are from a gear's."""
    ring = boxed(gear)
    inner, outer = reach
    border = inner + FLANK_FROM * (outer - inner)
    flank = root = 0.0
    for spot in spots[: max(200, len(spots) // 4)]:
        off = abs(ring.nearest(spot) - spot)
        if abs(spot - centre) > border:
            flank = max(flank, off)
        else:
            root = max(root, off)
    return flank, root
