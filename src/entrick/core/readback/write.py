"""From a profile to the plan somebody would have written: rim and holes by their conditions, copies by what they are
copies of, and every number the simplest within the tolerance."""

from __future__ import annotations

import math
from contextlib import suppress
from dataclasses import dataclass, replace

from ..geometry import Arc, Circle, Line, Loop, Point, meet
from ..geometry.ellipse import Ellipse
from ..geometry.shapes import ends as ends_of
from ..measure import Unit
from ..plan.document import LONGEST_LINE, MOST_LINES, PlanTooLarge
from ..plan.writer import write_plan
from ..solve import Solution
from ..tolerance import READ_CLOSELY, READ_WITHIN
from .copies import Grid, Group, Mirrored, Ring, Row, Scattered, Single, copies_of
from .match import Places, images, loosely, mirrored, moved_by, turned_by
from .outline import Outline, by_places
from .profile import Curve, Profile, ProfileError, Run, box_of, in_unit, is_closed, is_whole, loop_of, pieces_of
from .ready import CORNERED, READY, ROUND
from .ready.rounded import is_boxed
from .rows import Rows
from .settle import Wanted, outlines, settled
from .simplest import cost, simplest
from .symmetry import Axes, axes_of, rim_of, sector, times_round
from .tangent import runs_into
from .walls import wall_between

PAPERS = (("A4", 297, 210), ("A3", 420, 297), ("A2", 594, 420), ("A1", 841, 594))
SCALES = ("1:1", "1:2", "1:5", "1:10", "1:20", "1:50", "1:100")
ROOM = 70.0
"""Of a paper, border, strip and room for dimensions, mm (by eye)."""

MOST_TURNED = 12
"""Times a piece without corners is turned, each with a name of its own."""

LARGE = 300
"""Rows of a plan from which on fewer ways are tried: each takes a second or more."""

LOOKED_AT = 200
"""Places by which a datum is chosen."""

READY_SHAPE, CONDITIONS, WITH_WAY, WITH_LENGTH, ALONE, CORNERS, PLACES = range(7)
"""How a run is said, each more plainly than the last: as a ready shape or by its conditions; by its conditions though
it is a ready shape; with which way round; with which is the longer way; without what is alike on both sides; its
corners alone by conditions; by coordinates."""

WORDS = {READY_SHAPE: "", CONDITIONS: "", WITH_LENGTH: "length"}
"""What is said of how a circle is gone along."""


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
    """

    text: str
    off: float
    numbers: int
    told: tuple[str, ...]
    seen: tuple[str, ...] = ()
    unit: Unit = Unit.MM


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
    """

    datum: str = ""
    copies: bool = True
    plainly: bool = False
    share: float = 4.0


def read_back(
    profile: Profile, unit: Unit | None = None, within: float | None = None, title: str = "Read back",
    ways: Ways = Ways(),
) -> ReadBack:  # fmt: skip
    """Write the plan of a profile.

    Parameters
    ----------
    profile : Profile
    unit : Unit, optional
        Of the plan, whatever the file's is; else that of the file, or the other where it explains its numbers better.
    within : float, optional
        How far outlines may be from what the file has, in its unit. Up to a thousandth they are no further than the
        file itself is exact; with more, numbers are as round as that allows.
    title : str
    ways : Ways, optional
        What is to be said otherwise than would be chosen.

    Raises
    ------
    ProfileError
        Where no plan comes to the same outlines.
    """
    first = unit or profile.unit or Unit.MM
    best = _in_a_unit(profile, first, within, title, ways)
    if unit is None and not _is_round(best):
        with suppress(ProfileError):  # rounder in the other unit it is only if it can be said there
            other = _in_a_unit(profile, Unit.INCH if first is Unit.MM else Unit.MM, within, title, ways)
            best = other if _figures(other.text) < BETTER * _figures(best.text) else best
    if not (unit or profile.unit):
        best = replace(best, told=(*best.told, f"the file names no unit: {best.unit.value} was assumed"))
    elif best.unit is not profile.unit and not unit:
        best = replace(best, told=(*best.told, f"its numbers are rounder in {best.unit.value}, which was assumed"))
    return best


BETTER = 0.7
"""Of the figures in one unit, how many at most are in the other, if that is to be what was meant."""


def _in_a_unit(profile: Profile, unit: Unit, within: float | None, title: str, ways: Ways) -> ReadBack:
    there = in_unit(profile, unit)
    asked = (within or profile.within) * there.within / profile.within
    # Who asks for more than a file can be off by in its writing says that it is noisy.
    return (_closest if asked <= READ_WITHIN else _roundest)(there, unit, asked, title, ways)


def _closest(profile: Profile, unit: Unit, within: float, title: str, ways: Ways) -> ReadBack:
    """Return the plan read as closely as the file allows.

    An exact file gives round numbers however closely it is read; those of a noisy one are round within its noise alone.
    """
    exact: ReadBack | None = None
    for closely in (each for each in READ_CLOSELY if each < within):
        try:
            found = _written(profile, unit, closely, title, ways)
        except ProfileError:
            continue
        if not _is_exact(found):
            continue
        if _is_round(found) and not _is_plain(found):
            return found
        if exact is None or _is_plain(exact) or _figures(found.text) < ROUNDER * _figures(exact.text):
            exact = found
        elif not _is_plain(exact):
            return exact
    if exact and not _is_plain(exact):
        return exact
    found = _roundest(profile, unit, within, title, ways)
    return exact if exact and _is_plain(found) else found


ROUNDER = 0.75
"""Of the figures read more closely, how many at most there are if the file was only written to that many decimals."""


SHARES = (1.0, 2.0, 4.0, 16.0)
"""How much closer than the outline each number is taken: the less, the rounder; as much as it takes to come there."""


def _roundest(profile: Profile, unit: Unit, within: float, title: str, ways: Ways) -> ReadBack:
    """Return the plan of a noisy profile, by the roundest numbers with which its conditions lead back to it."""
    if within <= READ_CLOSELY[-1]:
        return _written(profile, unit, within, title, ways)
    best: ReadBack | None = None
    for share in SHARES:
        try:
            found = _written(profile, unit, within, title, replace(ways, share=share))
        except ProfileError:
            if share == SHARES[-1] and best is None:
                raise
            continue
        if not _is_plain(found):
            return found
        best = best if best and _figures(best.text) <= _figures(found.text) else found
    assert best is not None
    return best


def _is_exact(found: ReadBack) -> bool:
    """Tell whether a file is exact: some of its numbers are round to the last figure, as no noise leaves them."""
    figures = [cost(text) for text in _numbers(found.text)]
    round_ones = sum(each <= ROUND_FIGURES for each in figures)
    return round_ones >= max(1, len(figures) * (0.5 if _is_plain(found) else 0.2))


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
    return [word.strip(",") for row in text.split("\n")[4:] for word in row.split() if word[:1].isdigit()]


def _written(profile: Profile, unit: Unit, within: float, title: str, ways: Ways) -> ReadBack:
    axes = axes_of(profile.runs, within) if ways.copies else Axes(Point(0.0, 0.0), False, False)
    datum = _datum(profile, axes, unit, within, ways)
    runs = tuple(tuple(moved_by(-datum)(curve) for curve in run) for run in profile.runs)
    axes = replace(axes, centre=Point(0.0, 0.0))
    wanted = Wanted(runs, within)
    head = f'plan "{title}"\nunits {unit.value}\nsheet {_sheet(runs, unit)}\n\n'
    plainly = dict.fromkeys(range(len(runs)), PLACES if ways.plainly else READY_SHAPE)
    # A run whose conditions do not lead back to it is said more plainly, until it comes to what the file has.
    for _ in range(PLACES * 3):
        writer = _Writer(runs, axes, Rows(unit, within, share=ways.share), plainly, ways)
        writer.write()
        text = head + writer.rows.text()
        off, wrong = 0.0, writer.rows.too_long(LONGEST_LINE)
        solution = None
        if not wrong:
            solution, off, wrong = _held(text, writer.rows, wanted)
        if solution and not wrong:
            return _read(solution, off, writer, profile, within)
        if not wrong or all(plainly[n] == PLACES for n in wrong):
            break
        step = 1 if text.count("\n") < LARGE else 2
        for n in wrong:
            plainly[n] = min(PLACES, plainly[n] + step)
    raise ProfileError("no plan was found that comes to this profile within the tolerance")


def _held(text: str, rows: Rows, wanted: Wanted) -> tuple[Solution, float, set[int]]:
    """Solve a plan, and return how far its outlines are off, and the runs that it does not come to."""
    lines = text.count("\n")
    if lines > MOST_LINES:
        raise ProfileError(f"a plan holds at most {MOST_LINES} lines; this profile would need {lines}")
    try:
        solution, broken = settled(text, rows.targets)
    except PlanTooLarge as error:
        raise ProfileError(f"no plan was found for this profile: {error}") from error
    off, wrong = _missed(outlines(solution), wanted, wanted.within)
    owner = rows.owners().get(broken)
    # What rests on a statement that cannot be had is no worse than that.
    return solution, off, {owner} if owner is not None else wrong


def _read(solution: Solution, off: float, writer: _Writer, profile: Profile, within: float) -> ReadBack:
    told = [*profile.told, *_of_rounding(writer.rows, within)]
    if not writer.ways.plainly:
        how = writer.plainly
        told += [
            f"outline {n + 1} is said by coordinates: no condition led back to it" for n in how if how[n] == PLACES
        ]
        told += [f"outline {n + 1} is said by coordinates in part: its arcs touch nothing that was given"
                 for n in how if how[n] == CORNERS]  # fmt: skip
    shared = writer.rows.shared()
    several = [f"{shared} sizes that come several times, each given once"] if shared else []
    seen = tuple(dict.fromkeys([*writer.seen, *several]))
    text = write_plan(solution.plan)
    return ReadBack(text, off, writer.rows.numbers(), tuple(told), seen, writer.rows.unit)


def _of_rounding(rows: Rows, within: float) -> list[str]:
    count = rows.rounded()
    return [f"{count} numbers were taken for the simplest within {within:g}, and are marked assumed"] if count else []


def _missed(made: list[tuple[str, Loop]], wanted: Wanted, within: float) -> tuple[float, set[int]]:
    """Return how far the outlines of a plan are from the runs, and the runs that none of them comes to."""
    left = set(range(len(wanted.runs)))
    most = 0.0
    for _, loop in made:
        off, n = wanted.nearest(loop, left)
        if off <= within:
            left.remove(n)
            most = max(most, off)
    return most, left


def _datum(profile: Profile, axes: Axes, unit: Unit, within: float, ways: Ways) -> Point:
    """Return where places are told from most simply: on the axes if there are any; a centre, the middle, a corner."""
    low, high = box_of(profile.runs)
    if ways.datum == "corner":
        return low
    curves: list[Curve] = [curve for run in profile.runs for curve in run]
    outside = rim_of(profile.runs)
    # Openings are told by where they stand, the rim by its corners.
    middles = [loop_of(run).centroid for n, run in enumerate(profile.runs) if n != outside]
    rounds = [c.centre for c in curves if not isinstance(c, Line)]
    spots = [*_corners(profile.runs[outside]), *middles, *rounds][:LOOKED_AT]
    centres = [c.centre for c in curves if isinstance(c, Circle | Ellipse)][:20]
    rim = profile.runs[outside]
    if axes.plumb and axes.level:
        return axes.centre
    if is_boxed(rim, within):
        return (low + high) * 0.5
    if ways.copies and is_closed(rim, within) and not is_whole(rim) and times_round(rim, within)[0] > 2:
        return loop_of(rim).centroid
    tried = [*centres, (low + high) * 0.5, Point(0.0, 0.0), low, *spots][:80]
    if axes.plumb:
        tried = [Point(axes.centre.x, spot.y) for spot in (*tried, high)]
    elif axes.level:
        tried = [Point(spot.x, axes.centre.y) for spot in (*tried, high)]

    def figures(at: Point) -> float:
        return sum(cost(simplest(abs(v), unit, within / ways.share)) for p in spots for v in (p.x - at.x, p.y - at.y))

    return min(tried, key=figures)


def _corners(run: Run) -> list[Point]:
    """Return the corners of a run, those that are rounded where their sides would meet; no touch points, which nobody
    measures."""
    pieces = pieces_of(run)
    found = [
        ends_of(piece)[0] for k, piece in enumerate(pieces) if not runs_into(pieces[k - 1], piece, ends_of(piece)[0])
    ]
    for k, piece in enumerate(pieces):
        one, two = pieces[k - 1], pieces[(k + 1) % len(pieces)]
        if isinstance(piece, Arc) and isinstance(one, Line) and isinstance(two, Line):
            found += [crossing.point for crossing in meet(*(Line(each.through, each.direction) for each in (one, two)))]
    return found


def _sheet(runs: tuple[Run, ...], unit: Unit) -> str:
    low, high = box_of(runs)
    wide, high_ = ((high.x - low.x) * float(unit.mm), (high.y - low.y) * float(unit.mm))
    for scale in SCALES:
        ratio = 1 / float(scale.partition(":")[2])
        for paper, across, up in PAPERS if scale == "1:1" else PAPERS[1:3]:
            if wide * ratio <= across - ROOM and high_ * ratio <= up - ROOM:
                return f"{paper} landscape, scale {scale}"
    return "A1 landscape, scale 1:200"


@dataclass
class _Writer:
    """The rows of a whole profile."""

    runs: tuple[Run, ...]
    axes: Axes
    rows: Rows
    plainly: dict[int, int]
    ways: Ways

    def __post_init__(self) -> None:
        self.seen: list[str] = []
        self.walks: dict[int, str] = {}
        self.centres = [c.centre for run in self.runs for c in run if isinstance(c, Circle)]
        self.rim = rim_of(self.runs)

    def write(self) -> None:
        """Write the rim, what is in it, and what is copied."""
        groups: list[Group] = [Single((n,)) for n in range(len(self.runs))]
        if self.ways.copies and len(self.runs) <= MOST_LINES:
            groups = copies_of(self.runs, self.axes, self.rows)
        # The rim first: holes stand about the centres of its rounds. Images come when all they are images of is there.
        for group in sorted(groups, key=lambda group: (isinstance(group, Mirrored), self.rim not in group.members)):
            self._group(group)

    def _group(self, group: Group) -> None:
        first = group.members[0]
        self.rows.owner = first
        # Where a copy did not come to the run, its members stand by themselves.
        others = group.images if isinstance(group, Mirrored) else group.members
        if not isinstance(group, Single) and any(self.plainly[n] >= ALONE for n in others):
            for n in others:
                if n not in self.walks:
                    self._single(n)
            return
        match group:
            case Ring():
                self._ring(group)
            case Row():
                self._row(group)
            case Grid():
                self._grid(group)
            case Scattered():
                self._scattered(group)
            case Mirrored():
                self._mirrored(group)
            case Single():
                self._single(first)

    def _line_in(self, walk: str, n: int, more: str = "") -> str:
        stem = "rim" if n == self.rim else "hole"
        name = self.rows.add(stem, f"line in, {walk}{more}", pieces_of(self.runs[n]) or list(self.runs[n]))
        self.walks[n] = name
        return name

    def _single(self, n: int) -> str:
        self.rows.owner = n
        walk, more = self._walk(n)
        return self._line_in(walk, n, more)

    def _ring(self, group: Ring) -> None:
        first, count = self.runs[group.members[0]], len(group.members)
        if isinstance(first[0], Circle):
            at = self.rows.ring(group.centre, first[0].centre, count)
            circle = self.rows.add("c", f"circle, centre {at}, {self.rows.size(first[0].radius)}")
            self._line_in(circle, group.members[0])
            self.seen.append(f"{count} holes on a pitch circle")
        else:
            name = self._single(group.members[0])
            about = self.rows.point(group.centre)
            self.rows.add("turned", f"turn, of {name}, {count} about {about}")
            self.seen.append(f"{count} openings turned about a centre")
        for n in group.members:
            self.walks.setdefault(n, "")

    def _row(self, group: Row) -> None:
        name = self._single(group.members[0])
        times = len(group.members) - 1
        row = self._shifted(name, group.step, times)
        for k, n in enumerate(group.members[1:], 1):
            self.walks[n] = f"{row}.{k}"
        self.seen.append(f"{times + 1} in a row")

    def _shifted(self, name: str, step: Point, times: int) -> str:
        said: list[str] = []
        if abs(step.x) > self.rows.fine:
            said.append(f"{self.rows.say(abs(step.x), 'size')} {'right' if step.x > 0 else 'left'}")
        if abs(step.y) > self.rows.fine:
            said.append(f"{self.rows.say(abs(step.y), 'size')} {'above' if step.y > 0 else 'below'}")
        return self.rows.add("row", f"shift, of {name}, {', '.join(said)}, {times} times")

    def _grid(self, group: Grid) -> None:
        """Write rows above each other: one, its row, the column over it, and the row as often over the column."""
        name = self._single(group.members[0])
        up = len(group.members) // group.across
        row = self._shifted(name, Point(group.step.x, 0.0), group.across - 1)
        self._shifted(name, Point(0.0, group.step.y), up - 1)
        self._shifted(row, Point(0.0, group.step.y), up - 1)
        for n in group.members:
            self.walks.setdefault(n, "")
        self.seen.append(f"{up} rows of {group.across}")

    def _scattered(self, group: Scattered) -> None:
        circles = [curve for n in group.members for curve in self.runs[n] if isinstance(curve, Circle)]
        at = self.rows.points([circle.centre for circle in circles])
        circle = self.rows.add("c", f"circle, centre {at}, {self.rows.size(circles[0].radius)}")
        self._line_in(circle, group.members[0])
        for n in group.members:
            self.walks[n] = ""
        self.seen.append(f"{len(circles)} holes of one size")

    def _mirrored(self, group: Mirrored) -> None:
        # Only what has a name can be mirrored: members of a ring have not.
        named = [(a, b) for a, b in zip(group.members, group.images, strict=True) if self.walks.get(a)]
        for _, b in zip(group.members, group.images, strict=True):
            if b not in [image for _, image in named]:
                self._single(b)
        if not named:
            return
        originals = " ".join(self.walks[a] for a, _ in named)
        name = self.rows.add("image", f"mirror, of {originals}, about O.{group.way}")
        for k, (_, b) in enumerate(named, 1):
            self.walks[b] = name if len(named) == 1 else f"{name}.{k}"
        self.seen.append(f"{len(named)} on both sides of the {group.way} axis")

    # One run.

    def _walk(self, n: int) -> tuple[str, str]:
        """Return the walk along a run, and what is said of it besides."""
        run, how, near = self.runs[n], self.plainly[n], self.rows.within
        if not is_closed(run, near):
            return by_places(run, self.rows), ", open"
        if is_whole(run):
            return ROUND(run, self.rows), ""
        if how == PLACES:
            return by_places(run, self.rows), ""
        if how == READY_SHAPE:
            if walk := self._wall(run):
                return walk, ""
            for what, recognised in READY:
                if walk := recognised(run, self.rows):
                    self._see(n, what)
                    return walk, ""
        times, centre = times_round(run, near) if how < ALONE else (1, Point(0.0, 0.0))
        if times > 2:
            return self._comes_again(run, times, centre)
        about = self._images(run) if how < ALONE else {}
        if not about and how == READY_SHAPE:
            for what, recognised in CORNERED:
                if walk := recognised(run, self.rows):
                    self._see(n, what)
                    return walk, ""
        if about:
            self._see(n, f"alike on both sides of the {' and the '.join(about)} axis")
        outline = Outline(pieces_of(run), self.rows, self.centres, about, words=WORDS.get(how, "way"),
                          corners_only=how == CORNERS)  # fmt: skip
        walk = outline.written()
        touching = len(outline.blends)
        if touching:
            self._see(n, f"{touching} rounds told by what they run into")
        if outline.tangents:
            self._see(n, f"{outline.tangents} lines told by the rounds they touch")
        return walk, ""

    def _see(self, n: int, what: str) -> None:
        self.seen.append(f"{'the rim' if n == self.rim else 'an opening'}: {what}")

    def _wall(self, run: Run) -> str:
        """Return the inset of an outline that is written already, where this run is one."""
        for other, name in self.walks.items():
            wall = wall_between(self.runs[other], run, self.rows.within) if name else None
            if wall is not None:
                self.seen.append(f"a wall of {self.rows.simple(wall)} all along")
                return self.rows.add("inset", f"inset, of {name}, wall {self.rows.say(wall, 'wall')}")
        return ""

    def _images(self, run: Run) -> dict[str, list[int]]:
        found: dict[str, list[int]] = {}
        places = Places(run, loosely(self.rows.within))
        for way in self.axes.ways:
            image = images(run, places, mirrored(self.axes.line(way)))
            if image is not None:
                found[way] = image
        return found

    def _comes_again(self, run: Run, times: int, centre: Point) -> tuple[str, str]:
        part = sector(run, times)
        about = self.rows.point(centre)
        pieces = pieces_of(run)
        smooth = all(runs_into(pieces[k - 1], piece, ends_of(piece)[0]) for k, piece in enumerate(pieces))
        if smooth and times <= MOST_TURNED:
            return self._turned(run, times, centre), ""
        if self.plainly[self.rows.owner] >= WITH_WAY:
            return by_places(part, self.rows), f", {times} about {about}"
        outline = Outline(part, self.rows, [*self.centres, centre], {}, closed=False, words="way")
        self.seen.append(f"what comes again {times} times round a centre")
        return outline.written(), f", {times} about {about}"

    def _turned(self, run: Run, times: int, centre: Point) -> str:
        """Write a run without corners that comes again: each piece once, and turned."""
        image = images(run, Places(run, loosely(self.rows.within)), turned_by(centre, math.tau / times))
        assert image is not None
        self.seen.append(f"what comes again {times} times round a centre")
        return Outline(pieces_of(run), self.rows, self.centres, turned=(image, times, centre), words="way").written()
