"""Drawn, checked and approved in the title block, as it was done."""

from __future__ import annotations

from collections.abc import Mapping

from ..desk import Work
from ..display.build import title_fields

SIGNED = ("drawn", "checked", "approved", "date")
"""Fields of the title block that say who did what, and when."""


def titled(done: Work, text: str, said: Mapping[str, str]) -> str:
    """Return a plan whose title block says who drew, checked and approved it; what it says by
    itself stands.

    Parameters
    ----------
    done : Work
        The plan worked out.
    text : str
        The plan.
    said : mapping
        From a field of `SIGNED` to what stands in it; what is empty is left out.
    """
    own = title_fields(done.solution)
    wanted = {name: said[name] for name in SIGNED if said.get(name) and name not in own}
    if not wanted:
        return text
    names = {entry.statement.name for entry in done.solution.entries}
    number = next(n for n in range(1, len(names) + 2) if f"signed{n}" not in names)
    fields = ", ".join(f'{name} "{_plain(word)}"' for name, word in wanted.items())
    return f"{text.rstrip()}\nsigned{number} = title, {fields}\n"


def _plain(word: str) -> str:
    return " ".join(word.replace('"', "'").split())
