"""From a profile to the plan somebody would have written: rim and holes by their conditions, copies
by what they are copies of, and every number the simplest within the tolerance."""

from __future__ import annotations

import math
from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass, replace

from ..geometry import Loop, Point
from ..measure import Unit
from ..plan.document import LONGEST_LINE, MOST_LINES, PlanTooLarge
from ..plan.writer import write_plan
from ..solve import Solution
from ..tolerance import READ_CLOSELY, READ_EXACT, READ_WITHIN
from .adjust import adjusted, moved_at_most
from .datum import datums, sheet_for
from .digits import OF_LAST
from .frame import frames, levelled
from .match import moved_by
from .profile import Profile, ProfileError, Run, box_of, in_unit
from .rows import Rows
from .settle import Wanted, outlines, settled
from .simplest import cost
from .symmetry import Axes, axes_of
from .writer import CORNERS, PLACES, READY_SHAPE, Writer

MOST_PIECES = 150
"""Pieces of a profile that is written from several places, to see from which it is said most
simply."""

WIDER = 10
"""Times as far off as was asked a profile may be, where nothing is found."""

LARGE = 300
"""Rows of a plan from which on fewer ways are tried: each takes a second or more."""


@dataclass(frozen=True, slots=True)
class ReadBack:
    """A plan written from a profile.

    Attributes
    ----------
    text : str
    off : float
        How far its outlines are from the profile, plan units.
    numbers : int
        Free numbers in it.
    told : tuple of str
        What was mended, left out, assumed, or had to be said by coordinates.
    seen : tuple of str
        What was recognised, in words.
    unit : Unit
    turned : float
        By how much the part stands turned in the file, degrees: it is written level.
    """

    text: str
    off: float
    numbers: int
    told: tuple[str, ...]
    seen: tuple[str, ...] = ()
    unit: Unit = Unit.MM
    turned: float = 0.0

    @property
    def assumed(self) -> tuple[str, ...]:
        """The rows of which a number had to be rounded."""
        return tuple(row for row in self.text.split("\n") if row.endswith(", assumed"))

    @property
    def comes(self) -> str:
        """How near its outlines come to the profile, in words; what nobody can measure is told as
        exact."""
        if self.off <= READ_EXACT:
            return "its outlines exactly"
        return f"its outlines off by {self.off:.1g} {self.unit.value} at most"


@dataclass(frozen=True, slots=True)
class Ways:
    """What may be asked for in another way.

    Attributes
    ----------
    datum : {"", "corner"}
        Where places are told from: the middle or a centre, or the lower left corner.
    copies : bool
        Whether rings, rows and images are said as such.
    plainly : bool
        Whether everything is said by coordinates.
    share : float
        How much closer than the outline each number is taken.
    level : bool
        Whether a part that stands turned is written level.
    """

    datum: str = ""
    copies: bool = True
    plainly: bool = False
    share: float = 4.0
    level: bool = True


def read_back(
    profile: Profile,
    unit: Unit | None = None,
    within: float | None = None,
    title: str = "Read back",
    ways: Ways = Ways(),
) -> ReadBack:
    """Write the plan of a profile.

    Parameters
    ----------
    profile : Profile
    unit : Unit, optional
        Of the plan, whatever the file's is; else that of the file, or the other where it explains
        its numbers better.
    within : float, optional
        How far outlines may be from what the file has, in its unit. Up to a thousandth they are no
        further than the file itself is exact; with more, numbers are as round as that allows.
    title : str
    ways : Ways, optional
        What is to be said otherwise than would be chosen.

    Raises
    ------
    ProfileError
        Where no plan comes to the same outlines.
    """
    best = _as_it_lies(profile, unit, within, title, ways)
    if not ways.level:
        return best
    near = max(profile.within, within or 0.0, OF_LAST * profile.last)
    for angle in frames(adjusted(profile, best.unit, near), near):
        with suppress(ProfileError):
            other = _as_it_lies(levelled(profile, angle), unit, within, title, ways)
            said = f"{math.degrees(angle):.4f}".rstrip("0").rstrip(".")
            if _is_shorter(other, said, best):
                words = f"the part stands turned by {said}° in the file; it is set out level"
                best = replace(other, told=(*other.told, words), turned=math.degrees(angle))
    return best


def _as_it_lies(
    profile: Profile, unit: Unit | None, within: float | None, title: str, ways: Ways
) -> ReadBack:
    first = unit or profile.unit or Unit.MM
    best = _in_a_unit(profile, first, within, title, ways)
    if unit is None and not _is_round(best):
        with suppress(ProfileError):  # rounder in the other unit it is only if it can be said there
            other = _in_a_unit(
                profile, Unit.INCH if first is Unit.MM else Unit.MM, within, title, ways
            )
            # What is only near in the unit it was not written in explains nothing.
            fair = not other.assumed or best.assumed or not profile.unit
            rounder = _figures(other.text) < BETTER * _figures(best.text)
            best = other if fair and rounder else best
    if not (unit or profile.unit):
        best = replace(
            best, told=(*best.told, f"the file names no unit: {best.unit.value} was assumed")
        )
    elif best.unit is not profile.unit and not unit:
        best = replace(
            best,
            told=(*best.told, f"its numbers are rounder in {best.unit.value}, which was assumed"),
        )
    return best


BETTER = 0.7
"""Of the figures in one unit, how many at most are in the other, if that is to be what was
meant."""


def _in_a_unit(
    profile: Profile, unit: Unit, within: float | None, title: str, ways: Ways
) -> ReadBack:
    there = in_unit(profile, unit)
    asked = (within or profile.within) * there.within / profile.within
    # Who asks for more than a file can be off by in its writing says that it is noisy.
    return (_closest if asked <= READ_WITHIN else _roundest)(there, unit, asked, title, ways)


def _closest(profile: Profile, unit: Unit, within: float, title: str, ways: Ways) -> ReadBack:
    """Return the plan read as closely as the file allows.

    An exact file gives round numbers however closely it is read; those of a noisy one, or of one
    that rounds its numbers, are round within that alone."""
    exact: ReadBack | None = None
    for closely in (each for each in READ_CLOSELY if each < within):
        try:
            result = _written(profile, unit, closely, title, ways)
        except ProfileError:
            continue
        if not _is_exact(result) or _decimals(result) > _written_to(profile.last) + 1:
            continue
        settled = not (_is_plain(result) or _is_full(result, profile.last) or _strays(result))
        if _is_round(result) and settled:
            return result
        if (
            exact is None
            or _is_plain(exact)
            or _figures(result.text) < ROUNDER * _figures(exact.text)
            or (_strays(exact) and not _strays(result))
        ):
            exact = result
        elif not _is_plain(exact) and not _is_full(exact, profile.last) and not _strays(exact):
            return exact
    if exact and not _is_plain(exact) and not _is_full(exact, profile.last):
        return exact
    if profile.last:
        within = max(within, OF_LAST * profile.last)
        there = adjusted(profile, unit, within)
        result = _roundest(there, unit, within, title, ways)
        # What is told of the outlines holds for those of the file.
        result = replace(result, off=result.off + moved_at_most(profile, there))
    else:
        result = _roundest(profile, unit, within, title, ways)
    if exact and (_is_plain(result) or _length(result) >= _length(exact)):
        return exact
    return result


def _is_shorter(found: ReadBack, angle: str, best: ReadBack) -> bool:
    """Tell whether a plan with an angle for all of it, which is one more number, is shorter than
    another."""
    figures = _figures(found.text) + cost(angle)
    if found.numbers + 1 == best.numbers:
        return figures < ROUNDER * _figures(best.text)
    return found.numbers + 1 < best.numbers


def _length(found: ReadBack) -> tuple[int, float]:
    return found.numbers, _figures(found.text)


def _is_full(found: ReadBack, last: float) -> bool:
    """Tell whether a number has all the decimals of its file: whether it was given or worked out
    nobody can tell by it."""
    return last > 0 and _decimals(found) >= round(_written_to(last))


def _written_to(last: float) -> float:
    return -math.log10(last) if last else math.inf


def _decimals(found: ReadBack) -> int:
    """Return how many decimals the longest number has; half a number has one more, a five."""
    sizes = [text for text in _numbers(found.text) if not text.endswith("°")]
    return max((len(text.removesuffix("5").partition(".")[2]) for text in sizes), default=0)


ROUNDER = 0.75
"""Of the figures read more closely, how many at most there are if the file was only written to that
many decimals."""


SHARES = (1.0, 2.0, 4.0, 16.0)
"""How much closer than the outline each number is taken: the less, the rounder; as much as it takes
to come there."""


def _roundest(profile: Profile, unit: Unit, within: float, title: str, ways: Ways) -> ReadBack:
    """Return the plan of a noisy profile, by the roundest numbers with which its conditions lead
    back to it."""
    if within <= READ_CLOSELY[-1]:
        return _written(profile, unit, within, title, ways)
    best: ReadBack | None = None
    for share in SHARES:
        try:
            result = _written(profile, unit, within, title, replace(ways, share=share))
        except ProfileError:
            if share == SHARES[-1] and best is None:
                raise
            continue
        if not _is_plain(result):
            return result
        best = best if best and _figures(best.text) <= _figures(result.text) else result
    assert best is not None
    return best


def _is_exact(found: ReadBack) -> bool:
    """Tell whether a file is exact: some of its numbers are round to the last figure, as no noise
    leaves them."""
    figures = [cost(text) for text in _numbers(found.text)]
    round_ones = sum(each <= ROUND_FIGURES for each in figures)
    return round_ones >= max(1, len(figures) * (0.5 if _is_plain(found) else 0.2))


def _strays(found: ReadBack) -> bool:
    """Tell whether a few numbers run on for ever where all others are round: a bulge is written to
    six decimals, and the radius worked out of it is further off than that."""
    figures = [cost(text) for text in _numbers(found.text)]
    odd = [each for each in figures if each > ROUND_FIGURES]
    return 0 < 3 * len(odd) <= len(figures) and min(odd) > ENDLESS


ENDLESS = 5
"""Figures beyond which a number was not given."""


def _is_plain(found: ReadBack) -> bool:
    return any("by coordinates" in told for told in found.told)


ROUND_FIGURES = 4
"""Figures of a number that somebody has given (by eye: 240, 12.5, 1 13/16)."""


def _is_round(found: ReadBack) -> bool:
    """Tell whether numbers are so round that no other unit would make them rounder."""
    return _figures(found.text) <= 3 * len(_numbers(found.text))


def _figures(text: str) -> float:
    return sum(map(cost, _numbers(text)))


def _numbers(text: str) -> list[str]:
    return [
        word.strip(",")
        for row in text.split("\n")[4:]
        for word in row.split()
        if word[:1].isdigit()
    ]


def _written(profile: Profile, unit: Unit, within: float, title: str, ways: Ways) -> ReadBack:
    axes = axes_of(profile.runs, within) if ways.copies else Axes(Point(0.0, 0.0), False, False)
    datum = _datum(profile, axes, unit, within, ways)
    runs = _from(datum, profile.runs)
    axes = replace(axes, centre=Point(0.0, 0.0))
    wanted = Wanted(runs, within)
    head = f'plan "{title}"\nunits {unit.value}\nsheet {sheet_for(runs, unit)}\n\n'
    plainly = dict.fromkeys(range(len(runs)), PLACES if ways.plainly else READY_SHAPE)
    # A run whose conditions do not lead back to it is said more plainly, until it comes to what the
    # file has.
    for _ in range(PLACES * 3):
        writer = Writer(runs, axes, Rows(unit, within, share=ways.share), plainly, ways.copies)
        writer.write()
        text = head + writer.rows.text()
        off, wrong = 0.0, writer.rows.too_long(LONGEST_LINE)
        solution = None
        if not wrong:
            solution, off, wrong = _held(text, writer.rows, wanted)
        if solution and not wrong:
            return _read(solution, off, writer, profile, within, ways.plainly)
        if not wrong or all(plainly[n] == PLACES for n in wrong):
            break
        step = 1 if text.count("\n") < LARGE else 2
        for n in wrong:
            plainly[n] = min(PLACES, plainly[n] + step)
    message = "no plan was found that comes to this profile within the tolerance"
    raise ProfileError(message, WIDER * within, profile.runs)


def _from(datum: Point, runs: Sequence[Run]) -> tuple[Run, ...]:
    return tuple(tuple(moved_by(-datum)(curve) for curve in run) for run in runs)


def _datum(profile: Profile, axes: Axes, unit: Unit, within: float, ways: Ways) -> Point:
    """Return the place from which a profile is said by the fewest numbers."""
    if ways.datum == "corner":
        return box_of(profile.runs)[0]
    fine = within / ways.share
    spots = datums(profile, axes, unit, within, fine, ways.copies)
    if len(spots) == 1 or sum(map(len, profile.runs)) > MOST_PIECES:
        return spots[0]

    def length(spot: Point) -> tuple[int, float]:
        rows = Rows(unit, within, share=ways.share)
        runs = _from(spot, profile.runs)
        centred = replace(axes, centre=Point(0.0, 0.0))
        how = dict.fromkeys(range(len(runs)), PLACES if ways.plainly else READY_SHAPE)
        Writer(runs, centred, rows, how, ways.copies).write()
        return rows.numbers(), rows.figures_in_all()

    return min(spots, key=length)


def _held(text: str, rows: Rows, wanted: Wanted) -> tuple[Solution, float, set[int]]:
    """Solve a plan, and return how far its outlines are off, and the runs that it does not come
    to."""
    lines = text.count("\n")
    if lines > MOST_LINES:
        raise ProfileError(
            f"a plan holds at most {MOST_LINES} lines; this profile would need {lines}"
        )
    try:
        solution, broken = settled(text, rows.targets)
    except PlanTooLarge as error:
        raise ProfileError(f"no plan was found for this profile: {error}") from error
    off, wrong = _missed(outlines(solution), wanted, wanted.within)
    owner = rows.owners().get(broken)
    # What rests on a statement that cannot be had is no worse than that.
    return solution, off, {owner} if owner is not None else wrong


def _read(
    solution: Solution, off: float, writer: Writer, profile: Profile, within: float, plainly: bool
) -> ReadBack:
    told = [*profile.told, *_of_rounding(writer.rows, within)]
    if not plainly:
        how = writer.plainly
        told += [
            f"outline {n + 1} is said by coordinates: no condition led back to it"
            for n in how
            if how[n] == PLACES
        ]
        told += [
            f"outline {n + 1} is said by coordinates in part: its arcs touch nothing that was given"
            for n in how
            if how[n] == CORNERS
        ]
    shared = writer.rows.shared()
    several = [f"{shared} sizes that come several times, each given once"] if shared else []
    seen = tuple(dict.fromkeys([*writer.seen, *several]))
    text = write_plan(solution.plan)
    return ReadBack(text, off, writer.rows.numbers(), tuple(told), seen, writer.rows.unit)


def _of_rounding(rows: Rows, within: float) -> list[str]:
    count = rows.rounded()
    how = " was" if count == 1 else "s were"
    return (
        [f"{count} number{how} taken for the simplest within {within:g}, and marked assumed"]
        if count
        else []
    )


def _missed(made: list[tuple[str, Loop]], wanted: Wanted, within: float) -> tuple[float, set[int]]:
    """Return how far the outlines of a plan are from the runs, and the runs that none of them comes
    to."""
    left = set(range(len(wanted.runs)))
    most = 0.0
    for _, loop in made:
        off, n = wanted.nearest(loop, left)
        if off <= within:
            left.remove(n)
            most = max(most, off)
    return most, left
