"""What a size looks like on the rule."""

from __future__ import annotations

from collections.abc import Iterator
from random import Random

from ...acts.act import GoOver, StepOff, Swing
from ...measure import read_on_rule
from ..question import Question, Slip
from .context import Context

PLACE = 11
"""Where it stands among the others; those drawn by lot come last."""


def ask(at: Context, random: Random) -> Iterator[Question]:
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
        below, over = (
            own.text.removeprefix("just over ").removeprefix("just under "),
            setting.error < 0,
        )
        other = f"just {'under' if over else 'over'} {below}"
        beside = [
            read_on_rule(own.value + sign * kit.graduation, kit.graduation, kit.unit).text
            for sign in (1, -1)
        ]
        right = own.text
        words = [right, other, *(f"just {'over' if over else 'under'} {text}" for text in beside)]
        if len(set(words)) != len(words):
            continue
        slips = [Slip("wrong side", 4, other, "It lies on the other side of that graduation")]
        slips += [
            Slip("neighbouring graduation", 4, text, "Another graduation is nearer")
            for text in words[2:]
        ]
        shuffled = list(words)
        random.shuffle(shuffled)
        asks = (
            f"{step.text}: {setting.drawn:.4f} {kit.unit.value} on the sheet, and a rule "
            "graduated in "
            f"{kit.graduation} {kit.unit.value}. What is set?"
        )
        yield Question(
            f"reading:{at.key(step)}",
            "reading",
            asks,
            "choice",
            step.line,
            right,
            step.number,
            choices=tuple(shuffled),
            slips=tuple(slips),
            hints=("Count graduations: which whole one is nearest?",),
            working=(
                f"{setting.drawn:.4f} ÷ {kit.graduation} = {setting.drawn / grid:.3f} graduations",
                setting.rounding,
            ),
        )
