"""What a mistake proposes, as whole lines."""

from __future__ import annotations

from collections.abc import Sequence, Set
from difflib import get_close_matches

from ..kind import Kind
from ..moves import called, kinds, words_of_kinds
from ..plan.document import Clause
from ..plan.errors import ClauseError, UnknownKind
from ..plan.forms import Form
from ..plan.suggestions import Suits, fits
from ..plan.suggestions.notation import within

NEARLY = 0.75
"""How much of a word must agree with one that is known for it to be taken as that, misspelt (by
eye, no source)."""

FEWEST = 3
"""Letters from which on a beginning tells a word (by eye, no source)."""


def proposed(error: ClauseError, text: str) -> tuple[str, ...]:
    """Return what a line may have been meant as by its mistake, each as a whole line."""

    def mended(wrong: str, right: str) -> str:
        head, clauses = _split(text)
        if not head:
            return _swap(text, wrong, right)
        if ", " in wrong:
            clauses = [text.partition("=")[2].replace(wrong, right, 1)]
        elif error.clause is not None and error.clause + 1 < len(clauses):
            clauses[error.clause + 1] = _swap(clauses[error.clause + 1], wrong, right)
        else:
            clauses = [_swap(clause, wrong, right) for clause in clauses]
        return head + ", ".join(clauses)

    if error.instead and error.instead[0] == text:
        return (error.instead[1],)
    ways = (*((error.instead,) if error.instead else ()), *error.meant)
    return tuple(dict.fromkeys(mended(*way) for way in ways))


def without_comma(
    error: ClauseError,
    clauses: Sequence[Clause],
    forms: Sequence[Form],
    givens: Set[str],
    suits: Suits,
) -> ClauseError:
    """Return what is told of a clause that names the wrong thing: where it and the one before it
    are one that names the right ones, as ``from A, to B`` is, that no comma stands there."""
    at = error.clause
    if not at or error.instead:
        return error
    before, after = clauses[at - 1], clauses[at]
    whole = Clause((*before.items, *after.items))
    if not fits(whole, forms, givens, suits):
        return error
    return ClauseError(error.message, at, (f"{before}, {after}", str(whole)))


def _split(text: str) -> tuple[str, list[str]]:
    head, equals, rest = text.partition("=")
    return (head + equals, rest.split(", ")) if equals else ("", [text])


def _swap(text: str, wrong: str, right: str) -> str:
    words = text.split(" ")
    if wrong in words:
        words[words.index(wrong)] = right
        return " ".join(words)
    return text.replace(wrong, right, 1)


def unknown_kind(name: str) -> ClauseError:
    """Return what is told of a kind that does not exist: which is meant, by a word of the trade or
    by its spelling."""
    meant = called(name)
    places = [] if meant else within(name, words_of_kinds())
    if len(places) == 1 and places[0].word in kinds() and not places[0].before:
        kind = places[0].word
        mend = (name, name.replace(kind, f"{kind},", 1))
        return ClauseError(f"a comma parts {kind} from its clauses", None, mend)
    meant = meant or _spelt_nearly(name.casefold())
    message = f"there is no kind of construction called {name}"
    if not meant:
        near = f"; near it is {' and '.join(p.word for p in places)}" if places else ""
        return ClauseError(
            f"{message}{near}: every kind stands in the list of kinds, with a figure"
        )
    return UnknownKind(message, None, None, [(name, kind.name) for kind in meant])


def example_near(text: str) -> str:
    """Return how a statement of the kind that a line seems to be is written; nothing where it names
    none."""
    said = text.partition("=")[2].partition(",")[0].strip()
    places = within(said, words_of_kinds())
    return called(places[0].word)[0].example if places else ""


def _spelt_nearly(name: str) -> list[Kind]:
    words = {word: kind for kind in reversed(kinds().values()) for word in (*kind.also, kind.name)}
    begun = [word for word in words if len(name) >= FEWEST and word.startswith(name)]
    return [words[word] for word in (begun or get_close_matches(name, list(words), 1, NEARLY))[:1]]
