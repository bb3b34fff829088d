"""The whole desk in one call: a plan's text in, everything a person sees out."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, lru_cache

from .board import BoardStep, Kit, board_steps, default_kit
from .display import DisplayList, build_display
from .plan.document import Plan
from .plan.reader import read_plan
from .proof import Checked, Finding, findings
from .sheet import Sheet, lay_out
from .solve import Solution, solve


@dataclass(frozen=True)
class Work:
    """A plan worked out. It is proved when the findings are first asked for."""

    plan: Plan
    solution: Solution
    kit: Kit
    sheet: Sheet
    steps: tuple[BoardStep, ...]
    display: DisplayList

    @cached_property
    def checked(self) -> Checked:
        """The plan as the inspection looks at it."""
        return Checked(self.solution, self.sheet, self.steps)

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        """What the inspection found, most serious first."""
        return findings(self.checked)


@lru_cache(maxsize=64)
def work_out(text: str, kit: Kit | None = None) -> Work:
    """Work a plan out.

    Parameters
    ----------
    text : str
    kit : Kit, optional
        The default kit of the plan's unit when not given.

    Returns
    -------
    Work

    Raises
    ------
    PlanTooLarge
        When the text is larger than a plan may be.
    """
    plan = read_plan(text)
    solution = solve(plan)
    kit = kit or default_kit(solution.unit)
    sheet = lay_out(solution)
    steps = board_steps(solution, kit, sheet)
    return Work(plan, solution, kit, sheet, steps, build_display(solution, steps, sheet))
