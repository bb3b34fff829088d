"""What is found on a finished sheet: every piece as given and as drawn, what is missing, open or
too faint, and the act whose slip explains it.

Nothing is called off that lies within what the measuring itself may be off."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
import numpy.typing as npt
from scipy.ndimage import binary_dilation, label  # type: ignore[import-untyped]

from ..acts.act import GoOver
from ..desk import Work
from ..drawing.marks import DrawnLine, Lettering, Mark
from ..geometry import Arc, Circle, Line, Loop
from ..measure import Unit, spell
from ..rehearsal.many import Places, Reals
from .by_hand import stroke_of
from .fit import FittedCircle, FittedLine
from .lined import LinedPiece
from .measure import FOUND, Measured, measured
from .seen import SomeOf, pairs, tree_of
from .straight import SeenStrokes, Straight
from .traces import SOUND
from .which import Explained, Hypotheses, Named, from_run, hypotheses, named

TOLERANCE = 0.5
"""How far a drawing may be off, mm on paper, where nobody says otherwise (common practice, no
source)."""

SURELY = 2.0
"""Standard deviations beyond which something is off for sure."""

ALIGNED = 0.05
"""What the border itself may be off where a place is measured from it, mm, one standard
deviation."""

SPREAD = 40
"""How far a view is looked for from where it belongs, mm."""

ELSEWHERE = 1.0
"""How far a view has to stand from its place to be said to stand elsewhere, mm."""

OTHER_SHEET = 0.34
"""Share of the pieces that have to be where any slip would have them: else it is another sheet."""

OPEN = 0.8
"""How far apart two pieces may be where they meet, mm."""

UNDRAWN = 1.8
"""Longest stretch of a piece that may be missing, mm."""

TOO_FAINT = 0.65
"""Share of how dark the sheet's lines are under which one is too faint."""

EXTRA = 12.0
"""Length from which a heavy line that belongs to no piece is told, mm."""

Spots = tuple[tuple[float, float], ...]

Judged = Literal["within", "unsure", "off", "missing"]
"""Within the tolerance; beyond it, but not beyond what the measuring may be off; off; not there."""


@dataclass(frozen=True, slots=True)
class Sized:
    """A size of a piece: as given and as drawn, in the plan's unit; `u` is what the measuring may
    be off (95 in 100), and `paper` how far the line is off, mm on paper.

    Attributes
    ----------
    what : str
        ``R 154``, ``Ø 38``.
    given, drawn, u : float
    paper : float
    """

    what: str
    given: float
    drawn: float
    u: float
    paper: float


@dataclass(frozen=True)
class Row:
    """One piece of the plan on the sheet.

    Attributes
    ----------
    name : str
    line : int
        Statement of the plan.
    size : Sized or None
        None for a straight line or a curve.
    place : float
        How far it is from its place, mm on paper: the centre of a circle, a line or curve square to
        itself.
    place_u : float
        What that may be off (95 in 100).
    judged : str
    told : str
        What is to be said of it; empty where nothing is.
    seen : float
        Share of it that is drawn.
    dark, width : float
        How dark the stroke is (1 black), and how wide, mm.
    carried : bool
        Whether it is off, but where it should be if the slip that is told was made.
    step : int
        Which lines it in; 0 where none does.
    tool : str
        With what.
    path, planned : tuple of (x, y)
        Where it was drawn, and where it belongs, in the plan.
    """

    name: str
    line: int
    judged: Judged
    told: str
    seen: float
    planned: Spots
    path: Spots = ()
    size: Sized | None = None
    place: float = 0.0
    place_u: float = 0.0
    dark: float = 0.0
    width: float = 0.0
    carried: bool = False
    step: int = 0
    tool: str = ""


@dataclass(frozen=True, slots=True)
class Joined:
    """Where two pieces of an outline meet on the sheet; `miss` between them, mm on paper."""

    first: str
    second: str
    miss: float
    place: tuple[float, float]

    @property
    def is_closed(self) -> bool:
        """Whether they meet as far as the eye can tell."""
        return self.miss <= OPEN


@dataclass(frozen=True, slots=True)
class Slipped:
    """A slip that explains the sheet: what went wrong at which step, in a sentence."""

    key: str
    said: str
    step: int
    act: str
    gain: float
    name: str


@dataclass(frozen=True)
class Finding:
    """A sheet looked at.

    Attributes
    ----------
    rows : tuple of Row
    slips : tuple of Slipped
        The act that slipped, and others that would draw the same; empty where none did.
    second : tuple of Slipped
        A second slip, on top of the first.
    sentence : str
        What there is to say, in one sentence.
    notes : tuple of str
        What is missing, open, overshot, too faint, extra; how the picture was.
    joins : tuple of Joined
    shift : (float, float)
        How far the view stands from its place, mm.
    tolerance : float
        Mm on paper.
    unfinished : bool
        Whether several pieces are not lined in, and nothing is drawn elsewhere instead.
    extra : tuple of (x, y, length)
        Heavy lines that belong to no piece: about where, mm from the datum, and how long.
    """

    rows: tuple[Row, ...]
    slips: tuple[Slipped, ...]
    second: tuple[Slipped, ...]
    sentence: str
    notes: tuple[str, ...]
    joins: tuple[Joined, ...]
    shift: tuple[float, float]
    tolerance: float
    unfinished: bool = False
    extra: tuple[tuple[float, float, float], ...] = ()

    @property
    def is_within(self) -> bool:
        """Whether nothing is off, and nothing is missing."""
        return all(row.judged in ("within", "unsure") for row in self.rows)

    @property
    def doubt(self) -> str:
        """Why an eye should look at the sheet too; empty where none need."""
        if self.unfinished:
            return "not all of it is lined in"
        if not self.slips and not self.is_within:
            return "off, and no one slip explains it"
        if self.second:
            return "two slips"
        return "several slips would draw the same" if len(self.slips) > 1 else ""


class NotThisSheet(Exception):
    """The sheet that is looked at is not one of this plan."""


def look_at(work: Work, straight: Straight, tolerance: float = TOLERANCE) -> Finding:
    """Look at a straightened picture of a finished sheet.

    Parameters
    ----------
    work : Work
        The plan that was to be drawn.
    straight : Straight
    tolerance : float
        Mm on paper.

    Raises
    ------
    NotThisSheet
        Where next to nothing of the plan is anywhere near its place, whatever slipped.
    NotDrawn
        Where the acts of the plan cannot be carried out.
    """
    every = hypotheses(work)
    if not every.pieces:
        raise NotThisSheet("nothing is lined in on this plan: there is no outline to look for")
    origin = complex(work.sheet.origin.x, work.sheet.origin.y)
    expected = np.concatenate([piece.places[:, SOUND] for piece in every.pieces])
    fine = _fine_lines(work, every.pieces)
    seen = SeenStrokes(straight, origin, expected, fine)
    shift = _shift(expected, seen)
    if abs(shift) > ELSEWHERE:
        seen = SeenStrokes(straight, origin + shift, expected, fine)
    _refuse_unlined(work, every.pieces, seen)
    figure = SomeOf(seen, seen.places[~_of_the_finish(work, every.pieces, seen.places)])
    explained = named(every, figure)
    unfinished = _is_unfinished(every, figure, explained)
    if unfinished:
        explained = Named(())
    hand, pieces, second = explained.hand or SOUND, every.pieces, Named(())
    fine_shift = _fine_shift(seen, pieces, hand)
    at = seen.origin + fine_shift
    found = measured(straight, pieces, hand, at, seen.lightest)
    if explained.slips and any(map(_is_elsewhere, found)):
        after = hypotheses(work, (explained.slips[0].slip,))
        second = named(after, figure)
        if second.slips:
            hand, pieces = second.slips[0].hand, _from_sound(after.pieces, every.pieces)
            found = measured(straight, pieces, hand, at, seen.lightest)
    if unfinished:
        found = tuple(_lined_in(found))
    else:
        _refuse_another(work, found, len(pieces))
    rows = tuple(_with_steps(_rows(work, pieces, found, tolerance), pieces, every))
    joins = tuple(_joins(work, found))
    extra = _extra(work, seen, pieces, hand)
    shift += fine_shift
    slips = tuple(map(_told_slip(every), explained.slips))
    more = tuple(map(_told_slip(every), second.slips))
    return Finding(
        rows,
        slips,
        more,
        _sentence(rows, slips, more, unfinished),
        tuple(_notes(rows, found, joins, straight, shift, extra)),
        joins,
        (shift.real, shift.imag),
        tolerance,
        unfinished,
        extra,
    )


def _joins(work: Work, found: Sequence[Measured]) -> Iterator[Joined]:
    """Yield where pieces that are both there meet."""
    factor = work.sheet.factor
    there = [each for each in found if each.seen >= FOUND]
    for _, _, loop in work.checked.runs:
        following = [*loop.pieces[1:], *(loop.pieces[:1] if loop.closed else ())]
        for one, other in zip(loop.pieces, following, strict=False):
            at = complex(one.exit.x, one.exit.y) * factor
            first, second = (_ending(there, name, at) for name in (one.name, other.name))
            if first is None or second is None or first is second:
                continue
            run, on = first.piece.places[:, first.hand], second.piece.places[:, second.hand]
            # The ends that meet, where the slip that is told puts them.
            ends = [(a, b) for a in (run[0], run[-1]) for b in (on[0], on[-1])]
            meet = min(ends, key=lambda pair: abs(pair[0] - pair[1]))
            spot = complex(meet[0] + meet[1]) / 2
            spots = [_nearest(each, spot) for each in (first, second)]
            if None in spots:
                continue
            miss = abs(spots[0] - spots[1])  # type: ignore[operator]
            yield Joined(one.name, other.name, miss, (spot.real / factor, spot.imag / factor))


def _ending(found: Sequence[Measured], name: str, at: complex) -> Measured | None:
    """Return the piece of a name that ends at a place of the plan: copies are called alike."""
    for each in found:
        ends = each.piece.places[[0, -1], SOUND]
        if each.piece.called == name and np.min(np.abs(ends - at)) < ALIGNED:
            return each
    return None


def _nearest(each: Measured, spot: complex) -> complex | None:
    """Return the place of a piece, as it was drawn, nearest to a spot."""
    fitted = each.fitted
    if isinstance(fitted, FittedCircle):
        out = spot - fitted.centre
        return fitted.centre + out / max(abs(out), ALIGNED) * fitted.radius
    if isinstance(fitted, FittedLine):
        return fitted.at + fitted.ahead * float((np.conj(fitted.ahead) * (spot - fitted.at)).real)
    if not len(each.places):
        return None
    return complex(each.places[int(np.argmin(np.abs(each.places - spot)))])


def _is_elsewhere(each: Measured) -> bool:
    """Tell whether a piece is not where a slip would have put it either."""
    if each.seen < FOUND or not len(each.places):
        return True
    away = from_run(each.places, each.piece.places[:, each.hand])
    middle = float(np.median(away))
    return middle > UNEXPLAINED or float(np.median(np.abs(away - middle))) > SCATTERED


SCATTERED = 0.6
"""How far places may lie about a stroke that is one, mm (median)."""

UNEXPLAINED = 1.5
"""How far from where a slip would have put it a piece may be for the slip to explain it, mm."""


def _from_sound(
    pieces: Sequence[LinedPiece], sound: Sequence[LinedPiece]
) -> tuple[LinedPiece, ...]:
    """Return pieces with what the plan has as the first hand."""
    return tuple(
        replace(
            piece,
            places=_first(piece.places, true.places),
            centre=None
            if piece.centre is None or true.centre is None
            else np.concatenate((true.centre[:1], piece.centre[1:])),
            radius=None
            if piece.radius is None or true.radius is None
            else np.concatenate((true.radius[:1], piece.radius[1:])),
        )
        for piece, true in zip(pieces, sound, strict=True)
    )


def _first(places: Places, true: Places) -> Places:
    share = np.linspace(0.0, 1.0, len(places))
    run = np.interp(share, np.linspace(0.0, 1.0, len(true)), true[:, 0])
    found: Places = np.column_stack((run, places[:, 1:]))
    return found


def _shift(expected: Places, seen: SeenStrokes) -> complex:
    """Return how far a view stands from its place, mm: where nearly all of it is found elsewhere,
    and not here."""
    here = float(np.mean(np.minimum(seen.away(expected), FAR)))
    if here < NEARLY:
        return 0j
    steps = np.arange(-SPREAD, SPREAD + 1.0, 2.0)
    grid = (steps[:, None] + 1j * steps).ravel()
    sparse = expected[:: max(1, len(expected) // 150)]
    costs = _cost_at(grid, sparse, seen)
    best = complex(grid[int(np.argmin(costs))])
    for reach in (1.0, 0.25):
        fine = np.arange(-reach, reach + reach / 4, reach / 4)
        near = (best + fine[:, None] + 1j * fine).ravel()
        best = complex(near[int(np.argmin(_cost_at(near, expected, seen)))])
    there = float(np.mean(np.minimum(seen.away(expected + best), FAR)))
    return best if there < NEARLY and there < here / 3 else 0j


FAR = 3.0
NEARLY = 0.6
"""Mean distance under which an outline is where it is looked for, mm."""


def _cost_at(shifts: Places, places: Places, seen: SeenStrokes) -> Reals:
    found: Reals = np.mean(np.minimum(seen.away(places + shifts[:, None]), FAR), axis=1)
    return found


def _fine_shift(seen: SeenStrokes, pieces: Sequence[LinedPiece], hand: int) -> complex:
    """Return by how much a view stands beside its place where that is no more than a hand is off,
    mm: the middle of what its pieces say."""
    found = measured(seen.straight, pieces, hand, seen.origin, seen.lightest)
    away = [
        each.fitted.centre - complex(each.piece.centre[hand])
        for each in found
        if isinstance(each.fitted, FittedCircle) and each.piece.centre is not None
        if each.fitted.centre_off < ELSEWHERE / 4
    ]
    if len(away) < 2:
        return 0j
    middle = complex(np.median(np.real(away)), np.median(np.imag(away)))
    return middle if abs(middle) < ELSEWHERE else 0j


def _fine_lines(work: Work, pieces: Sequence[LinedPiece]) -> Places:
    """Return places on straight dimensions and centre lines, clear of every outline."""
    strokes = [stroke_of(mark) for _, mark in work.sheet.finish if isinstance(mark, DrawnLine)]
    shares = np.linspace(0.1, 0.9, 20)
    runs = [
        each.places[0] + shares * (each.places[1] - each.places[0])
        for each in strokes
        if each is not None
    ]
    places = np.concatenate([np.zeros(0, complex), *runs])
    away = np.min([from_run(places, piece.places[:, SOUND]) for piece in pieces], axis=0)
    clear: Places = places[away > FAR]
    return clear


def _refuse_unlined(work: Work, pieces: Sequence[LinedPiece], seen: SeenStrokes) -> None:
    """Refuse a sheet on which nothing is as dark as an outline."""
    # Hatching is everywhere, and lighter than what it crosses.
    crossing = [mark for _, mark in work.sheet.finish if mark.role != "hatch"]
    lined = np.count_nonzero(~_on_any(crossing, seen.lined_in))
    long = sum(float(np.sum(np.abs(np.diff(piece.places[:, SOUND])))) for piece in pieces)
    if lined < BEGUN * long:
        raise NotThisSheet(
            "next to nothing is lined in on this sheet yet: beside its border all lines are light. "
            "Line its outlines in, then look again"
        )


def _is_unfinished(every: Hypotheses, seen: SomeOf, explained: Named) -> bool:
    """Tell whether several pieces are not lined in, no slip that is named puts them elsewhere, and
    nothing is drawn where none belongs."""
    if len(_undone(every, SOUND, seen)) <= 1 or len(_undone(every, explained.hand, seen)) <= 1:
        return False
    sound = tree_of([piece.places[:, SOUND] for piece in every.pieces])
    beside = sound.query(pairs(seen.places), distance_upper_bound=FAR)[0]
    return bool(np.count_nonzero(np.isinf(beside)) < EXTRA)


def _undone(every: Hypotheses, hand: int | None, seen: SomeOf) -> set[GoOver | None]:
    """Return what would line in the pieces of which nothing is seen where a hand has them."""
    lining = _lining(every)
    return {
        lining.get(piece.planned)
        for piece in every.pieces
        if np.mean(seen.away(piece.places[:, hand or SOUND]) > FAR) > 1 - FOUND
    }


def _lined_in(found: Sequence[Measured]) -> Iterator[Measured]:
    """Yield what is lined in for sure, where not everything is: light lines cross it or lie there
    as well."""
    dark = max((each.dark for each in found), default=0.0)
    for each in found:
        if each.seen > MOST_OF_IT and each.dark > TOO_FAINT * dark:
            yield each


MOST_OF_IT = 0.6
"""Share of a piece that is drawn where it is, on a sheet that is not finished."""

BEGUN = 0.1
"""Share of its outline that has to be lined in for a sheet to be looked at."""


def _refuse_another(work: Work, found: Sequence[Measured], count: int) -> None:
    there = sum(not _is_elsewhere(each) for each in found)
    if there < OTHER_SHEET * count:
        name = work.solution.drawing or work.solution.title or "the sheet of this plan"
        raise NotThisSheet(
            f"this is not {name}: only {there} of {count} pieces of its outlines are anywhere near"
        )


def _rows(
    work: Work, pieces: Sequence[LinedPiece], found: Sequence[Measured], tolerance: float
) -> Iterator[Row]:
    lines = {piece.name: line for _, line, loop in work.checked.runs for piece in loop.pieces}
    at = {id(each.piece): each for each in found}
    for piece in pieces:
        each = at.get(id(piece))
        line = lines.get(piece.called, 0)
        if each is None or each.seen < FOUND or not len(each.places):
            seen = 0.0 if each is None else each.seen
            planned = _spots(piece.places[:, SOUND] / work.sheet.factor)
            yield Row(piece.called, line, "missing", "is not there", seen, planned)
        else:
            yield _row(work, each, line, tolerance)


def _with_steps(
    rows: Iterable[Row], pieces: Sequence[LinedPiece], every: Hypotheses
) -> Iterator[Row]:
    """Yield rows with the step that lines each piece in."""
    lining = _lining(every)
    for row, piece in zip(rows, pieces, strict=True):
        step = every.order.steps[lining[piece.planned]] if piece.planned in lining else None
        yield replace(row, step=step.number, tool=step.tool) if step else row


def _lining(every: Hypotheses) -> Mapping[Line | Circle | Arc | Loop, GoOver]:
    """Return the act that lines in each piece."""
    acts = [act for act in every.order.steps if isinstance(act, GoOver)]
    return {gone.planned: act for act in acts for gone in act.pieces}


def _row(work: Work, each: Measured, line: int, tolerance: float) -> Row:
    piece, fitted = each.piece, each.fitted
    factor, unit = work.sheet.factor, work.solution.unit
    size, told = None, ""
    if isinstance(fitted, FittedCircle) and piece.centre is not None and piece.radius is not None:
        given, whole = float(piece.radius[0]), isinstance(piece.planned, Circle)
        times, sign = (2, "Ø") if whole else (1, "R")
        off = fitted.radius - given
        spread = 2 * math.hypot(fitted.radius_off, ALIGNED / 2)
        place = abs(fitted.centre - complex(piece.centre[0]))
        place_u = 2 * math.hypot(fitted.centre_off, ALIGNED)
        what = f"{sign} {_spelt(times * given / factor, unit)}"
        drawn = times * fitted.radius / factor
        size = Sized(what, times * given / factor, drawn, times * spread / factor, off)
        judged = _judged((off, spread), (place, place_u), tolerance=tolerance)
        if judged == "off" and abs(off) > tolerance:
            told = (
                f"{_spelt(abs(times * off) / factor, unit)} too {'large' if off > 0 else 'small'}"
            )
        elif judged == "off":
            told = f"its centre is {place:.1f} mm off"
    elif isinstance(fitted, FittedLine):
        ends = piece.places[[0, -1], 0]
        offs = (np.conj(fitted.ahead) * (ends - fitted.at)).imag
        place = float(np.max(np.abs(offs)))
        long = abs(complex(ends[1] - ends[0]))
        place_u = 2 * math.hypot(fitted.at_off, fitted.turn_off * long / 2, ALIGNED)
        judged = _judged((place, place_u), tolerance=tolerance)
        if judged == "off":
            lean = math.degrees(math.asin(min(1.0, abs(float(offs[1] - offs[0])) / max(long, 1.0))))
            leaning = abs(float(offs[1] - offs[0])) > tolerance
            told = f"{place:.1f} mm off" + (f", {lean:.1f}° askew" if leaning else "")
    else:
        place = float(np.percentile(np.abs(each.off), 95))
        place_u = 2 * math.hypot(float(np.median(np.abs(each.off))) / 4, ALIGNED)
        judged = _judged((place, place_u), tolerance=tolerance)
        told = f"up to {place:.1f} mm off" if judged == "off" else ""
    return Row(
        piece.called,
        line,
        judged,
        told,
        each.seen,
        _spots(piece.places[:, SOUND] / factor),
        _spots(each.places / factor),
        size,
        place,
        place_u,
        each.dark,
        each.width,
        judged == "off" and each.hand != SOUND and not _is_elsewhere(each),
    )


def _spots(path: Places) -> Spots:
    """Return a path as it is shown, of so many places at most."""
    every = path[:: max(1, len(path) // MOST_SPOTS)]
    return tuple((round(spot.real, 4), round(spot.imag, 4)) for spot in map(complex, every))


MOST_SPOTS = 120


def _judged(*offs: tuple[float, float], tolerance: float) -> Judged:
    """Judge what is off, each with what the measuring may be off."""
    if any(abs(off) - spread > tolerance for off, spread in offs):
        return "off"
    if any(abs(off) > tolerance for off, _ in offs):
        return "unsure"
    return "within"


def _spelt(size: float, unit: Unit) -> str:
    return spell(round(size, 2 if unit is Unit.MM else 3), unit)


def _told_slip(every: Hypotheses) -> Callable[[Explained], Slipped]:
    numbers = {step.number: step for step in every.order.steps.values()}

    def told(explained: Explained) -> Slipped:
        step = numbers.get(explained.step)
        act = step.text if step else ""
        slip = explained.slip
        return Slipped(
            slip.key, slip.said, explained.step, act, explained.gain, step.name if step else ""
        )

    return told


def _sentence(
    rows: Sequence[Row],
    slips: Sequence[Slipped],
    second: Sequence[Slipped],
    unfinished: bool,
) -> str:
    off = [row for row in rows if row.judged == "off"]
    missing = [row for row in rows if row.judged == "missing"]
    if slips:
        said = f"At step {slips[0].step} {_first_low(slips[0].key)}: {slips[0].said}"
        others = [f"step {each.step}, {_first_low(each.key)}" for each in slips[1:3]]
        if others:
            said += f" (or {', or '.join(others)}: they leave the same)"
        if second:
            said += f"; and at step {second[0].step} {_first_low(second[0].key)}: {second[0].said}"
        return said + "."
    if not off and not missing:
        return "Everything is within the tolerance."
    if unfinished:
        rest = f"{len(off)} of those that are drawn are off" if off else "what is drawn is right"
        return f"{len(missing)} of {len(rows)} pieces are not lined in yet; {rest}."
    worst = max(off, key=_how_far, default=None)
    parts = [f"{len(off)} of {len(rows)} pieces are off"] if off else []
    parts += [f"{len(missing)} not there"] if missing else []
    where = f"; most {worst.name}, {worst.told}" if worst is not None and worst.told else ""
    return f"{', '.join(parts)}{where}. No one slip explains it."


def _how_far(row: Row) -> float:
    return max(row.place, abs(row.size.paper) if row.size else 0.0)


def _first_low(text: str) -> str:
    return text[:1].lower() + text[1:]


def _notes(
    rows: Sequence[Row],
    found: Sequence[Measured],
    joins: Sequence[Joined],
    straight: Straight,
    shift: complex,
    extra: Sequence[tuple[float, float, float]],
) -> Iterator[str]:
    if abs(shift) > ELSEWHERE:
        across = f"{abs(shift.real):.1f} mm to the {'right' if shift.real > 0 else 'left'}"
        up = f"{abs(shift.imag):.1f} mm {'up' if shift.imag > 0 else 'down'}"
        said = " and ".join(
            word for word, by in ((across, shift.real), (up, shift.imag)) if abs(by) > 0.5
        )
        yield f"The view stands {said} from its place: was the border counted?"
    for row in rows:
        if row.judged == "missing":
            yield f"{row.name} {row.told}."
    dark = float(np.median([each.dark for each in found])) if found else 0.0
    for each in found:
        if each.seen < FOUND:
            continue
        if each.gap > UNDRAWN:
            yield f"{each.piece.called}: {each.gap:.0f} mm of it are not drawn."
        for end, past in zip(("start", "end"), each.beyond, strict=True):
            if past > 1.5:
                yield f"{each.piece.called} runs {past:.1f} mm past its {end}."
        if each.dark < TOO_FAINT * dark:
            yield f"{each.piece.called} is too faint for an outline."
    for join in joins:
        if not join.is_closed:
            yield f"{join.first} and {join.second} miss each other by {join.miss:.1f} mm."
    for x, y, long in extra:
        yield f"A heavy line of {long:.0f} mm about ({x:.0f}, {y:.0f}) belongs to nothing."
    if straight.pixels < 150 / 25.4:
        yield "The picture is coarse: scan at 300 dpi to measure more closely."
    if straight.off > 0.6:
        yield f"The border is {straight.off:.1f} mm from straight: did the sheet lie flat?"


def _extra(
    work: Work, seen: SeenStrokes, pieces: Sequence[LinedPiece], hand: int
) -> tuple[tuple[float, float, float], ...]:
    """Return heavy lines that belong to no piece of the plan, nor to its lettering."""
    places = seen.places
    if not len(places):
        return ()
    run = np.concatenate([piece.places[:, hand] for piece in pieces if piece.there[hand]])
    sound = np.concatenate([piece.places[:, SOUND] for piece in pieces])
    near = np.min(np.abs(places[:, None] - np.concatenate((run, sound))), axis=1) < FAR
    near |= _of_the_finish(work, pieces, places)
    return tuple(_clusters(places[~near]))[:MOST_EXTRA]


def _of_the_finish(
    work: Work, pieces: Sequence[LinedPiece], places: Places
) -> npt.NDArray[np.bool_]:
    """Tell which places lie on dimensions, centre lines and lettering, and on no outline."""
    outlines = [from_run(places, piece.places[:, SOUND]) for piece in pieces]
    apart: npt.NDArray[np.bool_] = np.min(outlines, axis=0) > FAR / 2
    return _on_any([mark for _, mark in work.sheet.finish], places) & apart


def _on_any(marks: Iterable[Mark], places: Places) -> npt.NDArray[np.bool_]:
    """Tell which places lie on dimensions, centre lines or lettering."""
    found = np.zeros(len(places), bool)
    for mark in marks:
        found |= _is_of(mark, places)
    return found


MOST_EXTRA = 5
"""Heavy lines too many that are told."""


def _is_of(mark: Mark, places: Places) -> npt.NDArray[np.bool_]:
    """Tell which places lie on what finishes the sheet: dimensions, centre lines, lettering."""
    if isinstance(mark, Lettering):
        # Some letter along the line, some level.
        return _is_lettered(mark, mark.angle, places) | _is_lettered(mark, 0.0, places)
    stroke = stroke_of(mark)
    if stroke is None:
        return np.zeros(len(places), bool)
    on: npt.NDArray[np.bool_] = from_run(places, stroke.places) < FAR / 2
    return on


def _is_lettered(mark: Lettering, angle: float, places: Places) -> npt.NDArray[np.bool_]:
    start, ahead = complex(mark.x, mark.y), np.exp(1j * np.radians(angle))
    long = len(mark.text) * mark.height
    back = {"start": 0.0, "middle": 0.5, "end": 1.0}[mark.anchor] * long
    away = (places - start) * np.conj(ahead) + back
    found: npt.NDArray[np.bool_] = (
        (away.real > -FAR)
        & (away.real < long + FAR)
        & (np.abs(away.imag - mark.height / 2) < mark.height / 2 + FAR)
    )
    return found


def _clusters(places: Places) -> Iterator[tuple[float, float, float]]:
    if len(places) < EXTRA:
        return
    low = complex(places.real.min() - 4, places.imag.min() - 4)
    cell = places - low
    shape = (int(cell.imag.max()) + 6, int(cell.real.max()) + 6)
    grid = np.zeros(shape, bool)
    rows, columns = cell.imag.astype(int), cell.real.astype(int)
    grid[rows, columns] = True
    names, count = label(binary_dilation(grid, iterations=1))
    own = names[rows, columns]
    for number in range(1, count + 1):
        group = places[own == number]
        if len(group) >= EXTRA:
            middle = complex(np.mean(group))
            yield middle.real, middle.imag, float(len(group))
