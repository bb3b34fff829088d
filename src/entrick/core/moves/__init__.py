"""The kinds of construction, ONE FILE PER KIND.

A module of this package that declares ``KIND`` is a kind; nothing else needs to know about it.
"""

from __future__ import annotations

from functools import cache
from importlib import import_module
from pkgutil import iter_modules

from ..kind import GROUPS, Kind


def called(word: str) -> list[Kind]:
    """Return the kinds that a word of the trade may mean: one by its own name, else those reached
    by it, singular or plural."""
    words = " ".join(word.casefold().split())
    forms = (words, words.removesuffix("s"), f"{words}s")
    found = (
        [kind for kind in kinds().values() if has(kind, form)]
        for form in forms
        for has in (lambda kind, form: kind.name == form, lambda kind, form: form in kind.also)
    )
    return next(filter(None, found), [])


@cache
def words_of_kinds() -> dict[str, tuple[str, ...]]:
    """Return every word of the trade by which a kind is reached, singular and plural, each with the
    names of those it may mean."""
    words = {word for kind in kinds().values() for word in (kind.name, *kind.also)}
    both = {form for word in words for form in (word, word.removesuffix("s"), f"{word}s")}
    return {word: tuple(kind.name for kind in called(word)) for word in sorted(both)}


@cache
def kinds() -> dict[str, Kind]:
    """Return every kind by the name the plan calls it."""
    modules = (import_module(f"{__name__}.{info.name}") for info in iter_modules(__path__))
    found = [module.KIND for module in modules if hasattr(module, "KIND")]
    return {
        kind.name: kind
        for kind in sorted(found, key=lambda kind: (GROUPS.index(kind.group), kind.name))
    }
