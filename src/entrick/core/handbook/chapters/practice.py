"""What practice asks for, and the slips an answer may show."""

from __future__ import annotations

from collections.abc import Sequence
from functools import cache

from ...desk import work_out
from ...moves import kinds
from ...practice.ask import questions
from ...practice.question import RULES, Slip
from ..page import Chapter, Page, listed, table

ASKED_ABOUT = ("arc", "ellipse", "spaced", "cam", "gear", "keyway", "polygon", "tapped hole")
"""Kinds whose examples between them suffer every slip."""

USUAL = {6: "always with us", 3: "usual", 1: "now and then"}
"""How often slips are made, by weight (common practice, no source)."""


@cache
def _slips() -> dict[str, Slip]:
    found: dict[str, Slip] = {}
    for name in ASKED_ABOUT:
        for question in questions(work_out(kinds()[name].shown), 1):
            for slip in question.slips:
                found.setdefault(slip.key, slip)
    return dict(sorted(found.items(), key=lambda each: (-each[1].weight, each[0])))


def _told() -> str:
    rows = [
        (key, slip.said.replace("|", "/"), USUAL.get(slip.weight, ""))
        for key, slip in _slips().items()
    ]
    return table(("slip", "as it is told of one answer", "how often"), rows)


def _pages() -> Sequence[Page]:
    return [
        Page(
            "rules",
            "What practice asks",
            "the rules that are tested, each in a sentence",
            listed(RULES.values()),
        ),
        Page(
            "slips",
            "Slips",
            "what goes wrong, and how an answer or a finished sheet shows it",
            "An answer that is not right is held against every slip that gives it; a finished "
            "sheet against every act with each of its slips.",
            more=_told,
        ),
    ]


CHAPTER = Chapter("practice", "Practice and slips", _pages)
