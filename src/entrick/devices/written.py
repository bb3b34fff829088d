"""A cutter's program on its way out: written, cut on the stand-in, and held against the plan before
anybody is given it."""

from __future__ import annotations

from dataclasses import dataclass

from ..core.cutting import tool_paths, write_program
from ..core.desk import Work
from ..core.plan.errors import ClauseError
from ..core.proof import why_not_cut
from .cutter import run
from .judge import Judged, judged


@dataclass(frozen=True, slots=True)
class Written:
    """A program, and how the part comes out that it cuts."""

    program: str
    verdict: Judged


def written(work: Work, tool: float, feed: float) -> Written:
    """Write the program of a plan.

    Parameters
    ----------
    work : Work
    tool : float
        Width of the cut, plan units.
    feed : float
        Plan units a minute.

    Raises
    ------
    ClauseError
        Where the plan is not to be cut as it is, the tool does not get in, or it would cut into
        what belongs to a part; what it leaves standing is told in the head of the program.
    """
    reason = why_not_cut(work.findings)
    if reason:
        raise ClauseError(reason)
    solution = work.solution
    cuts = tool_paths(work.named_outlines, tool)
    title, mm = f"{solution.drawing} {solution.title}", float(solution.unit.mm)
    program = write_program(cuts, solution.unit, tool, feed, title)
    verdict = judged(run(program).moves, work.outlines, mm, tool * mm)
    if not verdict.fits:
        raise ClauseError(f"a tool of {tool:.4g} does not fit: {'; '.join(verdict.told)}")
    remarks = [f"{len(cuts)} outlines, {verdict.parts} parts", *verdict.remarks]
    program = write_program(cuts, solution.unit, tool, feed, title, remarks)
    return Written(program, verdict)
