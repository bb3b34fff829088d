"""The rows of a whole profile: the rim first, then what is in it, then what is copied."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..geometry import Circle, Point
from ..geometry.shapes import ends as ends_of
from ..plan.document import MOST_LINES
from .copies import Grid, Group, Mirrored, Ring, Row, Scattered, Single, copies_of
from .match import Places, images, loosely, mirrored, turned_by
from .outline import Outline, by_corners, by_places
from .profile import Run, is_closed, is_whole, pieces_of
from .ready import CORNERED, OPEN, READY, ROUND
from .rows import Rows
from .symmetry import Axes, rim_of, rims_of, sector, times_round
from .tangent import runs_into
from .walls import wall_between

READY_SHAPE, CONDITIONS, WITH_WAY, WITH_LENGTH, ALONE, CORNERS, PLACES = range(7)
"""How a run is said, each more plainly than the last: as a ready shape or by its conditions; by its
conditions though it is a ready shape; with which way round; with which is the longer way; without
what is alike on both sides; its corners alone by conditions; by coordinates."""

WORDS = {READY_SHAPE: "", CONDITIONS: "", WITH_LENGTH: "length"}
"""What is said of how a circle is gone along."""


MOST_TURNED = 12
"""Times a piece without corners is turned, each with a name of its own."""


@dataclass
class Writer:
    """The rows of a whole profile."""

    runs: tuple[Run, ...]
    axes: Axes
    rows: Rows
    plainly: dict[int, int]
    copies: bool = True

    def __post_init__(self) -> None:
        self.seen: list[str] = []
        self.walks: dict[int, str] = {}
        self.centres = [c.centre for run in self.runs for c in run if isinstance(c, Circle)]
        self.rim = rim_of(self.runs)
        self.rims = rims_of(self.runs)

    def write(self) -> None:
        """Write the rim, what is in it, and what is copied."""
        groups: list[Group] = [Single((n,)) for n in range(len(self.runs))]
        if self.copies and len(self.runs) <= MOST_LINES:
            groups = copies_of(self.runs, self.axes, self.rows)
        # The rim first: holes stand about the centres of its rounds. Images come when all they are
        # images of is there.
        for group in sorted(
            groups, key=lambda group: (isinstance(group, Mirrored), self.rim not in group.members)
        ):
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
        stem = "rim" if n in self.rims else "hole"
        name = self.rows.add(
            stem, f"line in, {walk}{more}", pieces_of(self.runs[n]) or list(self.runs[n])
        )
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
            said.append(
                f"{self.rows.say(abs(step.y), 'size')} {'above' if step.y > 0 else 'below'}"
            )
        return self.rows.add("row", f"shift, of {name}, {', '.join(said)}, {times} times")

    def _grid(self, group: Grid) -> None:
        """Write rows above each other: one, its row, the column over it, and the row as often over
        the column."""
        name = self._single(group.members[0])
        up = len(group.members) // group.across
        row = self._shifted(name, Point(group.step.x, 0.0), group.across - 1)
        self._shifted(name, Point(0.0, group.step.y), up - 1)
        self._shifted(row, Point(0.0, group.step.y), up - 1)
        for n in group.members:
            self.walks.setdefault(n, "")
        self.seen.append(f"{up} rows of {group.across}")

    def _scattered(self, group: Scattered) -> None:
        circles = [
            curve for n in group.members for curve in self.runs[n] if isinstance(curve, Circle)
        ]
        at = self.rows.points([circle.centre for circle in circles])
        circle = self.rows.add("c", f"circle, centre {at}, {self.rows.size(circles[0].radius)}")
        self._line_in(circle, group.members[0])
        for n in group.members:
            self.walks[n] = ""
        self.seen.append(f"{len(circles)} holes of one size")

    def _mirrored(self, group: Mirrored) -> None:
        # Only what has a name can be mirrored: members of a ring have not.
        named = [
            (a, b) for a, b in zip(group.members, group.images, strict=True) if self.walks.get(a)
        ]
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
            return self._open(n, run, how), ", open"
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
        outline = Outline(
            pieces_of(run),
            self.rows,
            self.centres,
            about,
            words=WORDS.get(how, "way"),
            corners_only=how == CORNERS,
        )
        walk = outline.written()
        touching = len(outline.blends)
        if touching:
            self._see(n, f"{touching} rounds told by what they run into")
        if outline.tangents:
            self._see(n, f"{outline.tangents} lines told by the rounds they touch")
        return walk, ""

    def _open(self, n: int, run: Run, how: int) -> str:
        if how == READY_SHAPE:
            for what, recognised in OPEN:
                if walk := recognised(run, self.rows):
                    self._see(n, what)
                    return walk
        rounded = by_corners(run, self.rows) if how < PLACES else ""
        pieces = pieces_of(run)
        if rounded or how >= ALONE or len(pieces) < 2:
            return rounded or by_places(run, self.rows, opened=True)
        outline = Outline(
            pieces,
            self.rows,
            self.centres,
            closed=False,
            ends_free=True,
            words=WORDS.get(how, "way"),
        )
        return outline.written()

    def _see(self, n: int, what: str) -> None:
        self.seen.append(f"{'the rim' if n == self.rim else 'an opening'}: {what}")

    def _wall(self, run: Run) -> str:
        """Return the inset of an outline that is written already, where this run is one."""
        for other, name in self.walks.items():
            wall = wall_between(self.runs[other], run, self.rows.within) if name else None
            if wall is not None:
                self.seen.append(f"a wall of {self.rows.simple(wall)} all along")
                return self.rows.add(
                    "inset", f"inset, of {name}, wall {self.rows.say(wall, 'wall')}"
                )
        return ""

    def _images(self, run: Run) -> dict[str, list[int]]:
        result: dict[str, list[int]] = {}
        places = Places(run, loosely(self.rows.within))
        for way in self.axes.ways:
            image = images(run, places, mirrored(self.axes.line(way)))
            if image is not None:
                result[way] = image
        return result

    def _comes_again(self, run: Run, times: int, centre: Point) -> tuple[str, str]:
        part = sector(run, times)
        about = self.rows.point(centre)
        pieces = pieces_of(run)
        smooth = all(
            runs_into(pieces[k - 1], piece, ends_of(piece)[0]) for k, piece in enumerate(pieces)
        )
        if smooth and times <= MOST_TURNED:
            return self._turned(run, times, centre), ""
        if self.plainly[self.rows.owner] >= WITH_WAY:
            return by_places(part, self.rows), f", {times} about {about}"
        outline = Outline(part, self.rows, [*self.centres, centre], {}, closed=False, words="way")
        self.seen.append(f"what comes again {times} times round a centre")
        return outline.written(), f", {times} about {about}"

    def _turned(self, run: Run, times: int, centre: Point) -> str:
        """Write a run without corners that comes again: each piece once, and turned."""
        image = images(
            run, Places(run, loosely(self.rows.within)), turned_by(centre, math.tau / times)
        )
        assert image is not None
        self.seen.append(f"what comes again {times} times round a centre")
        return Outline(
            pieces_of(run), self.rows, self.centres, turned=(image, times, centre), words="way"
        ).written()
