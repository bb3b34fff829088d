"""Hints to a question, in three stages: the rule, which sizes, the sum with blanks. None says the
answer."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import replace
from fractions import Fraction

from ...outside import read_number
from ...plan.errors import ClauseError
from ..question import RULES, Question

NUMBER = re.compile(
    r"(?:(?<=R)|(?<![A-Za-z0-9.])(?<!\d:))"
    r"(?:\d+ \d+/\d+|\d+/\d+|\d+(?:\.\d+)?)"
    r"(?![\d/]|:\d)"
)
"""A number as a drafter writes it: not the figures of a name, nor of a scale."""

BLANK = "…"

MOST_SUMS = 3
"""Sums a hint shows at most."""

SAME = 1 / 1000
"""Numbers nearer than this are the same one, rounded."""


def numbers(text: str) -> Iterator[tuple[str, float]]:
    """Yield the numbers that stand in a text, as written and as values."""
    for found in NUMBER.finditer(text):
        try:
            yield found[0], float(read_number(found[0]))
        except (ClauseError, ZeroDivisionError):
            continue


def says(text: str, value: float) -> bool:
    """Tell whether a number stands in a text."""
    return any(abs(own - value) < SAME * max(1.0, abs(value)) for _, own in numbers(text))


def with_hints(question: Question) -> Question:
    """Return a question with its hints in stages: its own, or the rule; the sizes it is made of;
    its sum with blanks for what comes of it."""
    if question.rule_shown is not None:
        return question
    right = question.right
    first = [*question.hints[:1], f"{RULES[question.rule]}."]
    if isinstance(right, float | int):
        rows = _leading_to(float(right), question.working)
        results = {float(right), *(value for row in rows for value in _results(row))}
        sizes = [
            said
            for row in rows
            for said, value in numbers(row)
            if not any(abs(value - each) < SAME * max(1.0, abs(each)) for each in results)
        ]
        sums = [_blanked(row, results) for row in rows]
        staged = [
            first[0],
            f"It is made of {_listed(list(dict.fromkeys(sizes)))}." if sizes else "",
            "; ".join(sums),
        ]
        hints = tuple(each for each in staged if each and not says(each, float(right)))
    else:
        told = right if isinstance(right, str) else None
        hints = tuple(each for each in first if told is None or told not in each)
    return replace(question, hints=hints)


def _leading_to(right: float, working: Sequence[str]) -> list[str]:
    """Return the sums of a working that lead to an answer: down to the one that gives it, or all
    where none does; of many the last ones."""
    rows = [row for row in working if "=" in row or " is " in row]
    last = next((n for n, row in enumerate(rows) if right in _near(row, right)), len(rows) - 1)
    return rows[max(0, last + 1 - MOST_SUMS) : last + 1]


def _near(row: str, right: float) -> set[float]:
    return {right for value in _results(row) if abs(value - right) < SAME * max(1.0, right)}


def _results(row: str) -> Iterator[float]:
    """Yield what comes of a sum: the numbers behind its last sign."""
    behind = re.split(r"=| is ", row)[-1]
    yield from (value for _, value in list(numbers(behind))[:1])


def _blanked(row: str, results: set[float]) -> str:
    def blank(found: re.Match[str]) -> str:
        value = float(Fraction(read_number(found[0])))
        near = any(abs(value - each) < SAME * max(1.0, abs(each)) for each in results)
        return BLANK if near else found[0]

    return NUMBER.sub(blank, row)


def _listed(sizes: Sequence[str]) -> str:
    return " and ".join(filter(None, (", ".join(sizes[:-1]), sizes[-1])))
