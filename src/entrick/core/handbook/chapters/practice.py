"""What practice asks for, and the slips an answer may show."""

from __future__ import annotations

from collections.abc import Sequence
from functools import cache

from ...desk import work_out
from ...look.in_order import in_order
from ...look.slips import slips_of
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


def _words() -> str:
    rows = [
        (key, slip.said.replace("|", "/"), USUAL.get(slip.weight, ""))
        for key, slip in _slips().items()
    ]
    return table(("slip", "as it is told of one answer", "how often"), rows)


def _unasked() -> str:
    """Tell the slips that no question can show, and why: they are made with the hand, and seen on
    the sheet."""
    work = work_out(kinds()["arc"].shown)
    on_sheets = {slip.key: slip.said for slip in slips_of(work, in_order(work))}
    asked = _slips()
    rows = [
        (key, said.replace("|", "/")) for key, said in sorted(on_sheets.items()) if key not in asked
    ]
    return table(("slip of the hand", "as it is told of one sheet"), rows)


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
            "sheet against every act with each of its slips. Where the needle stands, and what is "
            "not drawn at all, is no answer to a question: only the sheet shows it.",
            more=lambda: f"{_words()}\n{_unasked()}",
        ),
    ]


CHAPTER = Chapter("practice", "Practice and slips", _pages)
