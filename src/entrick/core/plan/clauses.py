"""The clauses of a statement, each matched to a form of its kind, and what is told of one that fits
none."""

from __future__ import annotations

from collections.abc import Sequence, Set
from difflib import get_close_matches
from functools import partial
from itertools import takewhile

from .document import Clause
from .errors import ClauseError, Wanting
from .forms import Form, Match, Word, match_clause
from .slots import NUMBERS
from .suggestions import OURS, Suits, fits, readings, suggestions, unknown
from .terms import Name, Num, Term, write

MOST_PARTED = 4
"""Clauses into which one is parted to see whether commas are missing."""

MOST_MEANT = 4
"""Clauses that are told where what is written may be one of several."""

MOST_HEADS = 16
"""Beginnings of clauses that are told where nothing alike is known."""

ALIKE = 0.7
"""How much of a word must agree with the beginning of a clause for it to be taken as that, misspelt
(by eye)."""


def match_clauses(
    clauses: Sequence[Clause],
    forms: Sequence[Form],
    kind: str,
    givens: Set[str] = frozenset(),
    suits: Suits | None = unknown,
) -> tuple[Match, ...]:
    """Match every clause of a statement to one of its kind's forms; givens are the names known to
    be of numbers.

    What suits a slot matters to what is told of a misfit alone; without it, nothing is told of what
    one may mean.

    Raises
    ------
    ClauseError
        For a clause that fits no form, one said too often, or one that is missing.
    """
    matches: list[Match] = []
    for index, clause in enumerate(clauses):
        found = match_clause(clause, forms, index, givens)
        if found is None:
            raise _misfit(clauses, index, forms, kind, givens, suits)
        if suits and _has_angle_astray(found):
            misfit = _misfit(clauses, index, forms, kind, givens, suits)
            if misfit.instead or misfit.meant:
                raise misfit
        if sum(m.form.key == found.form.key for m in matches) >= found.form.most:
            if any(slot.type == "walk" for slot in found.form.slots):
                at = next(m.clause for m in reversed(matches) if m.form.key == found.form.key)
                pieces = [str(clauses[at]), str(clause)]
                if at == index - 1:
                    pieces += map(
                        str,
                        takewhile(partial(_is_of, found.form, forms, givens), clauses[index + 1 :]),
                    )
                whole = " > ".join(pieces)
                mend = (", ".join(pieces), whole) if at == index - 1 else None
                raise ClauseError(f"the pieces of a walk have > between them: {whole}", index, mend)
            times = "twice" if found.form.most == 1 else f"more than {found.form.most} times"
            raise ClauseError(f"{found.form.key} is said {times}; once is enough", index)
        matches.append(found)
    said = {m.form.key for m in matches}
    for form in forms:
        if form.needed and form.key not in said:
            raise Wanting(f"{kind} needs {form.example}")
    return tuple(matches)


def _is_of(form: Form, forms: Sequence[Form], givens: Set[str], clause: Clause) -> bool:
    """Tell whether a clause is one of a form."""
    match = match_clause(clause, forms, 0, givens)
    return match is not None and match.form is form


def _misfit(
    clauses: Sequence[Clause],
    index: int,
    forms: Sequence[Form],
    kind: str,
    givens: Set[str],
    suits: Suits | None,
) -> ClauseError:
    error = _unknown_clause(clauses[index], index, forms, kind, givens)
    error.asked = "" if error.instead else str(clauses[index])
    if suits and not error.instead:
        meant, said = _meant(clauses, index, forms, givens, suits)
        if 0 < len(meant) <= MOST_MEANT:
            error.meant, error.asked = tuple((said, each) for each in meant), said
    return error


def _wanted(items: Sequence[Term], alike: Sequence[Form]) -> str:
    """Return what is wanted in a clause of some forms; where one thing stands where another is due,
    which."""
    words = " or ".join(form.example for form in alike)
    if len(alike) == 1 and len(alike[0].slots) == 1 and len(items) == len(alike[0].parts):
        slot = alike[0].slots[0]
        stands = items[alike[0].parts.index(slot)]
        if isinstance(stands, Num) and slot.is_reference:
            return (
                f"{write(stands)} is a number; here {slot.expectation} is wanted by name: {words}"
            )
        if isinstance(stands, Name) and not slot.is_reference and not slot.choices:
            return f"{write(stands)} is no given; here {slot.expectation} is wanted: {words}"
    return f"expected {words}"


def _unknown_clause(
    clause: Clause, index: int, forms: Sequence[Form], kind: str, givens: Set[str]
) -> ClauseError:
    """Return what is told of a clause that is none of its kind."""
    for items in readings(clause.items, givens.__contains__):
        parted = _parted(items, forms, MOST_PARTED)
        if parted is not None:
            message = ", ".join(str(Clause(each)) for each in parted)
            return ClauseError(
                f"{clause}: a comma is missing between two clauses: {message}",
                index,
                (str(clause), message),
            )
    first = clause.items[0]
    head = first.text if isinstance(first, Name) else ""
    alike = [
        form
        for form in forms
        if form.head == head or head in (w.text for w in form.parts if isinstance(w, Word))
    ]
    if head and alike:
        return ClauseError(f"{clause}: {_wanted(items=clause.items, alike=alike)}", index)
    heads = {form.head for form in forms if form.head} | {
        word
        for form in forms
        for slot in form.slots
        for word in slot.choices
        if len(form.parts) == 1
    }
    close = get_close_matches(head, heads, 1, ALIKE) if head else []
    ours = OURS.get(head)
    if ours in heads:
        close = [ours]
    if close:
        return ClauseError(f"{kind} takes no clause {head}", index, None, [(head, close[0])])
    plain = [form for form in forms if not form.choice]
    if len(plain) <= MOST_PARTED:
        return ClauseError(
            f"{clause}: {kind} takes {'; '.join(form.example for form in plain)}", index
        )
    begun = list(dict.fromkeys(form.head or form.example for form in plain))[:MOST_HEADS]
    return ClauseError(f"{clause}: the clauses of {kind} begin with {'; '.join(begun)}", index)


def _has_angle_astray(match: Match) -> bool:
    """Tell whether an angle stands where another sort of number is wanted: ``5 by 45°`` is no two
    lengths."""
    return any(
        isinstance(item, Num) and "°" in item.text
        for slot in match.form.slots
        if slot.type in NUMBERS and slot.type != "angle"
        for item in match.slots.get(slot.name, ())
    )


def _meant(
    clauses: Sequence[Clause], index: int, forms: Sequence[Form], givens: Set[str], suits: Suits
) -> tuple[list[str], str]:
    """Return what a clause may mean that the others do not say yet, and what stands for it in the
    row: with the next one, where neither says anything by itself (``fillet, l, m``), or with the
    one before (``A4, landscape``)."""
    clause, after = clauses[index], clauses[index + 1] if index + 1 < len(clauses) else None
    others = [
        match_clause(each, forms, 0, givens) for at, each in enumerate(clauses) if at != index
    ]
    keys = [each.form.key for each in others if each is not None]
    left = [form for form in forms if keys.count(form.key) < form.most]
    if index:
        both = Clause((*clauses[index - 1].items, *clause.items))
        if fits(both, forms, givens, suits):
            return [str(both)], f"{clauses[index - 1]}, {clause}"
    if after is not None and match_clause(after, forms, 0, givens) is None:
        meant = suggestions(Clause((*clause.items, *after.items)), forms, givens, suits, (left,))
        if meant:
            return meant, f"{clause}, {after}"
    # What is needed and not yet said comes first, and what is said already last.
    needed = [form for form in left if form.needed]
    return suggestions(clause, forms, givens, suits, (needed, left)), str(clause)


def _parted(
    items: tuple[Term, ...], forms: Sequence[Form], most: int
) -> tuple[tuple[Term, ...], ...] | None:
    """Return the clauses a run of terms is when commas are put between them; None where it is not
    several."""
    if most > 1:
        for cut in range(len(items) - 1, 0, -1):
            if match_clause(Clause(items[:cut]), forms) is None:
                continue
            if match_clause(Clause(items[cut:]), forms) is not None:
                return items[:cut], items[cut:]
            rest = _parted(items[cut:], forms, most - 1)
            if rest is not None:
                return items[:cut], *rest
    return None
