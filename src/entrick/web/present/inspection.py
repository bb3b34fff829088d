"""From the core's results to what crosses the API: the inspection."""

from __future__ import annotations

from ...core.desk import Work
from ...core.proof import why_not_cut
from ...core.proof.measures import joined, measures
from ..schemas.inspection import FindingOut, JunctionOut, MeasureOut, MendOut, ProofOut
from .places import pair


def proof(done: Work) -> ProofOut:
    """Present the inspection of a plan."""
    return ProofOut(
        findings=tuple(
            FindingOut(
                weight=f.weight, rule=f.rule, message=f.message, line=f.line, place=pair(f.place),
                mend=MendOut.model_validate(f.mend) if f.mend else None,
            )
            for f in done.findings
        ),
        junctions=tuple(
            JunctionOut(
                outline=j.outline, line=j.line, first=j.first, second=j.second, turn=j.turn, how=j.how,
                place=(j.place.x, j.place.y),
            )
            for j in joined(done.checked)
        ),
        measures=tuple(MeasureOut.model_validate(each) for each in measures(done.checked)),
        cut=why_not_cut(done.findings),
    )  # fmt: skip
