"""How questions are printed, and what a key says of them."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction

from ..measure import Unit, spell
from .question import Question


def answer_of(question: Question) -> str:
    """Write the right answer as it stands in a key."""
    if question.sort == "order":
        assert isinstance(question.right, tuple)
        return " ".join(str(question.choices.index(text) + 1) for text in question.right)
    if isinstance(question.right, float | int):
        return f"{question.right:.4f}".rstrip("0").rstrip(".") + (
            question.unit if question.unit == "°" else f" {question.unit}"
        )
    return str(question.right)


def key_of(question: Question) -> str:
    """Write the right answer as a key has it: with the graduation it may be off, or what an order
    has to keep."""
    result = answer_of(question)
    if question.sort == "length":
        near = spell(Fraction(question.near).limit_denominator(1000), Unit(question.unit))
        return f"{short_key_of(question)} {question.unit}, give or take {near}"
    if question.sort == "choice":
        return f"{chr(ord('a') + question.choices.index(result))}) {result}"
    if question.sort == "order":
        kept = [
            f"{before + 1} before {after + 1}"
            for after, waits in enumerate(question.waits)
            for before in waits
            if not any(before in question.waits[other] for other in waits)
        ]
        return f"such as {result}: any order with {', '.join(kept)}" if kept else "any order"
    return result


def short_key_of(question: Question) -> str:
    """Write the right answer in a cell of a grid: a letter, a number, or an order, with a star
    where others are right as well."""
    if question.sort == "choice":
        return chr(ord("a") + question.choices.index(answer_of(question)))
    if question.sort == "order":
        return f"{answer_of(question).replace(' ', '')}*"
    if question.unit == Unit.INCH and isinstance(question.right, float | int):
        exact = Fraction(question.right).limit_denominator(64)
        near = abs(float(exact) - question.right) < question.near / 2
        return spell(exact, Unit.INCH) if near else f"{question.right:.3f}"
    return f"{question.right:.6g}" if isinstance(question.right, float | int) else ""


def rows_of(question: Question, number: int, key: bool = False) -> Iterator[str]:
    """Yield a question as it is printed; with its answer and working for a key."""
    yield f"{number}.  {question.asks}"
    if question.sort == "order":
        for n, choice in enumerate(question.choices, 1):
            yield f"      {n})  {choice}"
    else:
        for n, choice in enumerate(question.choices):
            yield f"      {chr(ord('a') + n)})  {choice}"
    if key:
        yield f"      = {key_of(question)}"
        yield from (f"      {row}" for row in question.working)
    else:
        unit = f" {question.unit}" if question.unit else ""
        yield f"      ______________{unit}"
