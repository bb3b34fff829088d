"""A page for each rule of inspection, from what its module says of itself."""

from __future__ import annotations

import inspect
from collections.abc import Sequence
from sys import modules

from ...proof import rule_keys, rules
from ..page import Chapter, Page, sections

WEIGHTS = """\
Every plan is inspected as it is written, and whatever is found is told with the place it stands
at: *wrong* must be put right before it goes out, *look again* is sound but seldom meant, *note* is
worth knowing, *in order* has been looked at and holds. Nothing is told of a plan that is not so of
it."""


def _pages() -> Sequence[Page]:
    first = Page("inspection", "How a plan is inspected", "what the four weights mean", WEIGHTS)
    return [first, *(_page(key) for key in rule_keys())]


def _page(key: str) -> Page:
    rule = rules()[rule_keys().index(key)]
    question, _, more = (inspect.getdoc(modules[rule.__module__]) or "").partition("\n\n")
    question = " ".join(question.split())
    does = " ".join((inspect.getdoc(rule) or "").partition("\n\n")[0].split())
    return Page(
        key=key,
        title=question.removesuffix("."),
        summary="",
        text=more,
        more=lambda: sections(("What is told", does)),
    )


CHAPTER = Chapter("inspection", "Inspection", _pages)
