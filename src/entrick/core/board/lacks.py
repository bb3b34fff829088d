"""What each thing a kit lacks changes in a job: which steps, and what is done instead."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from fractions import Fraction

from ..sheet import Sheet
from ..solve import Solution
from .kit import BY_EYE, Kit
from .steps import board_steps

SHOWN = 3
"""Steps that are shown for each lack."""


@dataclass(frozen=True, slots=True)
class Lack:
    """Something a kit lacks: what, how many more steps the job takes without it, and the first that are different."""

    told: str
    more: int
    instead: tuple[str, ...]


def lacks(solution: Solution, sheet: Sheet, kit: Kit) -> tuple[Lack, ...]:
    """Return what a kit lacks and what that changes; with one of each thing at a time put back."""
    return tuple(lack for lack in _lacks(solution, sheet, kit) if lack.instead)


def _lacks(solution: Solution, sheet: Sheet, kit: Kit) -> Iterator[Lack]:
    own = board_steps(solution, kit, sheet)
    for told, whole in (
        ("no set squares", None if kit.squares else replace(kit, squares=True)),
        ("no protractor", None if kit.protractor is not None else replace(kit, protractor=Fraction(1, 2))),
    ):
        if whole is None:
            continue
        without = board_steps(solution, whole, sheet)
        known = {step.text for step in without}
        fresh = [step.text for step in own if step.text not in known]
        yield Lack(told, len(own) - len(without), tuple(fresh[:SHOWN]))
    small = [f"{s.text} ({s.setting.reading})" for s in own if s.setting and s.tool == BY_EYE]
    yield Lack(f"no compass that goes below R{kit.least}", 0, tuple(small[:SHOWN]))
    beam = [f"{s.text} ({s.setting.reading})" for s in own if s.setting and s.tool == "beam compass"]
    yield Lack(f"no compass that reaches beyond R{kit.compass}: a beam compass is wanted", 0, tuple(beam[:SHOWN]))
