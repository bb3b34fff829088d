"""A run said by its conditions: circles about their centres, lines by what they touch, blends and
fillets by their radius and what they run into; the other half by mirror, what comes again round a
centre once."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import groupby, pairwise

from ..geometry import Arc, Line, Point, meet
from ..geometry.shapes import ends as ends_of
from .profile import Curve, Piece, Run, length_of, middle_of, pieces_of
from .rows import Rows
from .simplest import cost
from .tangent import runs_into

MOST_FIGURES = 4
"""Figures of a number that is given: 112.5 has as many."""

OTHER = {"plumb": "O.plumb", "level": "O.level"}

Images = Mapping[str, Sequence[int]]
"""For each axis the run is alike about, which piece each comes to lie on."""


@dataclass
class Outline:
    """One run on its way into rows.

    Attributes
    ----------
    pieces : list of Line or Arc
    rows : Rows
    centres : sequence of Point
        Of holes: what stands about one is a boss, and no blend.
    images : mapping
        Axes through the datum.
    closed : bool
        Whether the first piece comes after the last.
    ends_free : bool
        Whether it begins and stops in places of its own: the first and the last piece are given by
        them.
    words : {"", "way", "length"}
        Whether it is said which way round circles are gone along, or whether it is the longer way.
    corners_only : bool
        Whether only rounds between two lines are blends, and all other arcs go from place to place.
    tangents : int
        Lines that were told by what they touch.
    turned : tuple, optional
        Which piece each comes to lie on when the run is turned, how often that is done, and about
        what.
    """

    pieces: list[Piece]
    rows: Rows
    centres: Sequence[Point]
    images: Images = field(default_factory=dict)
    closed: bool = True
    ends_free: bool = False
    words: str = ""
    corners_only: bool = False
    turned: tuple[Sequence[int], int, Point] | None = None
    tangents: int = 0
    named: dict[int, str] = field(default_factory=dict)
    blends: dict[int, str] = field(default_factory=dict)
    cut_off: set[int] = field(default_factory=set)

    def written(self) -> str:
        """Write the rows, and return the walk."""
        self.blends = self._found_blends()
        if self.corners_only:
            self.blends = {k: ends for k, ends in self.blends.items() if self._is_round(k)}
            self.words = ""
        self.cut_off = self._found_chamfers()
        arcs = [
            k
            for k, piece in enumerate(self.pieces)
            if isinstance(piece, Arc) and k not in self.blends
        ]
        self._write(arcs, self._circle)
        self._write(
            [
                k
                for k, piece in enumerate(self.pieces)
                if isinstance(piece, Line) and k not in self.cut_off
            ],
            self._line,
        )
        self._write(sorted(self.cut_off), self._chamfer)
        self._write(sorted(self.blends, key=lambda k: (_radius(self.pieces[k]), k)), self._blend)
        return " > ".join(self.named[k] + self._way_round(k) for k in range(len(self.pieces)))

    def _way_round(self, k: int) -> str:
        piece = self.pieces[k]
        if not self.words or k in self.blends or not isinstance(piece, Arc):
            return ""
        if self.words == "length":
            return " long" if abs(piece.sweep) > math.pi else " short"
        return " ccw" if piece.sweep > 0 else " cw"

    # What is alike on the other side is said once.

    def orbit(self, k: int) -> list[int]:
        """Return the pieces that are one piece's images, itself first."""
        result = [k]
        if self.turned:
            image, times, _ = self.turned
            for _ in range(times - 1):
                result.append(image[result[-1]])
            return result
        for way in self.images:
            result += [
                self.images[way][each] for each in result if self.images[way][each] not in result
            ]
        return result

    def _write(self, wanted: Sequence[int], write: Callable[[int], str]) -> None:
        first = [k for k in wanted if k == min(self.orbit(k), key=self._preference)]
        for k in first:
            if self.turned:
                self._turn(k, write)
                continue
            self.named[k] = write(k)
            self._remember(k)
        for way in self.images:
            # Everything of this sort that has no name yet, and whose image has one, is mirrored
            # together.
            image = self.images[way]
            pairs = [
                (image[k], k) for k in wanted if k not in self.named and image[k] in self.named
            ]
            pairs = [(a, b) for a, b in pairs if self._is_another(a, b, way)]
            if not pairs:
                continue
            originals = list(dict.fromkeys(self.named[a] for a, _ in pairs))
            name = self.rows.add("i", f"mirror, of {' '.join(originals)}, about {OTHER[way]}")
            for a, b in pairs:
                own = (
                    name if len(originals) == 1 else f"{name}.{originals.index(self.named[a]) + 1}"
                )
                self.named[b] = own
                self._remember(b)
        for k in wanted:
            if k not in self.named:
                self.named[k] = write(k)
                self._remember(k)

    def _turn(self, k: int, write: Callable[[int], str]) -> None:
        """Write a piece and what it comes to lie on: rounds about places equally spaced, all else
        turned."""
        assert self.turned is not None
        _, times, about = self.turned
        piece = self.pieces[k]
        if (
            isinstance(piece, Arc)
            and k not in self.blends
            and abs(piece.centre - about) > self.rows.within
        ):
            at = self.rows.ring(about, piece.centre, times)
            name = self.rows.add(
                "c", f"circle, centre {at}, radius {self.rows.say(piece.radius, 'eye')}"
            )
        else:
            name = self.rows.add(
                "turned", f"turn, of {write(k)}, {times} about {self.rows.point(about)}"
            )
        for n, other in enumerate(self.orbit(k), 1):
            self.named[other] = f"{name}.{n}"

    def _remember(self, k: int) -> None:
        """Let the centre of an arc be known, so that what stands about it is told by it."""
        piece = self.pieces[k]
        if isinstance(piece, Arc):
            self.rows.remember(piece.centre, f"{self._parts(k)[0]}.centre")

    def _parts(self, k: int) -> list[str]:
        """Return the names of what a piece is made of, one after another: of an arc of an open run
        that goes far round there are several, and each is touched, and has a centre, by itself."""
        return self.named[k].split(" > ")

    def _is_another(self, k: int, other: int, way: str) -> bool:
        """Tell whether an image needs a row: two arcs of one circle about the axis, two pieces of
        one line do not."""
        one, two = self.pieces[k], self.pieces[other]
        same = False
        if isinstance(one, Arc) and isinstance(two, Arc) and k not in self.blends:
            same = abs(one.centre - two.centre) <= self.rows.within
        elif isinstance(one, Line) and isinstance(two, Line):
            same = all(abs(one.offset_of(spot)) <= self.rows.within for spot in ends_of(two))
        if same:
            self.named[other] = self.named[k]
        return not same

    def _preference(self, k: int) -> tuple[int, int]:
        spot, near = middle_of(self.pieces[k]), self.rows.within
        return (-round(spot.y / near) if self.turned else -(spot.x > -near) - (spot.y > -near)), k

    # Which arcs are blends.

    def _found_blends(self) -> dict[int, str]:
        """Return which arcs are said by what they touch, and at which ends: about no hole, none
        beside another."""
        result: dict[int, str] = {}
        touched: set[int] = set()
        if len(self.pieces) < 3 and not self.ends_free:
            return result
        arcs = sorted(
            (k for k, p in enumerate(self.pieces) if isinstance(p, Arc)),
            key=lambda k: (-self._unlikely(k), _radius(self.pieces[k])),
        )
        # Those that run on at both ends come first; of them those whose centres nobody would give,
        # small ones before large ones; images together.
        for both in (True, False):
            for k in arcs:
                orbit = self.orbit(k)
                trial: dict[int, str] = {}
                for each in orbit:
                    ends = self._ends(each, result, touched)
                    if not ends or (both and ends != "both"):
                        break
                    trial[each] = ends
                if len(trial) < len(orbit):
                    continue
                neighbours = {n for each, ends in trial.items() for n in self._touches(each, ends)}
                if neighbours & set(trial):
                    continue
                result |= trial
                touched |= neighbours
        return result

    def _unlikely(self, k: int) -> int:
        """Return how many numbers of the centre of an arc are such as nobody gives."""
        arc = self.pieces[k]
        assert isinstance(arc, Arc)
        if self.rows.known(arc.centre):
            return 0
        return sum(cost(self.rows.simple(abs(value))) > MOST_FIGURES for value in arc.centre)

    def _found_chamfers(self) -> set[int]:
        """Return the lines that cut a corner off, as much of one side as of the other."""
        found: set[int] = set()
        for k, line in enumerate(self.pieces):
            before, after = self._beside(k)
            if not isinstance(line, Line) or self._lie(line) or before is None or after is None:
                continue
            if {before, after} & found:
                continue
            sides = self.pieces[before], self.pieces[after]
            if self._cut(line, *sides) and all(isinstance(side, Line) for side in sides):
                found.add(k)
        # Where one of several images is none, none is.
        return {k for k in found if set(self.orbit(k)) <= found}

    def _cut(self, line: Line, before: Piece, after: Piece) -> float:
        """Return how much of each side a chamfer takes; nought where it takes more of one, or of a
        side more than it leaves."""
        if not (isinstance(before, Line) and isinstance(after, Line)):
            return 0.0
        if not (self._is_straight(before) and self._is_straight(after)):
            return 0.0
        crossing = meet(
            Line(before.through, before.direction), Line(after.through, after.direction)
        )
        if not crossing:
            return 0.0
        start, end = ends_of(line)
        legs = [abs(crossing[0].point - end) for end in (start, end)]
        left = min(length_of(before), length_of(after))
        even = abs(legs[0] - legs[1]) <= self.rows.within * 2
        return legs[0] if even and legs[0] < left else 0.0

    def _is_round(self, k: int) -> bool:
        return all(n is not None and isinstance(self.pieces[n], Line) for n in self._beside(k))

    def _beside(self, k: int) -> tuple[int | None, int | None]:
        count = len(self.pieces)
        before = k - 1 if k else (count - 1 if self.closed else None)
        after = k + 1 if k + 1 < count else (0 if self.closed else None)
        return before, after

    def _touches(self, k: int, ends: str) -> list[int]:
        before, after = self._beside(k)
        wanted = [before] * (ends != "last") + [after] * (ends != "first")
        return [n for n in wanted if n is not None]

    def _ends(self, k: int, found: Mapping[int, str], touched: set[int]) -> str:
        arc = self.pieces[k]
        assert isinstance(arc, Arc)
        about = any(abs(arc.centre - centre) <= self.rows.within * 4 for centre in self.centres)
        over_half = abs(arc.sweep) >= math.pi * 0.999 and not self._is_end(k)
        if about or over_half or k in found or k in touched:
            return ""
        before, after = self._beside(k)
        first = (
            before is not None
            and before not in found
            and runs_into(self.pieces[before], arc, arc.first, self.rows.within)
        )
        last = (
            after is not None
            and after not in found
            and runs_into(arc, self.pieces[after], arc.last, self.rows.within)
        )
        if (
            first
            and last
            and before is not None
            and after is not None
            and not self._is_corner(before, arc, after)
        ):
            return ""
        return "both" if first and last else "first" if first else "last" if last else ""

    def _is_corner(self, before: int, arc: Arc, after: int) -> bool:
        """Tell whether an arc between two lines rounds a corner that was given, and is no round
        that they touch."""
        one, two = self.pieces[before], self.pieces[after]
        if not (isinstance(one, Line) and isinstance(two, Line)):
            return True
        crossing = meet(Line(one.through, one.direction), Line(two.through, two.direction))
        if not crossing:
            return False
        if self._is_straight(one) and self._is_straight(two):
            return True
        if self._is_held(one, arc) and self._is_held(two, arc):
            return True
        corner = sum(cost(self.rows.simple(abs(value))) for value in crossing[0].point)
        return corner <= sum(cost(self.rows.simple(abs(value))) for value in arc.centre) + 1

    def _is_held(self, line: Line, beside: Arc) -> bool:
        """Tell whether a line touches two other rounds of the outline, and needs no corner."""
        near = self.rows.within * 2
        rounds = [p for p in self.pieces if isinstance(p, Arc) and p is not beside]
        touched = [r for r in rounds if abs(abs(line.offset_of(r.centre)) - r.radius) <= near]
        return any(abs(a.centre - b.centre) > near for a in touched for b in touched)

    def _touches_at(self, line: Line, arc: Arc, spot: Point) -> bool:
        near = self.rows.within
        return runs_into(line, arc, spot, near) or runs_into(arc, line, spot, near)

    def _is_straight(self, line: Line) -> bool:
        return bool(self._lie(line))

    def _lie(self, line: Line) -> str:
        a, b = ends_of(line)
        if abs(a.y - b.y) <= self.rows.within * 2:
            return "level"
        return "plumb" if abs(a.x - b.x) <= self.rows.within * 2 else ""

    # Rows for one piece.

    def _is_end(self, k: int) -> bool:
        return self.ends_free and k in (0, len(self.pieces) - 1)

    def _circle(self, k: int) -> str:
        arc = self.pieces[k]
        assert isinstance(arc, Arc)
        if self._is_end(k):
            return _by_ends(arc, self.rows, opened=True)
        free = (
            self.rows.known(arc.first)
            and self.rows.known(arc.last)
            and not self.rows.known(arc.centre)
        )
        if (free or self.corners_only) and abs(arc.sweep) < math.pi * 0.9:
            ends = f"through {self.rows.point(arc.first)}, through {self.rows.point(arc.last)}"
            return self.rows.add(
                "t", f"arc, radius {self.rows.say(arc.radius, 'radius')}, {ends}", arc
            )
        return self.rows.circle(arc.centre, arc.radius, arc=True)

    def _line(self, k: int) -> str:
        line = self.pieces[k]
        assert isinstance(line, Line)
        start, end = ends_of(line)
        lie = "" if self._is_end(k) else self._lie(line)
        before, after = self._beside(k)
        touched: list[str] = []
        places: list[Point] = []
        for other, spot in ((before, start), (after, end)):
            arc = self.pieces[other] if other is not None else None
            name = self.named.get(other, "") if other is not None else ""
            of_several = " > " in name
            given = other not in self.blends and not self.corners_only
            whole = isinstance(arc, Arc) and name and given and not of_several
            if whole and isinstance(arc, Arc) and self._touches_at(line, arc, spot):
                touched.append(name)
            else:
                places.append(self._corner(k, other, spot))
        if lie and len(touched) < 2:
            return self._level(line, lie, touched)
        if len(touched) == 1 and not self._is_end(k) and not self.rows.known(places[0]):
            # A side may touch what it does not come to: it is given by that more simply.
            touched += [name for name in self.rows.touched_by(line) if name not in touched][:1]
        self.tangents += bool(touched)
        if len(touched) == 2:
            return self.rows.add("l", f"line, touching {touched[0]}, touching {touched[1]}", line)
        if touched:
            return self.rows.add(
                "l", f"line, through {self.rows.point(places[0])}, touching {touched[0]}", line
            )
        if self._is_end(k):
            ends = " to ".join(self.rows.point(place) for place in places)
            return self.rows.add("l", f"line, from {ends}", line)
        return self._oblique(line, places)

    def _level(self, line: Line, lie: str, touched: Sequence[str] = ()) -> str:
        spot = ends_of(line)[0]
        foot = Point(0.0, spot.y) if lie == "level" else Point(spot.x, 0.0)
        key = f"{lie} {self.rows.simple(foot.y if lie == 'level' else foot.x)}"
        text = self.rows.lines.get(key)
        if text is None:
            if self.rows.is_nought(foot.y if lie == "level" else foot.x):
                text = f"O.{lie}"
            elif touched:
                self.tangents += 1
                text = self.rows.add("l", f"line, touching {touched[0]}, {lie}", line)
            else:
                off = foot.y if lie == "level" else foot.x
                side = (
                    ("above" if off > 0 else "below")
                    if lie == "level"
                    else "right"
                    if off > 0
                    else "left"
                )
                at = self.rows.say(abs(off), "up" if lie == "level" else "across")
                text = self.rows.add("l", f"parallel, to O.{lie}, at {at}, {side}", line)
            self.rows.lines[key] = text
        return text

    def _oblique(self, line: Line, places: Sequence[Point]) -> str:
        a, b = places
        degrees = math.degrees(line.direction.angle) % 180
        told = round(degrees * 2) / 2
        reach = max(abs(b - a), self.rows.within)
        known = self.rows.known(a), self.rows.known(b)
        if abs(degrees - told) <= math.degrees(self.rows.fine / reach) and not all(known):
            spot = (
                a
                if known[0] or (not known[1] and self.rows.figures(a) <= self.rows.figures(b))
                else b
            )
            other = b if spot is a else a
            if cost(f"{told:g}") < self.rows.figures(other):
                angle = self.rows.say_angle(math.radians(told), reach)
                return self.rows.add(
                    "l", f"line, through {self.rows.point(spot)}, at {angle}", line
                )
        return self.rows.add("l", f"line, from {self.rows.point(a)} to {self.rows.point(b)}", line)

    def _corner(self, k: int, other: int | None, spot: Point) -> Point:
        """Return the corner a line runs to: where it would meet the next were the fillet between
        them not there."""
        line = self.pieces[k]
        if other is not None and other in self.blends:
            before, after = self._beside(other)
            beyond_at = after if before == k else before
            beyond = self.pieces[beyond_at] if beyond_at is not None else None
            if isinstance(beyond, Line) and isinstance(line, Line):
                found = meet(
                    Line(line.through, line.direction), Line(beyond.through, beyond.direction)
                )
                if found:
                    return found[0].point
        return spot

    def _chamfer(self, k: int) -> str:
        line = self.pieces[k]
        before, after = self._beside(k)
        assert isinstance(line, Line)
        assert before is not None
        assert after is not None
        size = self.rows.say(self._cut(line, self.pieces[before], self.pieces[after]), "size")
        sides = f"between {self.named[before]} and {self.named[after]}"
        return self.rows.add("x", f"chamfer, {sides}, {size} each way", line)

    def _blend(self, k: int) -> str:
        arc = self.pieces[k]
        assert isinstance(arc, Arc)
        before, after = self._beside(k)
        size = self.rows.say(arc.radius, "radius")
        ends = self.blends[k]
        if ends != "both":
            touched, free = (before, arc.last) if ends == "first" else (after, arc.first)
            assert touched is not None
            nearest = self._parts(touched)[-1 if touched == before else 0]
            through = self.rows.point(free)
            long = ", long" if abs(arc.sweep) > math.pi else ""
            words = f"arc, radius {size}, touching {nearest}, through {through}{long}"
            return self.rows.add("t", words, arc)
        assert before is not None
        assert after is not None
        a, b = self._parts(before)[-1], self._parts(after)[0]
        if isinstance(self.pieces[before], Line) or isinstance(self.pieces[after], Line):
            return self.rows.add("f", f"fillet, between {a} and {b}, radius {size}", arc)
        return self.rows.add("t", f"arc, radius {size}, touching {a}, touching {b}", arc)


def _radius(piece: Piece) -> float:
    return piece.radius if isinstance(piece, Arc) else math.inf


def by_places(run: Sequence[Curve], rows: Rows, opened: bool = False) -> str:
    """Write a run by its corners, and by the centres or radii of its arcs: what any run can be said
    by.

    Every piece ends on places that have a name, so that the next goes on from there exactly.
    """
    all_pieces = pieces_of(tuple(run))
    if len(all_pieces) >= FEWEST_LISTED:
        _list_places(
            [*(ends_of(piece)[0] for piece in all_pieces), ends_of(all_pieces[-1])[1]], rows
        )
    walk: list[str] = []
    for straight, group in groupby(all_pieces, lambda piece: isinstance(piece, Line)):
        pieces = list(group)
        if straight and len(pieces) >= FEWEST_LEGS:
            walk += _legs([*(ends_of(piece)[0] for piece in pieces), ends_of(pieces[-1])[1]], rows)
        else:
            walk += [_by_ends(piece, rows, opened) for piece in pieces]
    return " > ".join(walk)


def by_corners(run: Run, rows: Rows) -> str:
    """Say an open run of lines by its corners, with rounds between them as fillets: what touches
    goes on touching. Empty where it has other curves."""
    pieces = pieces_of(run)
    lines = [piece for piece in pieces if isinstance(piece, Line)]
    if not (isinstance(pieces[0], Line) and isinstance(pieces[-1], Line)) or len(lines) < 2:
        return ""
    corners = [ends_of(pieces[0])[0]]
    for k, piece in enumerate(pieces[1:], 1):
        before = pieces[k - 1]
        if isinstance(piece, Line) and isinstance(before, Line):
            corners.append(ends_of(piece)[0])
        elif isinstance(piece, Arc):
            after = pieces[k + 1]
            if not (isinstance(before, Line) and isinstance(after, Line)):
                return ""
            near = rows.within
            touches = runs_into(before, piece, piece.first, near)
            if not (touches and runs_into(piece, after, piece.last, near)):
                return ""
            crossing = meet(
                Line(before.through, before.direction), Line(after.through, after.direction)
            )
            if not crossing or abs(piece.sweep) >= math.pi:
                return ""
            corners.append(crossing[0].point)
    corners.append(ends_of(pieces[-1])[1])
    names = [
        rows.add("l", f"line, from {rows.point(a)} to {rows.point(b)}", line)
        for (a, b), line in zip(pairwise(corners), lines, strict=True)
    ]
    walk: list[str] = []
    sides = iter(names)
    for piece in pieces:
        if isinstance(piece, Line):
            walk.append(next(sides))
            continue
        between = f"between {walk[-1]} and {names[names.index(walk[-1]) + 1]}"
        size = rows.say(piece.radius, "radius")
        walk.append(rows.add("f", f"fillet, {between}, radius {size}", piece))
    return " > ".join(walk)


FEWEST_LISTED = 12
"""Pieces of a run from which on its places are lists, and no row of its own for each."""

FEWEST_LEGS, MOST_LEGS = 8, 40
"""Lines one after another that are said as a run from place to place, and as many as a row of a
plan has room for."""


def _list_places(spots: Sequence[Point], rows: Rows) -> None:
    """Give names to places that have none, many in a row."""
    for k in range(0, len(spots), MOST_LEGS):
        fresh: list[Point] = []
        for spot in spots[k : k + MOST_LEGS]:
            if not rows.known(spot) and all(abs(spot - other) > rows.within for other in fresh):
                fresh.append(spot)
        if len(fresh) > 1:
            rows.points(fresh)


def _legs(spots: list[Point], rows: Rows) -> list[str]:
    result: list[str] = []
    for k in range(0, len(spots) - 1, MOST_LEGS):
        part = spots[k : k + MOST_LEGS + 1]
        _list_places(part, rows)
        first, *others = (rows.point(spot) for spot in part)
        result.append(
            rows.add("m", f"run, from {first}, {', '.join(f'to {other}' for other in others)}")
        )
    return result


def _by_ends(piece: Piece, rows: Rows, opened: bool) -> str:
    a, b = ends_of(piece)
    if isinstance(piece, Line):
        return rows.add("l", f"line, from {rows.point(a)} to {rows.point(b)}", piece)
    if abs(piece.sweep) > math.pi * 0.9:
        if opened:
            # A circle has no ends to begin or to stop at: its parts have.
            third = piece.sweep / 3
            parts = (
                Arc(piece.centre, piece.radius, piece.start + k * third, third) for k in range(3)
            )
            return " > ".join(_by_ends(part, rows, opened) for part in parts)
        # Through three places it goes on from, and comes to, the very places its neighbours do.
        through = ", ".join(f"through {rows.point(spot)}" for spot in (a, piece.middle, b))
        circle = rows.add("c", f"circle, {through}")
        return f"{circle} {'ccw' if piece.sweep > 0 else 'cw'}"
    words = (
        f"arc, radius {rows.say(piece.radius, '')}, through {rows.point(a)}, through "
        f"{rows.point(b)}"
    )
    return rows.add("t", words, piece)
