"""The questions of a plan: made from its steps, its working and its figure, with nothing to author."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from random import Random

from ..acts.act import Finish, GoOver, Measure, Prick, StepOff, Swing
from ..board.schedule import waits_for
from ..board.steps import BoardStep
from ..desk import Work, work_out
from ..geometry import Arc, Circle, Point
from ..geometry import Line as Straight
from ..kind import Made
from ..measure import read_on_rule, spell, spell_angle
from ..moves import kinds
from ..plan.document import Chain, Plan
from ..plan.edit import choose_candidate, set_line
from ..plan.errors import ClauseError
from ..plan.writer import write_line, write_plan
from ..solve import Entry
from ..tolerance import worked
from .question import Question, Slip
from .slips import ANGLES_NEAR, OnRule, angles, chord

FEWEST_STEPS = 5
"""Steps that are put in order at a time."""

MOST_ALIKE = 3
"""Questions of one rule about one statement: a curve has many stations, and one learns by three of them."""

CHOICES = 5
"""Statements among which one that stands wrong is sought."""


@dataclass(frozen=True)
class Context:
    """A plan worked out, and what questions are made from."""

    work: Work

    @cached_property
    def rule(self) -> OnRule:
        """How lengths are set."""
        return OnRule(self.work.kit, self.work.sheet.scale, self.work.solution.unit)

    @cached_property
    def circles(self) -> tuple[tuple[str, Circle], ...]:
        """Every circle of the figure with its name."""
        return tuple((name, shape) for name, shape in self.work.solution.figure.things() if isinstance(shape, Circle))

    def about(self, at: Point) -> list[tuple[str, Circle]]:
        """Return the circles about a place."""
        return [(name, c) for name, c in self.circles if abs(c.centre - at) <= worked(abs(at) + c.radius)]

    def entry(self, line: int) -> Entry | None:
        """Return the statement on a line."""
        return self.work.solution.entry(line)

    def exact(self, size: float) -> float:
        """Return a size of the plan without the last digits of its working."""
        return round(size, 4)

    def sentence(self, line: int) -> str:
        """Return what a statement says."""
        entry = self.entry(line)
        return entry.made.sentence if entry and entry.made else ""


def questions(work: Work, seed: int = 1) -> tuple[Question, ...]:
    """Return every question worth asking about a plan.

    Parameters
    ----------
    work : Work
        Without mistakes.
    seed : int
        Decides what is drawn by lot: which steps are to be put in order, what is planted.

    Returns
    -------
    tuple of Question
        In the order of work. Where a slip gives the right number the slip is left out, and the question where that was
        its point.
    """
    at = Context(work)
    random = Random(seed)
    found = [question for ask in (*_PLAIN, *_BY_LOT) for question in ask(at, random)]
    seen: set[tuple[str, object]] = set()
    kept: list[Question] = []
    count: Counter[tuple[str, int]] = Counter()
    for question in sorted(found, key=lambda each: (each.line, each.step)):
        # The same size of the same statement is asked once, however many members of a family have it.
        same = (question.asks, question.right)
        if same not in seen and count[question.rule, question.line] < MOST_ALIKE:
            seen.add(same)
            count[question.rule, question.line] += 1
            kept.append(question)
    return tuple(kept)


def _length(
    at: Context, step: BoardStep, rule: str, own: Sequence[Slip], right: float, working: Sequence[str], what: str
) -> Iterator[Question]:
    """Yield a question for a length to be set, unless its point is lost or the brief says it as it is."""
    slips = at.rule.lengths(right, own)
    wanted = {slip.key for slip in own}
    if own and not wanted & {slip.key for slip in slips}:
        return
    setting = step.setting
    assert setting is not None
    if not own and at.work.sheet.scale.ratio == 1:
        return
    unit = at.work.kit.unit.value
    sentence = at.sentence(step.line)
    yield Question(
        f"{rule}:{step.line}:{step.number}", rule, f"{sentence} The sheet is at {at.work.sheet.scale}. {what}",
        "length", step.line, right, step.number, unit, at.rule.near, slips=slips,
        hints=(f"{_RULE_HINTS[rule]}.", *working[:1]), working=(*working, setting.told),
        setting=step.tool if step.tool in ("compass", "beam compass", "dividers", "rule") else "",
    )  # fmt: skip


_RULE_HINTS = {
    "locus": "Is the circle inside the arc, or beside it? Its centre is that many radii away",
    "radius": "Is a radius given, or a diameter? And the sheet has a scale",
    "place": "From which mark, and is it the whole or half of it?",
    "parts": "Dividers span the chord from mark to mark",
    "template": "A template goes by diameter",
    "stations": "Which way does the cam turn, and where does the lift begin?",
}


def _set(at: Context, _: Random) -> Iterator[Question]:
    """Ask what is to be set for circles, centres, places and equal steps."""
    for step in at.work.steps:
        act = step.source.act if step.source else None
        setting = step.setting
        if setting is None or setting.is_angle or act is None:
            continue
        match act:
            case Swing(setting=opening) if not opening.free and opening.between is None:
                yield from _swing(at, step, act)
            case Measure(computed=False):
                yield from _measure(at, step, act)
            case StepOff(setting=opening) if not opening.free:
                yield from _step_off(at, step)


def _swing(at: Context, step: BoardStep, act: Swing) -> Iterator[Question]:
    entry = at.entry(step.line)
    made = entry.made if entry else None
    if made is None or step.setting is None:
        return
    own = _round_of(made, act)
    size, say = float(act.setting.size), at.rule.say
    drawn = at.rule.drawn
    if own is not None and abs(act.planned.centre - own.centre) <= worked(own.radius + abs(own.centre)):
        told = _neighbours(at, act.planned, step.name)
        right = drawn(size)
        if step.tool == "circle template":
            slips = [Slip("radius for diameter", 4, right, f"Templates go by diameter: {say(2 * right)}"), *told]
            what = "Which hole of the circle template is taken, by its diameter?"
            yield from _length(at, step, "template", slips, 2 * right, made.working, what)
            return
        slips = [
            Slip("diameter for radius", 6, 2 * right, f"The compass goes by radius: half of Ø{say(2 * right)}"),
            Slip("halved once too often", 4, right / 2, f"{say(right)} was no diameter: it is not halved again"), *told,
        ]  # fmt: skip
        yield from _length(at, step, "radius", slips, right, made.working, f"{step.text}: what is the compass set to?")
    elif own is not None:
        yield from _locus(at, step, act, own, made)


def _round_of(made: Made, act: Swing) -> Circle | Arc | None:
    """Return the circle or arc that a swing belongs to."""
    shapes = [shape for shape in made.shapes if isinstance(shape, Circle | Arc)]
    on = [s for s in shapes if abs(s.centre - act.planned.centre) <= worked(s.radius + abs(s.centre))]
    return next(iter(on or shapes), None)


def _neighbours(at: Context, circle: Circle, name: str) -> Iterator[Slip]:
    for other, c in at.about(circle.centre):
        if other != name and abs(c.radius - circle.radius) > worked(c.radius):
            size = at.rule.drawn(c.radius)
            yield Slip("a neighbour's circle", 3, size, f"{at.rule.say(size)} is the size of {other}")


def _locus(at: Context, step: BoardStep, act: Swing, own: Circle | Arc, made: Made) -> Iterator[Question]:
    """Ask for the opening that finds a centre, and whether it is a sum or a difference."""
    radius, size = own.radius, float(act.setting.size)
    found = [
        c for _, c in at.about(act.planned.centre)
        if min(abs(radius + c.radius - size), abs(abs(radius - c.radius) - size)) <= worked(radius + c.radius)
    ]  # fmt: skip
    if not found:
        return
    r = found[0].radius
    beside = abs(radius + r - size) <= worked(radius + r)
    drawn, say = at.rule.drawn, at.rule.say
    right, big, small = drawn(size), drawn(radius), drawn(r)
    others = [c.radius for _, c in at.circles if abs(c.radius - r) > worked(r) and _touches(c, own)]
    if beside:
        swapped = Slip("difference for sum", 6, abs(big - small),
                       f"You took away: beside a circle the centre is at R + r = {say(right)}")  # fmt: skip
    else:
        swapped = Slip("sum for difference", 6, big + small,
                       f"You added: an arc that goes around has its centre at R − r = {say(right)}")  # fmt: skip
    sign = 1 if beside else -1
    slips = [
        swapped, Slip("eye forgotten", 4, big, f"{say(big)} is the arc alone; the circle's {say(small)} belongs to it"),
        Slip("eye's diameter", 3, abs(big + sign * 2 * small), f"Ø{say(2 * small)} goes in by half"),
    ]  # fmt: skip
    slips += [Slip("the other eye", 4, abs(big + sign * drawn(other)), f"{say(drawn(other))} is the other circle's")
              for other in others]  # fmt: skip
    if r * 2 > radius * 1.9 and not beside:
        slips = [slip for slip in slips if slip.answer]
    round_ = next((name for name, c in at.about(act.planned.centre) if c is found[0]), "")
    owner = at.work.solution.figure.items.get(round_.partition(".")[0])
    about = f" {round_} has a radius of {spell(at.exact(r), at.work.solution.unit)}." if owner is not None else ""
    what = f"{about.strip()} {step.text}: what is the compass set to?".strip()
    yield from _length(at, step, "locus", slips, right, made.working, what)
    words = {"sum": f"the sum, {say(big)} + {say(small)}", "difference": f"the difference, {say(big)} − {say(small)}",
             "arc": f"the radius of the arc alone, {say(big)}"}  # fmt: skip
    correct = "sum" if beside else "difference"
    wrong = {"sum": "sum for difference", "difference": "difference for sum", "arc": "eye forgotten"}
    yield Question(
        f"method:{step.line}:{step.number}", "locus",
        f"{at.sentence(step.line)}{about} {step.text}: which opening finds the centre?", "choice", step.line,
        words[correct], step.number, choices=tuple(words.values()),
        slips=tuple(Slip(wrong[key], 6 if key != "arc" else 4, words[key], _SAID[correct]) for key in words
                    if key != correct), working=made.working,
        hints=("Think of the arc drawn: does it wrap the circle, or pass by its side?",),
    )  # fmt: skip


_SAID = {
    "sum": "Beside a circle the centre is away by both radii",
    "difference": "An arc that goes around has its centre nearer: its radius less that of the circle",
}


def _touches(circle: Circle, arc: Circle | Arc) -> bool:
    apart = abs(circle.centre - arc.centre)
    gaps = (abs(apart - circle.radius - arc.radius), abs(apart - abs(circle.radius - arc.radius)))
    return min(gaps) <= worked(circle.radius + arc.radius)


def _measure(at: Context, step: BoardStep, act: Measure) -> Iterator[Question]:
    """Ask what is measured off: the whole or half of it, to the middle and not to the edge."""
    entry = at.entry(step.line)
    # Only what the brief itself places: what a kind measures off on the way cannot be known from it.
    if entry is None or entry.made is None or step.setting is None or not isinstance(entry.made.shape, Point):
        return
    right, say = at.rule.drawn(abs(float(act.size))), at.rule.say
    own: list[Slip] = []
    halved = any("/2" in each or "÷ 2" in each for each in entry.made.working)
    if halved:
        own.append(Slip("not halved", 6, 2 * right, f"{say(2 * right)} is the whole; half goes each side"))
    for name, circle in at.about(act.planned):
        r = at.rule.drawn(circle.radius)
        for sign in (1, -1):
            told = f"That goes to the edge of {name}; the needle wants the middle"
            own.append(Slip("to the edge", 3, right + sign * r, told))
    if own or at.work.sheet.scale.ratio != 1:
        what = f"{step.text}: what is measured off on the rule?"
        yield from _length(at, step, "place", own, right, entry.made.working, what)


def _step_off(at: Context, step: BoardStep) -> Iterator[Question]:
    """Ask for the chord of equal parts."""
    entry = at.entry(step.line)
    if entry is None or entry.made is None or step.setting is None:
        return
    spots = [shape for shape in entry.made.shapes if isinstance(shape, Point)]
    count = len(spots)
    if count < 3:
        return
    middle = Point(sum(p.x for p in spots) / count, sum(p.y for p in spots) / count)
    radius = abs(spots[0] - middle)
    right = at.rule.drawn(step.setting.actual)
    if abs(at.rule.drawn(chord(radius, count)) - right) > at.rule.near:
        return
    wide, say = at.rule.drawn(radius), at.rule.say
    own = [
        Slip("one part out", 4, chord(wide, count + 1), f"{count} marks make {count} gaps"),
        Slip("one part out", 4, chord(wide, count - 1), f"{count} marks make {count} gaps"),
        Slip("arc for chord", 4, math.tau * wide / count, f"Dividers span the chord: {say(right)}"),
        Slip("radius stepped", 2, wide, "The radius steps off six only"),
        Slip("half chord", 2, right / 2, "Half of 360/n, and then twice R times its sine"),
        Slip("double angle", 2, chord(wide, count / 2), "Half of 360/n, and then twice R times its sine"),
    ]  # fmt: skip
    yield from _length(at, step, "parts", own, right, entry.made.working, f"{step.text}: what are the dividers set to?")


def _equal_parts(at: Context, _: Random) -> Iterator[Question]:
    """Ask how far apart equal parts lie."""
    for entry in at.work.solution.entries:
        made = entry.made
        if made is None or entry.statement.kind not in ("spaced", "polygon"):
            continue
        count = sum(isinstance(shape, Point) for shape in made.shapes) or len(made.shapes)
        if entry.statement.kind == "polygon":
            count = sum(key.isdigit() for key in made.parts) or count
        if count < 3:
            continue
        right = 360 / count
        own = [
            Slip("one part out", 4, 360 / (count + 1), f"{count} parts make {count} gaps, not {count + 1}"),
            Slip("one part out", 4, 360 / (count - 1), f"{count} parts make {count} gaps, not {count - 1}"),
        ]
        slips = angles(right, own)
        asks = f"{made.sentence} How many degrees lie from one to the next, seen from the middle?"
        yield Question(f"apart:{entry.line}", "parts", asks, "angle", entry.line, right, 0, "°", ANGLES_NEAR,
                       slips=slips, working=(f"360 ÷ {count} = {spell_angle(right)}",),
                       hints=("All the way round is 360°",))  # fmt: skip


def _reading(at: Context, random: Random) -> Iterator[Question]:
    """Ask at which graduation a size is read, and on which side of it it lies."""
    kit = at.work.kit
    for step in at.work.steps:
        setting = step.setting
        act = step.source.act if step.source else None
        if setting is None or setting.is_angle or setting.error == 0 or isinstance(act, GoOver):
            continue
        if isinstance(act, Swing | StepOff) and act.setting.free:
            continue
        own = read_on_rule(setting.drawn, kit.graduation, kit.unit)
        grid = float(kit.graduation)
        # The other side of the same graduation, and the graduations before and after it.
        below, over = own.text.removeprefix("just over ").removeprefix("just under "), setting.error < 0
        other = f"just {'under' if over else 'over'} {below}"
        beside = [read_on_rule(own.value + sign * kit.graduation, kit.graduation, kit.unit).text for sign in (1, -1)]
        right = own.text
        words = [right, other, *(f"just {'over' if over else 'under'} {text}" for text in beside)]
        if len(set(words)) != len(words):
            continue
        slips = [Slip("wrong side", 4, other, "It lies on the other side of that graduation")]
        slips += [Slip("neighbouring graduation", 4, text, "Another graduation is nearer") for text in words[2:]]
        shuffled = list(words)
        random.shuffle(shuffled)
        asks = f"{step.text}: {setting.drawn:.4f} {kit.unit.value} on the sheet, and a rule graduated in " \
               f"{kit.graduation} {kit.unit.value}. What is set?"  # fmt: skip
        yield Question(f"reading:{step.line}:{step.number}", "reading", asks, "choice", step.line, right,
                       step.number, choices=tuple(shuffled), slips=tuple(slips),
                       hints=("Count graduations: which whole one is nearest?",),
                       working=(f"{setting.drawn:.4f} ÷ {kit.graduation} = {setting.drawn / grid:.3f} graduations",
                                setting.rounding))  # fmt: skip


def _crossing(at: Context, random: Random) -> Iterator[Question]:
    """Ask which of two crossings of swings is the centre."""
    things = {}
    for step in at.work.steps:
        act = step.source.act if step.source else None
        if isinstance(act, Swing):
            things[act.leaves] = act.planned
        if not isinstance(act, Prick) or act.pick not in ("left", "right"):
            continue
        first, second = things.get(act.first), things.get(act.second)
        entry = at.entry(step.line)
        made = entry.made if entry else None
        if first is None or second is None or made is None or not isinstance(made.shape, Arc | Circle):
            continue
        if abs(act.planned - made.shape.centre) > worked(made.shape.radius + abs(act.planned)):
            continue
        ahead = (second.centre - first.centre).unit
        away = ahead.normal * (act.planned - first.centre).dot(ahead.normal)
        if abs(away) * at.work.sheet.factor < 4:
            continue
        words = ("the upper one", "the lower one") if abs(away.y) >= abs(away.x) else ("the right one", "the left one")
        up = away.y > 0 if abs(away.y) >= abs(away.x) else away.x > 0
        right, wrong = words if up else words[::-1]
        asks = f"{at.sentence(step.line)} The two swings cross twice. Which crossing is {act.called or 'the centre'}?"
        said = "The arc would bulge the other way: a centre lies on the hollow side of its arc"
        yield Question(f"crossing:{step.line}:{step.number}", "crossing", asks, "choice", step.line, right,
                       step.number, choices=tuple(sorted(words)),
                       slips=(Slip("the other crossing", 6, wrong, said),), working=(step.text,),
                       hints=("Where does the arc lie? Its centre is on its hollow side",))  # fmt: skip


def _stations(at: Context, _: Random) -> Iterator[Question]:
    """Ask which way a cam's stations run."""
    for entry in at.work.solution.entries:
        made = entry.made
        if made is None or made.worksheet is None or entry.statement.kind != "cam":
            continue
        against = next((row for row in made.working if "stations run" in row), "")
        turned = "counter-clockwise" in made.sentence
        right = "clockwise" if turned else "counter-clockwise"
        wrong = "counter-clockwise" if turned else "clockwise"
        yield Question(f"stations:{entry.line}", "stations", f"{made.sentence} Which way are the stations numbered?",
                       "choice", entry.line, right, choices=("clockwise", "counter-clockwise"),
                       slips=(Slip("with the rotation", 6, wrong, "Stations run against the turning"),),
                       working=(against,),
                       hints=("Think of the follower going round the cam that stands still",))  # fmt: skip


def _openings(at: Context, random: Random) -> Iterator[Question]:
    """Ask what the compass is opened to for a station of a cam."""
    for entry in at.work.solution.entries:
        made = entry.made
        if made is None or made.worksheet is None:
            continue
        table = next((t for t in made.worksheet(0.0).tables if t.title == "Stations"), None)
        where = [n for n, column in enumerate(table.columns) if column.name.startswith("opening")] if table else []
        if table is None or not where:
            continue
        rows = [(str(row[0]), float(row[2]), float(row[where[0]])) for row in table.rows
                if isinstance(row[2], float | int) and isinstance(row[where[0]], float | int)]  # fmt: skip
        lifted = [n for n in range(1, len(rows) - 1) if rows[n][1] > 0]
        greatest = max((lift for _, lift, _ in rows), default=0.0)
        for n in sorted(random.sample(lifted, k=min(2, len(lifted)))):
            name, lift, opening = rows[n]
            right, drawn = at.rule.drawn(opening), at.rule.drawn
            own = [
                Slip("with the rotation", 6, drawn(rows[-1 - n][2]), "Stations run against the turning"),
                Slip("least distance forgotten", 5, drawn(lift), "Lift starts at the least distance"),
                Slip("station out", 4, drawn(rows[n - 1][2]), "Count the stations from 0"),
                Slip("station out", 4, drawn(rows[n + 1][2]), "Count the stations from 0"),
                Slip("lift upside down", 4, drawn(rows[0][2] + greatest - lift), "Measure from the base line"),
            ]
            slips = at.rule.lengths(right, own)
            if not {slip.key for slip in own} & {slip.key for slip in slips}:
                continue
            asks = f"{made.sentence} The sheet is at {at.work.sheet.scale}. What is the compass opened to from the " \
                   f"centre, {table.columns[where[0]].name.removeprefix('opening ')}, for station {name}?"  # fmt: skip
            yield Question(f"opening:{entry.line}:{name}", "stations", asks, "length", entry.line, right, 0,
                           at.work.kit.unit.value, at.rule.near, slips=slips, working=made.working,
                           hints=(f"{_RULE_HINTS['stations']}.", f"The lift there is {at.rule.say(drawn(lift))}"),
                           setting="compass")  # fmt: skip


def _wheels(at: Context, _: Random) -> Iterator[Question]:
    """Ask for the circles of a toothed wheel, by their diameters at full size."""
    unit, near = at.work.solution.unit.value, float(at.work.kit.graduation) / 2
    for entry in at.work.solution.entries:
        parts = entry.made.parts if entry.made else {}
        rounds = {key: parts.get(key) for key in ("pitch", "outside", "root", "base")}
        if entry.made is None or not all(isinstance(c, Circle | Arc) for c in rounds.values()):
            continue
        pitch, outside, root, base = (2 * c.radius for c in rounds.values() if isinstance(c, Circle | Arc))
        if not root < pitch < outside:
            continue
        up, down = (outside - pitch) / 2, (pitch - root) / 2
        sine = math.sqrt(max(0.0, 1 - (base / pitch) ** 2))
        asked = {
            "outside": (outside, (("addendum once", 6, pitch + up, "The addendum goes on both sides"),
                                  ("dedendum for addendum", 4, pitch + 2 * down, "Outside takes the addendum"))),
            "root": (root, (("addendum once", 6, pitch - down, "The dedendum comes off on both sides"),
                            ("addendum for dedendum", 4, pitch - 2 * up, "The root takes the dedendum"))),
            "base": (base, (("sine for cosine", 3, pitch * sine, "The base circle is D cos φ"),
                            ("divided by the cosine", 3, pitch * pitch / base, "The base circle is D cos φ"))),
        }  # fmt: skip
        for name, (right, said) in asked.items():
            own = [Slip(*each) for each in said]
            own.append(Slip("pitch circle for another", 4, pitch, "That is the circle the teeth are spaced on"))
            slips = tuple(s for s in own if abs(float(s.answer) - right) > 4 * near)
            brief = entry.made.sentence.partition(", flanks")[0]
            told = f"{brief}. What is the diameter of its {name} circle, at full size?"
            yield Question(f"wheel:{entry.line}:{name}", "wheel", told, "length", entry.line, right, 0, unit, near,
                           slips=tuple(sorted(slips, key=lambda slip: -slip.weight)), working=entry.made.working,
                           hints=("Begin with the pitch circle",))  # fmt: skip


def _full_size(
    at: Context, entry: Entry, rule: str, asks: str, right: float, own: Sequence[Slip], hint: str
) -> Iterator[Question]:
    """Yield a question for a size worked out at full size, unless its point is lost."""
    near = float(at.work.kit.graduation) / 2
    slips = [slip for slip in own if float(slip.answer) > 0 and abs(float(slip.answer) - right) > 4 * near]
    if slips and entry.made is not None:
        yield Question(
            f"{rule}:{entry.line}", rule, f"{entry.made.sentence} {asks}, at full size?", "length", entry.line, right,
            0, at.work.solution.unit.value, near, slips=tuple(sorted(slips, key=lambda slip: -slip.weight)),
            working=entry.made.working, hints=(hint,),
        )  # fmt: skip


def _threads(at: Context, _: Random) -> Iterator[Question]:
    """Ask for the minor diameter of a thread in section."""
    for entry in at.work.solution.entries:
        parts = entry.made.parts if entry.made else {}
        sides = [parts.get(key) for key in ("major.1", "major.2", "minor.1", "minor.2")]
        lines = [line for line in sides if isinstance(line, Straight)]
        if len(lines) < 4:
            continue
        major, minor = (abs(lines[k].offset_of(lines[k + 1].through)) for k in (0, 2))
        pitch = (major - minor) / 1.0825
        own = [
            Slip("drill for minor", 5, major - pitch, "That is the tapping drill; the minor diameter is D − 1.0825 P"),
            Slip("thread depth miscounted", 4, major - 0.54 * pitch, "Once on each side"),
            Slip("thread depth miscounted", 4, major - 2 * pitch, "The pitch is not the depth"),
        ]
        yield from _full_size(at, entry, "thread", "What is its minor diameter", minor, own, "D − 1.0825 × P")


def _keyways(at: Context, _: Random) -> Iterator[Question]:
    """Ask how far from the centre the floor of a keyway lies."""
    for entry in at.work.solution.entries:
        parts = entry.made.parts if entry.made else {}
        floor, start = parts.get("floor"), parts.get("start")
        if not isinstance(floor, Straight) or not isinstance(start, Point):
            continue
        round_ = next((c for _, c in at.circles if abs(abs(start - c.centre) - c.radius) <= worked(c.radius)), None)
        if round_ is None:
            continue
        far, r = abs(floor.offset_of(round_.centre)), round_.radius
        if far <= r:
            continue
        own = [
            Slip("depth from the wrong side", 3, r - (far - r), "The floor lies beyond the circle, not inside it"),
            Slip("depth alone", 3, far - r, "Its depth is counted from the circle"),
            Slip("diameter for radius", 6, r + far, "Half of the bore counts, from its centre"),
        ]
        asks = "How far from the centre of the bore does its floor lie"
        yield from _full_size(at, entry, "keyway", asks, far, own, "The radius, and then the depth")


def _flats(at: Context, _: Random) -> Iterator[Question]:
    """Ask for a polygon's size across corners, where it is given across flats."""
    for entry in at.work.solution.entries:
        made = entry.made
        corners = [shape for key, shape in (made.parts.items() if made else ()) if key.startswith("corner.")]
        spots = [corner for corner in corners if isinstance(corner, Point)]
        if made is None or "across flats" not in made.sentence or len(spots) < 4 or len(spots) % 2:
            continue
        middle = Point(sum(p.x for p in spots) / len(spots), sum(p.y for p in spots) / len(spots))
        right = 2 * abs(spots[0] - middle)
        flats = right * math.cos(math.pi / len(spots))
        own = [
            Slip("flats for corners", 5, flats, "Across corners is the flats over the cosine of 180/n"),
            Slip("times the cosine", 3, flats * flats / right, "Divided by the cosine: corners lie further apart"),
            Slip("radius for diameter", 4, right / 2, "That is from the middle to a corner"),
        ]
        yield from _full_size(at, entry, "flats", "What is it across corners", right, own, "Corners lie further apart")


def _chain(at: Context, _: Random) -> Iterator[Question]:
    """Ask for a link of a chain from the others."""
    solution = at.work.solution
    for entry in solution.givens:
        chain = entry.given
        if not isinstance(chain, Chain) or entry.quantity is None or len(chain.links) < 2:
            continue
        values = [solution.quantities.get(f"{chain.name}.{n}") for n in range(1, len(chain.links) + 1)]
        if any(value is None for value in values):
            continue
        sizes = [float(value.value) for value in values if value is not None]
        missing = next((n for n, link in enumerate(chain.links) if link is None), 0)
        unit, whole, right = solution.unit.value, sum(sizes), sizes[missing]
        shown = " ".join("?" if n == missing else f"{size:g}" for n, size in enumerate(sizes))
        own = [Slip("link left out", 4, right + size, f"The links add to {whole - right:g}; {size:g} is missing in it")
               for n, size in enumerate(sizes) if n != missing]  # fmt: skip
        own.append(Slip("overall for the link", 3, whole, f"{whole:g} is the overall size"))
        near = float(at.work.kit.graduation) / 2
        slips = tuple(slip for slip in own if abs(float(slip.answer) - right) > 4 * near)
        asks = f"Chain {chain.name}: {shown}, overall {whole:g}. How long is the missing link, at full size?"
        yield Question(f"chain:{entry.line}", "chain", asks, "length", entry.line, right, 0, unit, near, slips=slips,
                       working=(f"{whole:g} − {whole - right:g} = {right:g}",),
                       hints=("All the links together are the overall size",))  # fmt: skip


def _next(at: Context, random: Random) -> Iterator[Question]:
    """Ask which piece follows when an outline is gone over."""
    for entry in at.work.solution.entries:
        made = entry.made
        if made is None or made.lined is None:
            continue
        for loop in made.gone_over:
            names = list(dict.fromkeys(piece.curve_of or piece.name for piece in getattr(loop, "pieces", ())))
            if not 3 <= len(names) <= 40 or len(set(names)) != len(names):
                continue
            where = random.randrange(len(names) - 1)
            before, here, right = names[where - 1], names[where], names[where + 1]
            rest = [name for name in names if name not in (here, right)]
            others = [before, *random.sample([n for n in rest if n != before], k=min(2, len(rest) - 1))]
            choices = [right, *dict.fromkeys(others)]
            random.shuffle(choices)
            asks = f"Going over {entry.statement.name} you have come along {before} and then {here}. What comes next?"
            slips = (Slip("back the way one came", 4, before, f"{before} is where you came from"),)
            yield Question(f"next:{entry.line}", "next", asks, "choice", entry.line, right, 0, choices=tuple(choices),
                           slips=slips, working=(" > ".join(names),),
                           hints=(f"Look where {here} ends",))  # fmt: skip
            break


def _order(at: Context, random: Random) -> Iterator[Question]:
    """Ask in which order five steps are done that stand on each other."""
    # What finishes a sheet stands on nothing in particular.
    steps = [s for s in at.work.steps if s.source and s.source.act and not isinstance(s.source.act, Finish)]
    acts = [step.source.act for step in steps if step.source and step.source.act]
    if len(acts) < FEWEST_STEPS:
        return
    waits = waits_for(acts)
    starts = [s for s in range(len(acts) - FEWEST_STEPS + 1)
              if sum(bool(waits[s + k] & set(range(s, s + k))) for k in range(FEWEST_STEPS)) >= FEWEST_STEPS - 2
              and len({steps[s + k].text for k in range(FEWEST_STEPS)}) == FEWEST_STEPS]  # fmt: skip
    for start in sorted(random.sample(starts, k=min(2, len(starts)))):
        own = steps[start : start + FEWEST_STEPS]
        texts = tuple(step.text for step in own)
        # They are shown in an order by lot: which stands on which is said by where they stand then.
        shown = list(range(FEWEST_STEPS))
        random.shuffle(shown)
        needs = tuple(
            tuple(sorted(shown.index(w - start) for w in waits[start + k] if start <= w < start + FEWEST_STEPS))
            for k in shown
        )
        yield Question(f"order:{own[0].line}:{own[0].number}", "order", "In which order are these five steps done?",
                       "order", own[0].line, texts, own[0].number,
                       choices=tuple(texts[k] for k in shown), waits=needs,
                       working=texts, hints=("What does each of them stand on?",))  # fmt: skip


PLANTED: tuple[tuple[str, str, str], ...] = (
    ("diameter ", "radius ", "diameter for radius"), ("radius ", "diameter ", "radius for diameter"),
    ("around ", "beside ", "sum for difference"), ("beside ", "around ", "difference for sum"),
    ("above", "below", "the other crossing"), ("below", "above", "the other crossing"),
    ("left", "right", "the other crossing"), ("right", "left", "the other crossing"),
)  # fmt: skip
"""What is said instead in a statement to plant a slip in a drawing."""

MOVED = 2.0
"""A planted slip moves something by at least so much, mm on paper."""

TRIED = 10
"""Slips that are tried in a plan until one shows."""


def _planted(at: Context, random: Random) -> Iterator[Question]:
    """Show the drawing with one mistake in it, and ask which statement was drawn wrong."""
    plan, solution = at.work.plan, at.work.solution
    drawn = [e for e in solution.entries if e.made and any(isinstance(s, Circle | Arc) for s in e.made.shapes)]
    if len(drawn) < 3:
        return
    tries = list(_swaps(plan, drawn, [entry.given.name for entry in solution.givens]))
    random.shuffle(tries)
    for entry, row, key in tries[:TRIED]:
        wrong = _solved_otherwise(plan, entry.line, row)
        if wrong is None or not _shows(at, wrong, entry):
            continue
        names = [e.statement.name for e in drawn if e is not entry]
        choices = [entry.statement.name, *random.sample(names, k=min(CHOICES - 1, len(names)))]
        random.shuffle(choices)
        told = f"{entry.statement.name} was drawn wrong: {key}"
        yield Question(f"planted:{entry.line}", "planted", "One thing in this drawing stands wrong. Which?", "choice",
                       entry.line, entry.statement.name, 0, choices=tuple(choices), shows=wrong,
                       working=(told, *(entry.made.working if entry.made else ())),
                       hints=("Hold every size of the brief against the drawing",))  # fmt: skip
        return


def _swaps(plan: Plan, drawn: Sequence[Entry], givens: Sequence[str]) -> Iterator[tuple[Entry, str, str]]:
    """Yield statements with one word, or one given, said for another: what the row says then, and which slip it is."""
    for entry in drawn:
        row = write_line(plan.lines[entry.line - 1])
        head, eq, clauses = row.partition(" = ")
        if not eq:
            continue
        for said, instead, key in PLANTED:
            if said in clauses:
                yield entry, head + eq + clauses.replace(said, instead, 1), key
        words = clauses.replace(",", " ,").split(" ")
        for n, word in enumerate(words):
            if word in givens:
                for other in givens:
                    if other != word:
                        changed = " ".join([*words[:n], other, *words[n + 1 :]]).replace(" ,", ",")
                        yield entry, head + eq + changed, "a neighbour's size"


def _solved_otherwise(plan: Plan, line: int, row: str) -> str | None:
    """Return a plan with another statement where it solves all the same."""
    try:
        text = write_plan(set_line(plan, line, row))
    except (ClauseError, ValueError):
        return None
    return text if not work_out(text).solution.errors else None


def _shows(at: Context, wrong: str, entry: Entry) -> bool:
    """Tell whether a planted slip is to be seen on the sheet, and the sheet still holds it."""
    other = work_out(wrong)
    found = other.solution.entry(entry.line)
    if found is None or found.made is None or entry.made is None or other.sheet.errors:
        return False
    before, after = (next(s for s in e.made.shapes if isinstance(s, Circle | Arc)) for e in (entry, found) if e.made)
    moved = abs(before.centre - after.centre) + abs(before.radius - after.radius)
    return moved * at.work.sheet.factor >= MOVED


def _candidate(at: Context, random: Random) -> Iterator[Question]:
    """Show every solution of a statement whose words choose one, and ask for the letter of the one meant."""
    for entry in at.work.solution.entries:
        made = entry.made
        if made is None or not 2 <= len(made.candidates) <= 6:
            continue
        chosen = next((c for c in made.candidates if c.chosen), None)
        if chosen is None:
            continue
        # The words that choose are taken out of what is shown, so that the sheet letters every solution alike.
        words = kinds()[entry.statement.kind].choosing_words
        open_plan = choose_candidate(at.work.plan, entry.line, (), words)
        shown = work_out(write_plan(open_plan)).solution.entry(entry.line)
        found = next((c for c in (shown.candidates if shown else ()) if c.shape == chosen.shape), None)
        if shown is None or found is None:
            continue
        letters = tuple(c.letter for c in shown.candidates)
        asks = f"{made.sentence} {len(letters)} solutions fit, lettered on the sheet. Which one do the words choose?"
        yield Question(f"candidate:{entry.line}", "candidate", asks, "choice", entry.line, found.letter, 0,
                       choices=letters, working=(f"{found.letter}: {chosen.about}",), shows=write_plan(open_plan),
                       hints=("Read the words behind the radius once more",))  # fmt: skip


_PLAIN: tuple[Callable[[Context, Random], Iterator[Question]], ...] = (
    _set, _equal_parts, _crossing, _stations, _wheels, _threads, _keyways, _flats, _chain, _candidate,
)  # fmt: skip
_BY_LOT: tuple[Callable[[Context, Random], Iterator[Question]], ...] = (_reading, _openings, _next, _order, _planted)
