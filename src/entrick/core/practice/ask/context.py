"""What questions are made from, and those that are made alike: of a length to be set, of a size
worked out."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property

from ...board.steps import BoardStep
from ...desk import Work
from ...geometry import Circle, Point
from ...solve import Entry
from ...tolerance import worked
from ..as_given import as_given
from ..question import Question, Slip
from ..slips import OnRule


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
        return tuple(
            (name, shape)
            for name, shape in self.work.solution.figure.things()
            if isinstance(shape, Circle)
        )

    def about(self, at: Point) -> list[tuple[str, Circle]]:
        """Return the circles about a place."""
        return [
            (name, c)
            for name, c in self.circles
            if abs(c.centre - at) <= worked(abs(at) + c.radius)
        ]

    def entry(self, line: int) -> Entry | None:
        """Return the statement on a line."""
        return self.work.solution.entry(line)

    @cached_property
    def _ordinals(self) -> dict[int, str]:
        """Where each step stands among those of its statement, by its number."""
        counts: Counter[int] = Counter()
        result = {}
        for step in self.work.steps:
            counts[step.line] += 1
            result[step.number] = f"{step.line}:{counts[step.line]}"
        return result

    def key(self, step: BoardStep) -> str:
        """Return what a step goes by in keys: its line and its place in it, which other givens do
        not change."""
        return self._ordinals[step.number]

    def exact(self, size: float) -> float:
        """Return a size of the plan without the last digits of its working."""
        return round(size, 4)

    def told(self, line: int) -> str:
        """Return what a statement says, as it is given."""
        return as_given(self.work, line)


def of_length(
    at: Context,
    step: BoardStep,
    rule: str,
    own: Sequence[Slip],
    right: float,
    working: Sequence[str],
    what: str,
) -> Iterator[Question]:
    """Yield a question for a length to be set, unless its point is lost or the brief says it as it
    is."""
    slips = at.rule.lengths(right, own)
    wanted = {slip.key for slip in own}
    if own and not wanted & {slip.key for slip in slips}:
        return
    setting = step.setting
    assert setting is not None
    if not own and at.work.sheet.scale.ratio == 1:
        return
    unit = at.work.kit.unit.value
    yield Question(
        f"{rule}:{at.key(step)}",
        rule,
        f"{at.told(step.line)} The sheet is at {at.work.sheet.scale}. {what}",
        "length",
        step.line,
        right,
        step.number,
        unit,
        at.rule.near,
        slips=slips,
        hints=(_RULE_HINTS[rule],),
        working=(*working, setting.told),
        setting=step.tool if step.tool in ("compass", "beam compass", "dividers", "rule") else "",
    )


_RULE_HINTS = {
    "locus": "Is the circle inside the arc, or beside it? Its centre is that many radii away.",
    "radius": "Is a radius given, or a diameter? And the sheet has a scale.",
    "place": "From which mark, and is it the whole or half of it?",
    "parts": "Dividers span the chord from mark to mark.",
    "template": "A template goes by diameter.",
    "stations": "Which way does the cam turn, and where does the lift begin?",
}


def of_size(
    at: Context, entry: Entry, rule: str, asks: str, right: float, own: Sequence[Slip], hint: str
) -> Iterator[Question]:
    """Yield a question for a size worked out at full size, unless its point is lost."""
    near = float(at.work.kit.graduation) / 2
    slips = [
        slip
        for slip in own
        if float(slip.answer) > 0 and abs(float(slip.answer) - right) > 4 * near
    ]
    if slips and entry.made is not None:
        yield Question(
            f"{rule}:{entry.line}",
            rule,
            f"{at.told(entry.line)} {asks}, at full size?",
            "length",
            entry.line,
            right,
            0,
            at.work.solution.unit.value,
            near,
            slips=tuple(sorted(slips, key=lambda slip: -slip.weight)),
            working=entry.made.working,
            hints=(hint,),
        )
