"""From the words of a clause to its values."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from fractions import Fraction
from typing import cast

from ..geometry import Line, Point
from ..kind import ClauseValues, Length, Value
from ..kind.figure import Family, Figure, Ref
from ..measure import Dimension, Quantity, Unit
from ..memo import MEMO, Memo
from ..moves import kinds
from ..plan.clauses import match_clauses
from ..plan.document import Clause, Statement
from ..plan.errors import Astray, ClauseError
from ..plan.evaluate import evaluate
from ..plan.forms import Match, Slot, match_clause
from ..plan.suggestions import Suits, unknown
from ..plan.terms import Name, Term, Text, names, write
from ..tolerance import same
from .walks import stops_of

MOST_COPIES = 360
"""Members a family may have."""


def spoken(statement: Statement) -> tuple[Clause, ...]:
    """Return the clauses of a statement; text in quotes at its end is a note, unless its last
    clause wants it."""
    kind = kinds().get(statement.kind)
    if not (statement.note and statement.clauses and kind):
        return statement.clauses
    whole = Clause((*statement.clauses[-1].items, Text(statement.note)))
    found = match_clause(whole, kind.forms)
    if found is None:
        return statement.clauses
    # A form that begins with the clause's own word and takes the text is meant, whatever the word
    # alone might be.
    named = found.form.head != "" and whole.items[0] == Name(found.form.head)
    wanted = named or not match_clause(statement.clauses[-1], kind.forms)
    return (*statement.clauses[:-1], whole) if wanted else statement.clauses


MATCHES = cast(Memo[tuple[Match, ...]], MEMO)


def matches_of(
    statement: Statement, givens: frozenset[str], suits: Suits | None = unknown
) -> tuple[Match, ...]:
    """Return which clause of a statement is which form; where it says what it said, that is known.

    What suits a slot matters to what is told of a misfit alone.
    """
    key = (matches_of, statement.serial, givens)
    matches = MATCHES.get(key)
    if matches is None:
        forms = kinds()[statement.kind].forms
        matches = MATCHES.put(
            key, match_clauses(spoken(statement), forms, statement.kind, givens, suits)
        )
    return matches


def said_in(
    match: Match, figure: Figure, quantities: Mapping[str, Quantity], unit: Unit
) -> ClauseValues:
    values: list[tuple[str, Value]] = []
    for slot in match.form.slots:
        if slot.name not in match.slots:
            continue
        items = match.slots[slot.name]
        try:
            values.append((slot.name, _value(slot, items, figure, quantities, unit)))
        except ClauseError as error:
            broken = [
                n
                for item in items
                for n in names(item)
                if n in figure.failed and n not in figure.items
            ]
            if broken:
                raise Astray(broken[0]) from error
            error.clause = match.clause
            raise
    return ClauseValues(match.form.key, match.clause, tuple(values))


def _value(
    slot: Slot,
    items: Sequence[Term],
    figure: Figure,
    quantities: Mapping[str, Quantity],
    unit: Unit,
) -> Value:
    first = items[0]
    match slot.type:
        case "walk":
            if len(items) == 1:
                alone = figure.refer(write(first), "walk")
                if isinstance(alone.shape, Family):
                    return alone
            return tuple(stops_of(items, figure))
        case "line" if len(items) == 3:
            return _line_between(items, figure)
        case "point" | "corner" | "line" | "circle" | "curve" | "shape" | "run":
            return figure.refer(write(first), slot.type)
        case "several":
            return tuple(figure.refer(write(item), "shape") for item in items)
        case "lengths":
            result: list[Length] = []
            for item in items:
                linked = [key for key in quantities if key.startswith(f"{write(item)}.")]
                for key in linked or [write(item)]:
                    quantity = quantities[key] if linked else evaluate(item, quantities, unit)  # type: ignore[arg-type]
                    result.append(_number("length", key, quantity))
            return tuple(result)
        case "text":
            return first.text if isinstance(first, Text) else ""
        case "length" | "radius" | "diameter" | "angle" | "count" | "pitch":
            quantity = evaluate(first, quantities, unit)  # type: ignore[arg-type]
            if slot.type == "pitch" and quantity.dimension is Dimension.PER_LENGTH:
                return Length(quantity.value * Fraction(254, 10) / unit.mm, write(first))
            return _number(slot.type, write(first), quantity)
    return write(first)


def _number(wanted: str, text: str, quantity: Quantity) -> Length:
    dimension = quantity.dimension
    if dimension in (Dimension.AREA, Dimension.PER_LENGTH) or (
        (dimension is Dimension.ANGLE) != (wanted == "angle") and dimension is not Dimension.PLAIN
    ):
        raise ClauseError(
            f"{text} is {'an' if dimension[0] == 'a' else 'a'} {dimension}; the clause wants a "
            f"{wanted}"
        )
    if wanted == "count" and not (
        quantity.value == int(quantity.value) and 1 <= quantity.value <= MOST_COPIES
    ):
        raise ClauseError(f"{text} is not a whole number from 1 to {MOST_COPIES}")
    if wanted == "radius" and quantity.mark == "Ø":
        raise ClauseError(
            f"{text} is given as a diameter: say  diameter {text}  or halve it",
            None,
            ("radius", "diameter"),
        )
    if wanted == "diameter" and quantity.mark == "R":
        raise ClauseError(
            f"{text} is given as a radius: say  radius {text}  or double it",
            None,
            ("diameter", "radius"),
        )
    if wanted in ("radius", "diameter") and quantity.value <= 0:
        raise ClauseError(
            f"a {wanted} must be more than nought; {text} is {float(quantity.value):g}"
        )
    return Length(quantity.value, text)


def _line_between(items: Sequence[Term], figure: Figure) -> Ref:
    first, second = (figure.refer(write(item), "point") for item in items[1:])
    a, b = first.shape, second.shape
    for ref in (first, second):
        if isinstance(ref.shape, Family):
            message = (
                f"{ref.text} is a family of several; a line goes through one of them, such as "
                f"{ref.text}.1"
            )
            raise ClauseError(message, None, (ref.text, f"{ref.text}.1"))
    assert isinstance(a, Point)
    assert isinstance(b, Point)
    if abs(b - a) <= same(max(abs(a), abs(b))):
        raise ClauseError(f"{first.text} and {second.text} are the same place: they give no line")
    return Ref(" ".join(write(item) for item in items), Line.between(a, b))
