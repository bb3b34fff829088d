"""What a drafter may write next: completion of a half-written statement from the declared
clauses."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence

from ..kind import Kind
from ..kind.figure import fits
from ..moves import kinds
from ..plan.forms import Form, Slot, Word
from ..plan.slots import NUMBERS, REFERENCES
from ..plan.terms import write
from ..solve import Solution
from ..solve.values import matches_of
from .blanks import usual_clauses, wanted_at
from .completion import Completion
from .row import free_name

MOST = 40


def complete(
    solution: Solution, after: int, row: str, caret: int | None = None
) -> tuple[Completion, ...]:
    """Return continuations of a row to be written below a line.

    Parameters
    ----------
    solution : Solution
        Of the plan as it stands.
    after : int
        Line of the plan the row will stand below; only what is made above it is offered.
    row : str
        What is typed so far.
    caret : int, optional
        Where in it one writes; at its end where that is not said. What stands behind is left as it
        is.

    Returns
    -------
    tuple of Completion
        Their rows end where one goes on writing.
    """
    if caret is not None:
        row, wanted = row[:caret], wanted_at(row, caret)
        if wanted:
            slot = Slot("value", wanted)
            values = _offers(slot, Form("value"), solution, after, [row], "")
            return tuple(Completion(f"{row}{offer}", offer, about) for offer, about in values)[
                :MOST
            ]
    name, equals, rest = row.partition("=")
    if not equals:
        return _openings(solution, name.strip())
    head, *clauses = re.split(r",\s*", rest.lstrip())
    if not clauses:
        starts = f"{name.strip()} = "
        return tuple(
            Completion(f"{starts}{kind.name}, {usual_clauses(kind)}", kind.name, about)
            for kind, about in _meant(head.strip())
        )
    kind = kinds().get(head.strip())
    if kind is None:
        return ()
    written = f"{name.strip()} = {kind.name}, " + "".join(f"{clause}, " for clause in clauses[:-1])
    found: dict[str, Completion] = {}
    for text, adds, about in _continue(solution, after, kind, clauses[:-1], clauses[-1]):
        found.setdefault(text, Completion(written + text, adds, about))
    return tuple(found.values())[:MOST]


def _openings(solution: Solution, typed: str) -> tuple[Completion, ...]:
    given: tuple[Completion, ...] = ()
    if "given".startswith(typed):
        given = (Completion("given ", "given", "a dimension from the brief"),)
    meant = _meant(typed) if typed else []
    name = typed if re.fullmatch(r"[^\W\d]\w*", typed) else ""
    # What is typed may be the beginning of a kind, or of a name of one's own.
    named = [(free_name(solution, kind), kind, about) for kind, about in meant]
    named += [(name or free_name(solution, kind), kind, kind.summary) for kind in kinds().values()]
    return given + tuple(
        Completion(f"{own} = {kind.name}, {usual_clauses(kind)}", kind.name, about)
        for own, kind, about in named[: len(kinds())]
    )


def _meant(typed: str) -> list[tuple[Kind, str]]:
    """Return the kinds that begin with what is typed, then those that are called so elsewhere, and
    what each is."""
    said = typed.casefold()
    result = [(kind, kind.summary) for kind in kinds().values() if kind.name.startswith(said)]
    for kind in kinds().values():
        word = next((word for word in kind.also if word.startswith(said)), None)
        if said and word and not kind.name.startswith(said):
            result.append((kind, f"{word}: {kind.summary}"))
    return result


def _continue(
    solution: Solution, after: int, kind: Kind, said: Sequence[str], typed: str
) -> Iterator[tuple[str, str, str]]:
    words = typed.split()
    done, partial = (words, "") if not words or typed.endswith(" ") else (words[:-1], words[-1])
    before = " ".join(done)
    for form in kind.forms:
        if sum(_begins(form, clause.split()) for clause in said) >= form.most:
            continue
        for part in _next_parts(form.parts, done):
            for offer, about in _offers(part, form, solution, after, done, partial):
                if offer.startswith(partial) and offer != partial:
                    yield f"{before} {offer}".strip(), offer, about


def _begins(form: Form, words: Sequence[str]) -> bool:
    return bool(words) and (
        words[0] == form.head or (not form.head and words[0] in form.slots[0].choices)
    )


def _next_parts(parts: Sequence[Word | Slot], done: Sequence[str]) -> Iterator[Word | Slot]:
    """Return what may follow the words written so far."""
    if not parts:
        return
    part, rest = parts[0], parts[1:]
    if isinstance(part, Slot) and part.type == "walk":
        yield part
    elif not done:
        yield part
        if isinstance(part, Word) and part.optional:
            yield from _next_parts(rest, done)
    elif isinstance(part, Word):
        if done[0] == part.text:
            yield from _next_parts(rest, done[1:])
        elif part.optional:
            yield from _next_parts(rest, done)
    elif not part.choices or done[0] in part.choices:
        yield from _next_parts(rest, done[1:])


def _offers(
    part: Word | Slot, form: Form, solution: Solution, after: int, done: Sequence[str], partial: str
) -> Iterator[tuple[str, str]]:
    if isinstance(part, Word):
        yield part.text, form.example
    elif part.choices:
        yield from ((word, form.example) for word in part.choices)
    elif part.type == "walk" and done and done[-1] != ">":
        yield ">", "and over to"
    elif part.type in REFERENCES:
        for item in reversed(solution.figure.items.values()):  # type: ignore[call-overload]
            if item.line > after:
                continue
            if partial.startswith(f"{item.name}."):
                fitting = (key for key, shape in item.named.items() if fits(shape, part.type))
                yield from (
                    (f"{item.name}.{key}", f"a part of {item.name}, {part.expectation}")
                    for key in fitting
                )
            elif fits(item.shape, part.type):
                yield item.name, part.expectation
    elif part.type in NUMBERS:
        if not done and not partial:
            yield _sketch(form, solution, after), form.example
        for entry in solution.givens:
            if entry.line <= after:
                yield entry.given.name, entry.given.note or f"given, {part.expectation}"
        yield from ((value, "used last") for value in _used_last(solution, after, part.type))


MOST_USED = 4
"""Values used last that are offered again."""


def _used_last(solution: Solution, after: int, type: str) -> tuple[str, ...]:
    """Return the values that stand in places of a type in the statements above, the last first."""
    found: dict[str, None] = {}
    for entry in reversed(solution.entries):
        if entry.line > after or entry.made is None or len(found) >= MOST_USED:
            continue
        for match in matches_of(entry.statement, frozenset()):
            for slot in match.form.slots:
                if slot.type == type and slot.name in match.slots:
                    found.setdefault(" ".join(str(write(item)) for item in match.slots[slot.name]))
    return tuple(found)[:MOST_USED]


SKETCHED = {"angle": "30°", "count": "6"}
"""What stands for a number in a clause that is offered before anything of it is typed; a length is
20."""


def _sketch(form: Form, solution: Solution, after: int) -> str:
    """Write a clause out with some value in every place, to be changed to what is meant."""
    words = []
    for part in form.parts:
        if isinstance(part, Word):
            words.append(part.text)
        elif part.choices:
            words.append(part.choices[0])
        elif part.type in REFERENCES:
            items = solution.figure.items.values()
            fitting = [i.name for i in items if i.line <= after and fits(i.shape, part.type)]
            words.append(fitting[-1] if fitting else "O")
        else:
            words.append(SKETCHED.get(part.type, "20"))
    return " ".join(words)
