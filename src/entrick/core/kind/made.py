"""What a construction gives: shapes, words, how it is drawn, notes for the sheet."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from typing import Literal

from ..acts import Work
from ..drawing.notes import Note
from ..drawing.strokes import Role
from ..geometry import Loop, Shape
from ..measure import Number
from ..memo import Distinct
from ..worksheets import Remark, Worksheet
from .choosing import Candidate
from .claims import Claim
from .figure import Family


@dataclass(frozen=True, slots=True)
class Measured:
    """A length measured in from one side of the sheet, plan units on paper: from its border, or the
    paper's edge."""

    length: Number
    side: Literal["left", "right", "top", "bottom"]
    edge: bool = False


@dataclass(frozen=True, slots=True)
class Placing:
    """Where the datum stands on the sheet: measured in from its sides, or in the middle where None.

    `corner` gives the lower left corner of the view instead, from the borders.
    """

    across: Measured | None = None
    up: Measured | None = None
    corner: tuple[Number, Number] | None = None


@dataclass(frozen=True, slots=True)
class Made(Distinct):
    """What a statement makes.

    Attributes
    ----------
    shape : Point, Line, Circle, Arc, Loop or Family
    sentence : str
        The entry in the order of work, values put in.
    working : tuple of str
        Formula, numbers put in, result: as the drafter would write it.
    draw : callable or None
        Puts down how it is drawn, act by act; its shapes are drawn from what stands there where
        nothing is said.
    parts : mapping of str to Shape or Loop
    centre_name : str
    candidates : tuple of Candidate
        All solutions when there were several.
    placing : Placing or None
        For a datum: where it stands on the sheet.
    lined : Role or None
        What a run of pieces is gone over as; None while it is construction.
    standing : frozenset of int
        Which members of a family were there, and gone over, before.
    notes : tuple of Note
        What is drawn in paper sizes whatever the scale: dimensions, hatching, centre lines, labels.
    nothing : bool
        Whether it adds nothing that could be referred to: `shape` is then of no account.
    cut : bool
        Whether an outline is that of cut material, which is hatched.
    claims : tuple of Claim
        What is said of the finished part, for the proof.
    departs : float or None
        By how much what is drawn departs most from the true curve, plan units; None where it is the
        true one.
    remarks : callable
        Tells what is wrong, or worth a look, with what was made: for the proof, which alone asks.
    worksheet : callable or None
        Its diagram and tables, turned through an angle in degrees.
    """

    shape: Shape | Loop | Family
    sentence: str
    working: tuple[str, ...] = ()
    parts: Mapping[str, Shape | Loop] = field(default_factory=dict)
    centre_name: str = ""
    candidates: tuple[Candidate, ...] = ()
    placing: Placing | None = None
    lined: Role | None = None
    standing: frozenset[int] = frozenset()
    notes: tuple[Note, ...] = ()
    nothing: bool = False
    cut: bool = False
    claims: tuple[Claim, ...] = ()
    departs: float | None = None
    remarks: Callable[[], Iterable[Remark]] = tuple
    worksheet: Callable[[float], Worksheet] | None = None
    draw: Callable[[Work], None] | None = None

    @property
    def shapes(self) -> tuple[Shape | Loop, ...]:
        """What was made, the members of a family one by one."""
        if self.nothing:
            return ()
        return self.shape.members if isinstance(self.shape, Family) else (self.shape,)

    @property
    def loops(self) -> tuple[Loop, ...]:
        """The outlines among it."""
        return (
            tuple(s for s in self.gone_over if isinstance(s, Loop))
            if self.lined is Role.OUTLINE
            else ()
        )

    @property
    def gone_over(self) -> tuple[Shape | Loop, ...]:
        """What this statement itself goes over."""
        return (
            tuple(s for i, s in enumerate(self.shapes) if i not in self.standing)
            if self.lined
            else ()
        )
