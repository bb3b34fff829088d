"""What a plan works out to, line by line."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass, field
from itertools import chain, count

from ..kind import Candidate, Made
from ..kind.figure import Figure
from ..measure import Quantity, Unit
from ..memo import Distinct
from ..plan.document import Chain, Given, Plan, SheetLine, Statement
from ..plan.errors import PlanError


@dataclass(frozen=True, slots=True)
class GivenEntry:
    """A given with its value and where it is used."""

    line: int
    given: Given | Chain
    quantity: Quantity | None
    used_by: tuple[int, ...] = ()
    error: PlanError | None = None


@dataclass(frozen=True, slots=True)
class Entry(Distinct):
    """A statement with what it made, or why it could not."""

    line: int
    statement: Statement
    made: Made | None = None
    error: PlanError | None = None
    candidates: tuple[Candidate, ...] = ()


@dataclass(frozen=True)
class Solution:
    """A solved plan; `asked` says how many pieces the statement on a line asked for."""

    plan: Plan
    unit: Unit = Unit.MM
    title: str = ""
    drawing: str = ""
    sheet: SheetLine | None = None
    sheet_line: int = 0
    givens: tuple[GivenEntry, ...] = ()
    entries: tuple[Entry, ...] = ()
    figure: Figure = field(default_factory=Figure)
    errors: tuple[PlanError, ...] = ()
    quantities: Mapping[str, Quantity] = field(default_factory=dict)
    asked: Mapping[int, int] = field(default_factory=dict)

    def entry(self, line: int) -> Entry | None:
        """Return the statement on a line with what it made, or None where there is none."""
        return next((entry for entry in self.entries if entry.line == line), None)

    @property
    def taken(self) -> frozenset[str]:
        """Every name something has already, also where it could not be made."""
        stated = (entry.statement.name for entry in self.entries)
        return frozenset((*stated, *(entry.given.name for entry in self.givens), *self.quantities))

    def free_name(self, stem: str, but: Collection[str] = (), first: str = "") -> str:
        """Return a name nothing has yet: the stem, or the stem with a number.

        Parameters
        ----------
        stem : str
        but : collection of str
            Names that are about to be given.
        first : str
            What stands behind the stem of the first one: nothing, or a number.
        """
        taken = self.taken
        names = chain((f"{stem}{first}",), (f"{stem}{number}" for number in count(2)))
        return next(name for name in names if name not in taken and name not in but)


def is_projected(sheet: SheetLine | None) -> bool:
    """Tell whether the sheet line chooses the projection school for isometric work."""
    return sheet is not None and any(
        str(clause) == "isometric projection" for clause in sheet.clauses
    )
