"""What each thing a kit lacks changes in a job: which steps, and what is done instead."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction

from ..acts.act import GoOver, Trace
from ..geometry.ellipse import oval_of
from ..sheet import Sheet
from ..solve import Solution
from .kit import BY_EYE, Kit
from .steps import BoardStep, board_steps

FAR = Fraction(1_000_000)
"""A reach beyond every sheet."""

SHOWN = 3
"""Steps that are shown for each lack."""


@dataclass(frozen=True, slots=True)
class Lack:
    """Something a kit lacks: what, how many more steps the job takes without it, and the first that
    are different."""

    told: str
    more: int
    instead: tuple[str, ...]


def lacks(solution: Solution, sheet: Sheet, kit: Kit) -> tuple[Lack, ...]:
    """Return what a kit lacks and what that changes; with one of each thing at a time put back."""
    return tuple(lack for lack in _lacks(solution, sheet, kit) if lack.instead)


def _lacks(solution: Solution, sheet: Sheet, kit: Kit) -> Iterator[Lack]:
    own = board_steps(solution, kit, sheet)
    reach = kit.beam or kit.compass
    for told, whole in (
        ("no set squares", None if kit.set_squares else replace(kit, set_squares=True)),
        ("no protractor", None if kit.has_angles else replace(kit, protractor=Fraction(1, 2))),
        ("no dividers", None if kit.dividers else replace(kit, dividers=True)),
        ("no French curves", None if kit.french_curves else replace(kit, french_curves=True)),
        (
            f"no compass that reaches beyond R{reach}",
            replace(kit, beam=FAR) if reach < FAR else None,
        ),
    ):
        if whole is None:
            continue
        without = board_steps(solution, whole, sheet)
        known = {(step.tool, step.text) for step in without}
        fresh = [f"{s.text} ({s.tool})" for s in own if (s.tool, s.text) not in known]
        yield Lack(told, len(own) - len(without), tuple(fresh[:SHOWN]))
    small = [f"{s.text} ({s.setting.reading})" for s in own if s.setting and s.tool == BY_EYE]
    yield Lack(f"no compass that goes below R{kit.least}", 0, tuple(small[:SHOWN]))
    beam = [
        f"{s.text} ({s.setting.reading})" for s in own if s.setting and s.tool == "beam compass"
    ]
    yield Lack(
        f"no plain compass that reaches beyond R{kit.compass}: by the beam compass",
        0,
        tuple(beam[:SHOWN]),
    )
    holes = tuple(_missing_holes(own, sheet, kit))
    yield Lack("no such hole in the isometric template", 0, holes[:SHOWN])
    if kit.papers and not any(paper in sheet.name for paper in kit.papers):
        yield Lack(
            f"no sheet of {sheet.name}", 0, ("choose another paper or scale on the Sheet page",)
        )
    if len(kit.pencils) < 2:
        lined = [s.text for s in own if s.source and isinstance(s.source.act, GoOver)]
        yield Lack(
            "only one width of pencil: outlines are gone over until they stand out",
            0,
            tuple(lined[:1]),
        )


def _missing_holes(steps: Sequence[BoardStep], sheet: Sheet, kit: Kit) -> Iterator[str]:
    """Yield what is drawn by a hole the isometric template does not have: it goes by the circle,
    whose ellipse is sqrt(1.5) as long (isometric drawing at full lengths)."""
    for step in steps:
        act = step.source.act if step.source else None
        if not isinstance(act, Trace) or act.tool != "isometric template":
            continue
        oval = oval_of(act.planned)
        if oval is None:
            continue
        wide = 2 * oval.a / math.sqrt(1.5) * sheet.factor / float(kit.unit.mm)
        if not any(
            abs(wide - float(hole)) <= float(kit.graduation) / 2 for hole in kit.ellipse_holes
        ):
            yield f"{step.text}: Ø{wide:.4g} {kit.unit.value} on the sheet; draw it by four centres"
