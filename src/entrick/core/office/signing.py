"""Drawn, checked, approved: who signed a revision, and what has to hold for that.

Common practice, no source: what was drawn is checked by somebody else, and approved once it is
checked; a later revision begins unsigned."""

from __future__ import annotations

from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass
from typing import Literal

SignedAs = Literal["checked", "approved"]


class NotToBeSigned(ValueError):
    """What cannot be signed as it is; says why."""


@dataclass(frozen=True, slots=True)
class Standing:
    """How a revision stands: who drew it, which one is the newest, what it is signed as."""

    drawn_by: int
    number: int
    newest: int
    signed: Sequence[SignedAs] = ()


def next_signature(who: int, standing: Standing, alone: bool) -> SignedAs | Literal[""]:
    """Return as what somebody may sign a revision as it stands; empty where as nothing."""
    ways: tuple[SignedAs, ...] = ("checked", "approved")
    for what in ways:
        with suppress(NotToBeSigned):
            check_signing(what, who, standing, alone)
            return what
    return ""


def check_signing(what: SignedAs, who: int, standing: Standing, alone: bool) -> None:
    """Refuse a signature that says what is not so.

    Parameters
    ----------
    what : {"checked", "approved"}
    who : int
        Who signs.
    standing : Standing
        How the revision stands before.
    alone : bool
        Whether nobody else in the office could check it.

    Raises
    ------
    NotToBeSigned
    """
    if standing.number != standing.newest:
        raise NotToBeSigned(
            f"revision {standing.newest} has been saved since: what is signed is the newest"
        )
    if what in standing.signed:
        raise NotToBeSigned(f"this revision is {what} already")
    if what == "checked" and who == standing.drawn_by and not alone:
        raise NotToBeSigned("nobody checks a drawing of their own: ask somebody else")
    if what == "approved" and "checked" not in standing.signed:
        raise NotToBeSigned("it is approved once it is checked")
