"""A sentence says every clause: what a kind does not say of itself is added, as it is written."""

from __future__ import annotations

import re
from collections.abc import Iterator

from ..geometry.walk import Stop
from ..measure import spell_angle
from ..plan.forms import Form, Slot, Word
from .args import Args, ClauseValues, Length, Value
from .figure import Ref

MOST_ADDED = 24
"""Clauses that are added one by one."""


def completed(sentence: str, args: Args) -> str:
    """Return the sentence of a statement with what it leaves out of its clauses.

    Parameters
    ----------
    sentence : str
        As the kind says it, with a full stop.
    args : Args
    """
    left = _without(sentence, args.name)
    added: list[str] = []
    for clause in args.clauses:
        form = _form_of(clause, args)
        if form is None:
            continue
        for value in _values(clause, form, args):
            shorter = _without(left, value)
            if shorter == left:
                added.append(_phrase(clause, form, args))
                break
            left = shorter
    if not added:
        return sentence
    words = ", ".join(added[:MOST_ADDED])
    more = len(added) - MOST_ADDED
    return f"{sentence.rstrip('.')}, {words}{f' and {more} more' if more > 0 else ''}."


OTHERWISE = {
    "close": "back to the start",
    "cw": "clockwise",
    "ccw": "counter-clockwise",
    "middle of sheet": "middle of the sheet",
    "parabolic": "uniform acceleration and retardation",
    "polynomial": "3-4-5 motion",
}
"""Words of clauses that a sentence may have in other words."""


def _without(text: str, value: str) -> str:
    """Return a text with a value taken out of it once; as it is where it does not stand there by
    itself."""
    for said in (value, value.removeprefix("−"), OTHERWISE.get(value, value)):
        sign = r"(?:(?<=[ØR])|(?<![\w.-]))"
        shorter = re.sub(rf"{sign}{re.escape(said)}(?![\w°]|\.\w)", "", text, count=1)
        if shorter != text:
            return shorter
    return text


def _form_of(clause: ClauseValues, args: Args) -> Form | None:
    names = {name for name, _ in clause.values}
    forms = args.kind.forms if args.kind else ()
    return next(
        (f for f in forms if f.key == clause.key and {slot.name for slot in f.slots} == names),
        next((f for f in forms if f.key == clause.key), None),
    )


def _values(clause: ClauseValues, form: Form, args: Args) -> Iterator[str]:
    """Yield what has to stand in the sentence: every value of a clause, or its words where it has
    none."""
    slots = {slot.name: slot for slot in form.slots}
    if not clause.values:
        yield " ".join(part.text for part in form.parts if isinstance(part, Word))
    for name, value in clause.values:
        yield from _spelt(value, slots.get(name), args)


def _spelt(value: Value, slot: Slot | None, args: Args) -> Iterator[str]:
    """Yield the words of a value, each as a sentence has it."""
    match value:
        case Length() if slot is not None and slot.type == "angle":
            yield spell_angle(value.value)
        case Length() if slot is not None and slot.type == "pitch":
            # So many to the inch: a given of that kind is worked out by the kind alone.
            yield from [value.text] if value.text[0].isdigit() else []
        case Length():
            yield args.say(value.value)
        case Ref(text=text):
            yield text.removeprefix("line ")
        case str():
            yield value
        case tuple():
            for each in value:
                if isinstance(each, Stop):
                    # The pieces it says of itself, run by run.
                    yield from (*each.side, *([each.way] if each.way else []))
                else:
                    yield from _spelt(each, slot, args)


def _phrase(clause: ClauseValues, form: Form, args: Args) -> str:
    """Return a clause as it is written, values put in."""
    values = dict(clause.values)
    words: list[str] = []
    for part in form.parts:
        if isinstance(part, Word):
            words += [] if part.optional else [part.text]
        elif part.name in values:
            value = values[part.name]
            if part.type == "walk":
                words.append(_ways(value))
                continue
            told = " ".join(_spelt(value, part, args))
            words.append(f'"{told}"' if part.type == "text" else told)
    return " ".join(words)


def _ways(value: Value) -> str:
    """Return the stops of a walk that words were said of, each with its words."""
    stops = [each for each in value if isinstance(each, Stop)] if isinstance(value, tuple) else []
    said = [(each.name, *each.side, *([each.way] if each.way else [])) for each in stops]
    return ", ".join(" ".join(words) for words in said if len(words) > 1)
