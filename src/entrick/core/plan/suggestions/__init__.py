"""What a clause that fits no form may have been meant as: written as on a drawing, in other words,
or in part. The words stand in `words`, how a clause is spelt in `readings`, what went wrong in
`rules`."""

from __future__ import annotations

from collections.abc import Sequence, Set

from ..document import Clause
from ..forms import Form, match_clause
from ..slots import LISTS
from .known import Known, Suits, unknown
from .readings import MOST_TERMS, readings
from .rules import Meant, nearest
from .words import OURS

__all__ = ["OURS", "Suits", "fits", "readings", "suggestions", "unknown"]


def suggestions(
    clause: Clause,
    forms: Sequence[Form],
    givens: Set[str],
    suits: Suits = unknown,
    first: Sequence[Sequence[Form]] = (),
) -> list[str]:
    """Return what a clause that fits no form may have been meant as, each as it would be written.

    Parameters
    ----------
    clause : Clause
    forms : sequence of Form
        Those of its kind.
    givens : set of str
        Names of givens.
    suits : callable, optional
        What is drawn above.
    first : sequence of sequence of Form, optional
        Among which of them it is looked before all.

    Returns
    -------
    list of str
        Of the nearest rule alone. Where nothing of a type that is wanted has the name that is
        written, those in which anything has.
    """
    if len(clause.items) > MOST_TERMS:
        return []
    for strictly in (True, False):
        found = nearest(clause.items, Known(forms, forms, givens, suits, strictly))
        if found:
            preferred = (
                nearest(clause.items, Known(some, forms, givens, suits, strictly))
                for some in first
                if some
            )
            return list(dict.fromkeys(map(_text, next(filter(None, preferred), found))))
    return []


def _text(meant: Meant) -> str:
    return ", ".join(str(Clause(each)) for each in meant)


def fits(clause: Clause, forms: Sequence[Form], givens: Set[str], suits: Suits) -> bool:
    """Tell whether a clause is one beyond doubt, and what it names is there and suits it; a list is
    none, as it takes any words."""
    match = match_clause(clause, forms, 0, givens)
    is_list = match is not None and any(slot.type in LISTS for slot in match.form.slots)
    known = Known(forms, forms, givens, suits, strictly=True)
    return not is_list and known.fits(clause.items)
