"""What every hand has ready: loaded once, where hands are forked from.

Much is made when it is first wanted: the parser, the kinds, how an answer is written. A hand is forked with all of it
made, so that its first answer takes no longer than its next.
"""

from __future__ import annotations

from ..demo import sample_plans
from . import tasks
from .schemas.crossing import PlanIn
from .schemas.plans import WorkIn

SAMPLE = "OY-041-bearing-bracket.entrick"
"""A plan with some of everything."""

tasks.work(WorkIn(text=sample_plans()[SAMPLE]))
tasks.proof(PlanIn(text=sample_plans()[SAMPLE]))
