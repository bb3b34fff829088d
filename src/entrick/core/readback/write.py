"""From outlines to the plan somebody would have written: centres, circles, blends by what they touch, then walks."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

from ..geometry import Arc, Circle, Line, Loop, Point, meet, piece_of, shift
from ..geometry.loop import distance
from ..measure import Unit
from ..moves import kinds
from ..plan.edit import choose_candidate, choose_in_walk
from ..plan.errors import ClauseError
from ..plan.reader import read_plan
from ..plan.writer import write_plan
from ..solve import Entry, Solution, solve
from ..tolerance import READ_WITHIN, RUNS_INTO
from .profile import Curve, Profile, ProfileError, ends_of
from .simplest import cost, simplest

PAPERS = (("A4", 297, 210), ("A3", 420, 297), ("A2", 594, 420), ("A1", 841, 594))
SCALES = ("1:1", "1:2", "1:5", "1:10", "1:20", "1:50")
ROOM = 70.0
"""Of a paper, border, strip and room for dimensions, mm (by eye)."""

MOST_CHOICES = 400
"""Choices that are made until a plan is decided."""


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
        What was mended, left out, or had to be said by coordinates.
    """

    text: str
    off: float
    numbers: int
    told: tuple[str, ...]


def read_back(
    profile: Profile, unit: Unit | None = None, within: float = READ_WITHIN, title: str = "Read back"
) -> ReadBack:
    """Write the plan of a profile.

    Parameters
    ----------
    profile : Profile
    unit : Unit, optional
        Of the plan: that of the file where it says one, else what explains its numbers more simply.
    within : float
        How far a number may be from what the file has, in its unit.
    title : str

    Raises
    ------
    ProfileError
        Where no plan comes to the same outlines.
    """
    units = [unit] if unit else [profile.unit] if profile.unit else [Unit.MM, Unit.INCH]
    best: ReadBack | None = None
    for each in units:
        found = _written(profile, each, within, title)
        if best is None or sum(map(cost, _figures(found.text))) < sum(map(cost, _figures(best.text))):
            best = found
    assert best is not None
    return best


def _figures(text: str) -> list[str]:
    return [word.strip(",") for row in text.split("\n")[4:] for word in row.split() if word[:1].isdigit()]


def _written(profile: Profile, unit: Unit, within: float, title: str) -> ReadBack:
    told = list(profile.told)
    profile = _about_its_datum(profile, unit, within)
    # A run whose conditions do not lead back to it is said with which way round, then by its corners and centres.
    plainly = dict.fromkeys(range(len(profile.runs)), 0)
    for _ in range(PLAIN * len(profile.runs) + 1):
        writer = _Writer(profile, unit, within, title, plainly)
        text, broken = _settled(writer.write(), writer.targets)
        owners = [n for n, name in enumerate(writer.names) if broken in writer.own[name]] if broken else []
        wrong = owners or [n for n, run in enumerate(profile.runs) if _off(text, run, writer.names[n]) > within]
        if not wrong:
            off = max(_off(text, run, name) for run, name in zip(profile.runs, writer.names, strict=True))
            told += [f"{writer.names[n]} is said by coordinates: no condition led back to it"
                     for n, how in plainly.items() if how == PLAIN]  # fmt: skip
            return ReadBack(text, off, len(_figures(text)), tuple(told))
        if all(plainly[n] == PLAIN for n in wrong):
            raise ProfileError(f"no plan was found for {writer.names[wrong[0]]}: it is not read yet")
        for n in wrong:
            plainly[n] = min(PLAIN, plainly[n] + 1)
    raise ProfileError("no plan was found for this profile")


PLAIN = 2
"""How plainly a run may have to be said: 0 by its conditions, 1 with which way round, 2 by coordinates."""


def _box(profile: Profile) -> tuple[float, float, float, float]:
    spots = [spot for run in profile.runs for curve in run for spot in _reach(curve)]
    return min(p.x for p in spots), min(p.y for p in spots), max(p.x for p in spots), max(p.y for p in spots)


def _about_its_datum(profile: Profile, unit: Unit, within: float) -> Profile:
    """Return a profile moved so that the datum is where places are told most simply from: a centre, the middle of it
    all, a corner."""
    x0, y0, x1, y1 = _box(profile)
    curves = [curve for run in profile.runs for curve in run]
    spots = [ends_of(c)[0] if isinstance(c, Line) else c.centre for c in curves][:LOOKED_AT]
    tried = [Point((x0 + x1) / 2, (y0 + y1) / 2), Point(x0, y0), Point(0.0, 0.0)]
    tried += [c.centre for c in curves if isinstance(c, Circle)][:20]
    datum = min(tried, key=lambda at: sum(cost(simplest(abs(v), unit, within)) for p in spots
                                          for v in (p.x - at.x, p.y - at.y)))  # fmt: skip
    moved = tuple(tuple(shift(curve, -datum) for curve in run) for run in profile.runs)
    return Profile(moved, profile.unit, profile.told)


LOOKED_AT = 200
"""Places by which a datum is chosen."""


@dataclass
class _Writer:
    """The rows of a plan as they are written."""

    profile: Profile
    unit: Unit
    within: float
    title: str
    plainly: dict[int, int]
    rows: list[str] = field(default_factory=list)
    targets: dict[str, Curve | Sequence[Curve]] = field(default_factory=dict)
    names: list[str] = field(default_factory=list)
    own: dict[str, set[str]] = field(default_factory=dict)
    _points: dict[tuple[int, int], str] = field(default_factory=dict)
    _circles: dict[tuple[int, int, int], str] = field(default_factory=dict)
    _lines: dict[tuple[str, int, int], str] = field(default_factory=dict)
    _count: dict[str, int] = field(default_factory=dict)
    _run: str = ""

    def write(self) -> str:
        """Return the plan."""
        runs = self.profile.runs
        for n in range(len(runs)):
            name = f"rim{n + 1}" if len(runs) > 1 else "rim"
            self.names.append(name)
            self.own[name] = {name}
        centres = [_centre_of(c) for run in runs for c in run if isinstance(c, Circle)]
        # What stands about the centre of a hole is a boss, and no blend.
        for n in sorted(range(len(runs)), key=lambda n: not isinstance(runs[n][0], Circle)):
            self._run = self.names[n]
            walk = self._walk(n, runs[n], centres)
            self.rows.append(f"{self.names[n]} = line in, {walk}")
            self.targets[self.names[n]] = runs[n]
        size = _box(self.profile)
        head = [f'plan "{self.title}"', f"units {self.unit.value}", f"sheet {self._sheet(size)}", ""]
        return "\n".join([*head, "O = datum, middle of sheet", *self.rows]) + "\n"

    # Numbers and places.

    def say(self, value: float) -> str:
        """Write a number."""
        return simplest(value, self.unit, self.within)

    def _key(self, spot: Point) -> tuple[int, int]:
        grid = self.within * 4
        return round(spot.x / grid), round(spot.y / grid)

    def _sheet(self, box: tuple[float, float, float, float]) -> str:
        wide, high = ((box[k + 2] - box[k]) * float(self.unit.mm) for k in (0, 1))
        for scale in SCALES:
            ratio = 1 / float(scale.partition(":")[2])
            for paper, across, up in PAPERS if scale == "1:1" else PAPERS[1:3]:
                if wide * ratio <= across - ROOM and high * ratio <= up - ROOM:
                    return f"{paper} landscape, scale {scale}"
        return "A1 landscape, scale 1:100"

    def _next(self, stem: str) -> str:
        self._count[stem] = self._count.get(stem, 0) + 1
        return f"{stem}{self._count[stem]}"

    def _row(self, stem: str, said: str, target: Curve | None = None) -> str:
        name = self._next(stem)
        self.rows.append(f"{name} = {said}")
        self.own[self._run].add(name)
        if target is not None:
            self.targets[name] = target
        return name

    def point(self, spot: Point) -> str:
        """Return the name of a place."""
        off = spot
        if max(abs(off.x), abs(off.y)) <= self.within:
            return "O"
        key = self._key(off)
        if key not in self._points:
            across = f"{self.say(abs(off.x))} {'right' if off.x > 0 else 'left'} of O"
            up = f"{self.say(abs(off.y))} {'above' if off.y > 0 else 'below'}"
            said = [across] if abs(off.x) > self.within else []
            said += [up if said else f"{up} O"] if abs(off.y) > self.within else []
            self._points[key] = self._row("P", f"point, {', '.join(said)}")
        return self._points[key]

    def circle(self, centre: Point, radius: float) -> str:
        """Return the name of a circle."""
        key = (*self._key(centre), round(radius / self.within / 4))
        if key not in self._circles:
            at = self.point(centre)
            whole, half = self.say(2 * radius), self.say(radius)
            size = f"diameter {whole}" if cost(whole) < cost(half) else f"radius {half}"
            self._circles[key] = self._row("c", f"circle, centre {at}, {size}", Circle(centre, radius))
        return self._circles[key]

    # Runs.

    def _walk(self, n: int, run: Sequence[Curve], centres: Sequence[Point]) -> str:
        first = run[0]
        if isinstance(first, Circle):
            return self.circle(first.centre, first.radius)
        pieces = [curve for curve in run if isinstance(curve, Line | Arc)]
        box = self._rectangle(pieces)
        if box:
            return box
        plain = self.plainly[n] == PLAIN
        blends = {} if plain else _blends(pieces, centres, self.within)
        named: dict[int, str] = {}
        for k, piece in enumerate(pieces):
            if isinstance(piece, Arc) and k not in blends:
                named[k] = self.circle(piece.centre, piece.radius)
        for k, piece in enumerate(pieces):
            if isinstance(piece, Line):
                named[k] = self._line(k, pieces, blends, named, plain)
        for k in sorted(blends):
            named[k] = self._blend(k, pieces, blends[k], named)
        return " > ".join(named[k] + self._round(n, k, pieces, blends) for k in range(len(pieces)))

    def _round(self, n: int, k: int, pieces: Sequence[Line | Arc], blends: dict[int, str]) -> str:
        """Return the word that says which way round a circle is gone along, where it has to be said."""
        piece = pieces[k]
        if self.plainly[n] == 0 or k in blends or not isinstance(piece, Arc):
            return ""
        return " ccw" if piece.sweep > 0 else " cw"

    def _blend(self, k: int, pieces: Sequence[Line | Arc], ends: str, named: dict[int, str]) -> str:
        piece = pieces[k]
        assert isinstance(piece, Arc)
        before, after = (k - 1) % len(pieces), (k + 1) % len(pieces)
        size = self.say(piece.radius)
        if ends != "both":
            touched, free = (named[before], piece.last) if ends == "first" else (named[after], piece.first)
            return self._row("t", f"arc, radius {size}, touching {touched}, through {self.point(free)}", piece)
        a, b = named[before], named[after]
        if isinstance(pieces[before], Line) or isinstance(pieces[after], Line):
            return self._row("f", f"fillet, between {a} and {b}, radius {size}", piece)
        return self._row("t", f"arc, radius {size}, touching {a}, touching {b}", piece)

    def _rectangle(self, pieces: Sequence[Line | Arc]) -> str:
        """Return the walk round a level box; empty where it is none."""
        if len(pieces) != 4 or not all(isinstance(p, Line) for p in pieces):
            return ""
        if any(min(abs(p.direction.x), abs(p.direction.y)) > RUNS_INTO for p in pieces if isinstance(p, Line)):
            return ""
        spots = [ends_of(p)[0] for p in pieces]
        low = Point(min(p.x for p in spots), min(p.y for p in spots))
        high = Point(max(p.x for p in spots), max(p.y for p in spots))
        size = high - low
        name = self._row(
            "b", f"box, {self.say(size.x)} by {self.say(size.y)}, centred on {self.point((low + high) * 0.5)}"
        )
        return " > ".join(f"{name}.{side}" for side in ("bottom", "right", "top", "left"))

    def _line(
        self, k: int, pieces: Sequence[Line | Arc], blends: dict[int, str], named: dict[int, str], plain: bool
    ) -> str:
        line = pieces[k]
        assert isinstance(line, Line)
        way = line.direction
        count = len(pieces)
        start, end = ends_of(line)
        level = abs(way.y) < RUNS_INTO
        if level or abs(way.x) < RUNS_INTO:
            spot = Point(0.0, start.y) if level else Point(start.x, 0.0)
            key = ("level" if level else "plumb", *self._key(spot))
            if key not in self._lines:
                self._lines[key] = self._row("l", f"line, through {self.point(spot)}, {key[0]}", line)
            return self._lines[key]
        touched = []
        for other, spot in (((k - 1) % count, start), ((k + 1) % count, end)):
            arc = pieces[other]
            if not plain and isinstance(arc, Arc) and other not in blends and _runs_into(line, arc, spot):
                touched.append(f"touching {named[other]}")
            else:
                touched.append(f"through {self.point(_corner(k, other, pieces, blends, spot))}")
        if all(each.startswith("through") for each in touched):
            a, b = (each.removeprefix("through ") for each in touched)
            return self._row("l", f"line, from {a} to {b}", line)
        return self._row("l", f"line, {', '.join(sorted(touched, reverse=True))}", line)


def _centre_of(curve: Curve) -> Point:
    assert not isinstance(curve, Line)
    return curve.centre


def _reach(curve: Curve) -> list[Point]:
    match curve:
        case Line():
            return list(ends_of(curve))
        case Arc():
            return [*ends_of(curve), *(curve.at(curve.start + curve.sweep * k / 16) for k in range(17))]
    return [curve.centre + Point(x, y) * curve.radius for x in (-1, 1) for y in (-1, 1)]


def _direction(curve: Line | Arc, spot: Point) -> Point:
    if isinstance(curve, Line):
        return curve.direction
    out = (spot - curve.centre).unit
    return out.normal if curve.sweep > 0 else -out.normal


def _runs_into(one: Line | Arc, other: Line | Arc, spot: Point) -> bool:
    a, b = _direction(one, spot), _direction(other, spot)
    return abs(a.cross(b)) < RUNS_INTO and a.dot(b) > 0


def _blends(pieces: Sequence[Line | Arc], centres: Sequence[Point], within: float) -> dict[int, str]:
    """Return which arcs are said by what they touch, and at which ends: about no hole, none beside another."""
    count = len(pieces)
    found: dict[int, str] = {}
    arcs = [k for k, piece in enumerate(pieces) if isinstance(piece, Arc)]
    # What a blend touches has to be there before it, and is no blend itself.
    touched: set[int] = set()
    if count < 3:
        return found
    # Those that run on at both ends come first, small ones before large ones.
    for both in (True, False):
        for k in sorted(arcs, key=lambda k: _radius(pieces[k])):
            arc, before, after = pieces[k], pieces[k - 1], pieces[(k + 1) % count]
            assert isinstance(arc, Arc)
            about = any(abs(arc.centre - centre) <= within * 4 for centre in centres)
            if about or abs(arc.sweep) >= math.pi - RUNS_INTO or k in found or k in touched:
                continue
            first = _runs_into(before, arc, arc.first) and (k - 1) % count not in found
            last = _runs_into(arc, after, arc.last) and (k + 1) % count not in found
            if first and last:
                found[k] = "both"
            elif (first or last) and not both:
                found[k] = "first" if first else "last"
            if k in found:
                touched |= {(k - 1) % count} if first else set()
                touched |= {(k + 1) % count} if found[k] != "first" else set()
    return found


def _radius(piece: Line | Arc) -> float:
    return piece.radius if isinstance(piece, Arc) else math.inf


def _corner(k: int, other: int, pieces: Sequence[Line | Arc], blends: dict[int, str], spot: Point) -> Point:
    """Return the corner a line runs to: where it would meet the next one were the fillet between them not there."""
    line = pieces[k]
    if other in blends:
        step = 1 if other == (k + 1) % len(pieces) else -1
        beyond = pieces[(other + step) % len(pieces)]
        if isinstance(beyond, Line) and isinstance(line, Line):
            endless = (Line(each.through, each.direction) for each in (line, beyond))
            found = meet(*endless)
            if found:
                return found[0].point
    return spot


# The plan decided and held against the profile.


def _settled(text: str, targets: dict[str, Curve | Sequence[Curve]]) -> tuple[str, str]:
    """Choose, wherever several solutions fit, the one that is in the profile.

    Returns
    -------
    text, broken : str
        The plan, and the name of the first statement that cannot be had; empty where there is none.
    """
    plan = read_plan(text)
    for _ in range(MOST_CHOICES):
        solution = solve(plan)
        waiting = next((entry for entry in solution.entries if entry.error), None)
        if waiting is None:
            return write_plan(plan), ""
        chosen = _choice(waiting, targets.get(waiting.statement.name))
        if chosen is None:
            return write_plan(plan), waiting.statement.name
        try:
            if chosen.of_walk:
                plan = choose_in_walk(plan, waiting.line, *chosen.of_walk)
            else:
                words = kinds()[waiting.statement.kind].choosing_words
                plan = choose_candidate(plan, waiting.line, chosen.words, words)
        except (ClauseError, ValueError):
            return write_plan(plan), waiting.statement.name
    return write_plan(plan), ""


def _choice(entry: Entry, target: Curve | Sequence[Curve] | None):  # type: ignore[no-untyped-def]
    if target is None or not entry.candidates:
        return None
    curves = [target] if isinstance(target, Line | Arc | Circle) else list(target)

    def off(candidate) -> float:  # type: ignore[no-untyped-def]
        shape = candidate.shape
        match shape:
            case Point() if candidate.of_walk:
                # Where a stop is left, or come to.
                ends = ends_of(curves[candidate.of_walk.stop % len(curves)])
                return min(abs(end - shape) for end in ends)
            case Point():
                return min(distance(curve, shape) for curve in curves)
            case Arc() | Circle() if not isinstance(curves[0], Line):
                return abs(shape.centre - curves[0].centre) + abs(shape.radius - curves[0].radius)
            case Line() if isinstance(curves[0], Line):
                return sum(abs(shape.offset_of(spot)) for spot in ends_of(curves[0]))
        return math.inf

    # Candidates stand where the datum stands: the profile was moved there.
    best = min(entry.candidates, key=off)
    return best if off(best) < math.inf else None


def _off(text: str, run: Sequence[Curve], name: str) -> float:
    """Return how far an outline of a plan is from a run, both ways."""
    solution: Solution = solve(read_plan(text))
    loops = [loop for entry in solution.entries if entry.statement.name == name and entry.made
             for loop in entry.made.loops]  # fmt: skip
    if len(loops) != 1 or not loops[0].closed:
        return math.inf
    loop = loops[0]
    mine = Loop(tuple(piece_of(curve, "") for curve in run), True)
    return max((*_apart(loop, mine), *_apart(mine, loop)), default=math.inf)


def _apart(one: Loop, other: Loop) -> Iterator[float]:
    for piece in one.pieces:
        yield other.distance(piece.entry)
        curve = piece.curve
        middle = curve.middle if isinstance(curve, Arc) else (piece.entry + piece.exit) * 0.5
        yield other.distance(middle if not isinstance(curve, Circle) else curve.at(math.pi))
