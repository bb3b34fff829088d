"""What a clause may have been meant as, as a list of rules: tried in their order, the first that
gives anything is the nearest.

A rule is given a clause as it stands, in every way it may be written (`readings`), and what is
known; it yields what fits, each as one clause or as several. A new rule is a function in `RULES`.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from itertools import chain

from ..document import Clause
from ..forms import Word, fit, match_clause
from ..slots import LISTS
from ..terms import Name
from .known import Known
from .readings import Terms

Meant = tuple[Terms, ...]
"""One clause, or several in the place of one."""


@dataclass(frozen=True, slots=True)
class Rule:
    """What it supposes went wrong, and how it mends that."""

    supposes: str
    mend: Callable[[Terms, Sequence[Terms], Known], Iterator[Meant]]


def in_other_words(items: Terms, written: Sequence[Terms], known: Known) -> Iterator[Meant]:
    """``tangent a`` is touching a."""
    yield from ((each,) for each in written if each != items and known.fits(each))


def _with_between(items: Terms, known: Known) -> Iterator[Terms]:
    for place in range(1, len(items)):
        yield from ((*items[:place], Name(word), *items[place:]) for word in known.between)


def with_between(_: Terms, written: Sequence[Terms], known: Known) -> Iterator[Meant]:
    """``from A B`` is from A to B."""
    for items in written:
        yield from ((each,) for each in _with_between(items, known) if known.fits(each))


def _shorter(items: Terms, known: Known) -> Iterator[Terms]:
    return (
        (*items[:at], *items[at + 1 :]) for at, item in enumerate(items) if known.is_needless(item)
    )


def shorter(_: Terms, written: Sequence[Terms], known: Known) -> Iterator[Meant]:
    """``radius of 40`` is radius 40."""
    for items in written:
        yield from ((each,) for each in _shorter(items, known) if known.fits(each))


def _with_another_between(items: Terms, known: Known) -> Iterator[Terms]:
    for place, item in enumerate(items[1:-1], 1):
        if isinstance(item, Name) and (item.text in known.between or known.is_needless(item)):
            yield from ((*items[:place], Name(word), *items[place + 1 :]) for word in known.between)


def with_another_between(_: Terms, written: Sequence[Terms], known: Known) -> Iterator[Meant]:
    """``from A and B`` is from A to B."""
    for items in written:
        yield from ((each,) for each in _with_another_between(items, known) if known.fits(each))


def ends_in_a_clause(items: Terms, _: Sequence[Terms], known: Known) -> Iterator[Meant]:
    """A clause that ends or begins with a word that is one by itself is two: ``radius 9 above``."""
    for word, rest in ((items[-1], items[:-1]), (items[0], items[1:])):
        alone = isinstance(word, Name) and match_clause(Clause((word,)), known.all, 0, known.givens)
        if alone and rest:
            yield from ((*each, (word,)) for each in nearest(rest, known, PLAIN))


def _with_lead(items: Terms, known: Known) -> Iterator[Meant]:
    """Return what values would be with the words in front that a form begins with; several have its
    word between them, and no list is needed that takes any words."""
    for form in known.forms:
        if form.choice or not form.lead or not items:
            continue
        said = 0
        while said < min(len(form.lead) - 1, len(items)) and items[said] == Name(form.lead[said]):
            said += 1
        ends = (form.lead[at:] for at in range(1, len(form.lead)))
        said = said or next((len(e) for e in ends if items[: len(e)] == tuple(map(Name, e))), 0)
        bare = items[said:]
        slots = fit(bare, form.parts[len(form.lead) :], known.givens) if bare else None
        if slots is None:
            continue
        joined = any(isinstance(part, Word) and Name(part.text) in bare for part in form.parts)
        if len(bare) > 1 and (not joined or any(slot.type in LISTS for slot in form.slots)):
            continue
        if known.suits_all(form, slots):
            yield ((*map(Name, form.lead), *bare),)


def with_lead(_: Terms, written: Sequence[Terms], known: Known) -> Iterator[Meant]:
    """``40`` is radius 40, by the words in front by which its kind knows what a value is."""
    bared = [each[1:] for each in written if len(each) > 1 and known.is_needless(each[0])]
    joined = chain.from_iterable(_with_between(each, known) for each in written)
    others = chain.from_iterable(_with_another_between(each, known) for each in (*written, *bared))
    for bare in dict.fromkeys((*written, *bared, *joined, *others)):
        found = list(_with_lead(bare, known))
        if found:
            yield from found
            return


def of_two_things(_: Terms, written: Sequence[Terms], known: Known) -> Iterator[Meant]:
    """``touching a and b`` is touching a, touching b."""
    shorter = chain.from_iterable(_shorter(each, known) for each in written)
    for items in (*written, *shorter):
        for place, item in enumerate(items):
            if item == Name("and") and 1 < place < len(items) - 1:
                first, second = items[:place], (*items[: place - 1], *items[place + 1 :])
                if known.fits(first) and known.fits(second):
                    yield first, second


def with_tail(_: Terms, written: Sequence[Terms], known: Known) -> Iterator[Meant]:
    """``6`` is 6 sides, by the words that a form ends with."""
    for items in written:
        for form in known.forms:
            if len(form.parts) == 1 + len(form.tail) and form.tail and not form.choice:
                slots = fit(items, form.parts[:1], known.givens)
                if slots is not None and known.suits_all(form, slots):
                    yield ((*items, *map(Name, form.tail)),)


RULES: tuple[Rule, ...] = (
    Rule("another office's words, or drawing notation", in_other_words),
    Rule("the word between two values is missing", with_between),
    Rule("a word too many", shorter),
    Rule("another word between two values", with_another_between),
    Rule("the comma before a word that is a clause is missing", ends_in_a_clause),
    Rule("the words in front of a value are missing", with_lead),
    Rule("said of two things at once", of_two_things),
    Rule("the words behind a value are missing", with_tail),
)

PLAIN = tuple(rule for rule in RULES if rule.mend is not ends_in_a_clause)
"""Those that look no further than one clause."""


OF_THEIR_OWN = frozenset(
    {"focus", "foci", "directrix", "eccentricity", "tracing", "tangent", "normal", "asymptote"}
)
"""Words of the textbooks that name something else than any clause does: a mend would change the
exercise."""


def nearest(items: Terms, known: Known, rules: Sequence[Rule] = RULES) -> list[Meant]:
    """Return what terms may mean by the first rule that gives anything; nothing where they speak of
    a thing of its own, which no other word stands for."""
    if any(isinstance(item, Name) and item.text.lower() in OF_THEIR_OWN for item in items):
        return []
    written = known.written(items)
    for rule in rules:
        result = list(rule.mend(items, written, known))
        if result:
            return result
    return []
