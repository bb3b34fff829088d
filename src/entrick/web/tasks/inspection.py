"""The inspection of a plan."""

from __future__ import annotations

from ...core.desk import work_out
from ..answer import Answer
from ..present import inspection as present
from ..schemas.crossing import PlanIn
from .answers import as_json


def proof(body: PlanIn) -> Answer:
    """Inspect a plan: findings, junctions and measures."""
    return as_json(present.proof(work_out(body.text)))
