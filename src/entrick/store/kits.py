"""Kits of instruments by name; one of them may be the usual one."""

from __future__ import annotations

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from .models import FIRST, KitRow

MOST_KITS = 100


class TooManyKits(RuntimeError):
    """There are as many kits as a desk holds."""


@dataclass(frozen=True, slots=True)
class KitView:
    """A kit as it is kept."""

    name: str
    text: str
    usual: bool


def list_kits(session: Session, whose: int = FIRST) -> list[KitView]:
    """Return every kit of a person by name."""
    rows = session.scalars(select(KitRow).where(KitRow.person_id == whose).order_by(KitRow.name))
    return [KitView(row.name, row.text, row.usual) for row in rows]


def put_kit(session: Session, name: str, text: str, usual: bool, whose: int = FIRST) -> None:
    """Keep a kit of a person under a name; where it is the usual one, no other of theirs is.

    Raises
    ------
    TooManyKits
    """
    there = {kit.name for kit in list_kits(session, whose)}
    if name not in there and len(there) >= MOST_KITS:
        raise TooManyKits(f"a desk holds at most {MOST_KITS} kits")
    if usual:
        for row in session.scalars(select(KitRow).where(KitRow.usual, KitRow.person_id == whose)):
            row.usual = False
    session.merge(KitRow(person_id=whose, name=name, text=text, usual=usual))


def remove_kit(session: Session, name: str, whose: int = FIRST) -> None:
    """Take a kit away; without a usual one the desk takes the small kit of the plan's unit."""
    row = session.get(KitRow, (whose, name))
    if row is not None:
        session.delete(row)
