"""The whole desk in one call: a plan's text in, everything a person sees out."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import chain
from typing import TypeVar

from . import fault
from .board.around import completion, preparation, told
from .board.kit import Kit, default_kit
from .board.schedule import Schedule
from .board.steps import BoardStep, steps_by_statement
from .display import DisplayList, Drawing, build_display
from .geometry import Loop
from .memo import Distinct, remembered
from .plan.document import Plan
from .plan.errors import PlanError
from .plan.reader import read_plan
from .proof import Checked, Finding, findings, found_by, rules, sorted_findings
from .sheet import Sheet, lay_out
from .solve import Solution, solve

T = TypeVar("T")


@dataclass(frozen=True)
class Work(Distinct):
    """A plan worked out. It is proved when the findings are first asked for."""

    plan: Plan
    solution: Solution
    kit: Kit
    sheet: Sheet
    steps: tuple[BoardStep, ...]
    drawing: Drawing
    schedule: Schedule = "written"

    @cached_property
    def before(self) -> tuple[BoardStep, ...]:
        """How the sheet is made ready, step by step."""
        return told(preparation(self.sheet), self.kit, self.sheet)

    @cached_property
    def after(self) -> tuple[BoardStep, ...]:
        """How the sheet is finished when the last statement is done."""
        return told(completion(self.solution, self.sheet), self.kit, self.sheet)

    @property
    def display(self) -> DisplayList:
        """Everything on the sheet, in its place on paper."""
        return self.drawing.display

    @property
    def outlines(self) -> tuple[Loop, ...]:
        """What is lined in as outline of the part, closed or not."""
        return tuple(loop for _, _, loop in self.checked.part)

    @cached_property
    def named_outlines(self) -> tuple[tuple[str, Loop], ...]:
        """The same, each with the name of its statement."""
        return tuple((name, loop) for name, _, loop in self.checked.part)

    @cached_property
    def checked(self) -> Checked:
        """The plan as the inspection looks at it."""
        return Checked(self.solution, self.sheet, self.steps, self.drawing)

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        """What the inspection found, most serious first."""
        try:
            return findings(self.checked)
        except Exception as error:
            fault.report(error, "inspecting")
        found: list[Finding] = []
        for rule in rules():
            seen, _, faults = skip_failing(
                self.solution,
                lambda solution, rule=rule: tuple(
                    found_by(rule, Checked(solution, self.sheet, self.steps, self.drawing))
                ),  # type: ignore[misc]
                f"inspecting with {rule.__module__.rpartition('.')[2]}",
            )
            found += seen or ()
            found += (Finding("look", "fault", error.message, error.line) for error in faults)
        return sorted_findings(found)


def _weigh(work: Work) -> int:
    """Count what is drawn of a plan worked out; what the inspection looks at again is some three
    times as much."""
    return 200 + len(work.plan.lines) + 4 * sum(len(layer.marks) for layer in work.drawing.layers)


@remembered(_weigh)
def work_out(text: str, kit: Kit | None = None, schedule: Schedule = "written") -> Work:
    """Work a plan out.

    Parameters
    ----------
    text : str
    kit : Kit, optional
        The default kit of the plan's unit when not given.
    schedule : str
        In which order the steps are numbered.

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

    def drawn(solved: Solution) -> tuple[Sheet, tuple[BoardStep, ...], Drawing]:
        sheet = lay_out(solved)
        steps = steps_by_statement(solved, kit, sheet, schedule)
        flat = sorted(chain.from_iterable(steps), key=lambda step: step.number)
        return sheet, tuple(flat), build_display(solved, steps, sheet)

    done, solution, _ = skip_failing(solution, drawn, "drawing")
    sheet, steps, drawing = done or drawn(replace(solution, entries=()))
    return Work(plan, solution, kit, sheet, steps, drawing, schedule)


def skip_failing(
    solution: Solution, stage: Callable[[Solution], T], doing: str
) -> tuple[T | None, Solution, tuple[PlanError, ...]]:
    """Carry out a stage of the work; where it fails, without the statements it fails on.

    Parameters
    ----------
    solution : Solution
    stage : callable
        A pure function of a solution.
    doing : str
        What the stage does, for the log.

    Returns
    -------
    result : T or None
        None where the stage fails on an empty plan even.
    solution : Solution
        In which a statement the stage fails on has an error instead of what it made.
    faults : tuple of PlanError
    """
    try:
        return stage(solution), solution, ()
    except Exception as error:
        fault.report(error, doing)
    whole = solution
    solution = replace(whole, entries=tuple(replace(entry, made=None) for entry in whole.entries))
    result: T | None = None
    faults: list[PlanError] = []
    for index, entry in enumerate(whole.entries):
        entries = list(solution.entries)
        entries[index] = entry
        more = replace(solution, entries=tuple(entries))
        try:
            result, solution = stage(more), more
        except Exception as error:
            told = fault.report(error, f"{doing} line {entry.line}, {entry.statement.kind}")
            failure = PlanError(entry.line, told)
            faults.append(failure)
            entries[index] = replace(entry, made=None, error=entry.error or failure)
            solution = replace(solution, entries=tuple(entries))
    return result, replace(solution, errors=(*solution.errors, *faults)), tuple(faults)
