"""Sets for a class: kept as they are made, so that answers are marked whenever they come back."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from pydantic import Field

from ... import store
from ...core.practice.sets import read_set
from ...records import AskedNumber
from ..base import Asked, Crossing
from ..operation import Operations
from .saved import committed, the_store

LARGEST_KEPT = 16 * 2**20
"""Signs of a set that is kept in the register."""


class SetPath(Asked):
    """A set by number."""

    set_id: AskedNumber


class KeptSetIn(Asked):
    """A set to be kept, as the text of its file."""

    set: Annotated[str, Field(max_length=LARGEST_KEPT)]


class PutAwayIn(Asked):
    """Whether a set is put away."""

    removed: bool


class KeptSetOut(Crossing):
    """A set as it is listed."""

    id: int
    title: str
    students: int
    made_at: datetime
    removed: bool


class KeptSetsOut(Crossing):
    """Every set, last made first."""

    sets: tuple[KeptSetOut, ...]


class SetTextOut(Crossing):
    """A set as the text of its file."""

    set: str


class_sets = Operations()


@class_sets.get("/sets")
def list_sets() -> KeptSetsOut:
    """Return every set, last made first, those put away as well."""
    with the_store().reading() as session:
        found = store.list_sets(session)
    return KeptSetsOut(sets=tuple(map(KeptSetOut.from_core, found)))


@class_sets.post("/sets", status=201)
def keep_set(body: KeptSetIn) -> KeptSetOut:
    """Keep a set; what is no set is refused in words."""
    made = read_set(body.set)
    with the_store().writing() as session:
        kept = store.add_set(session, made.title, len(made.papers), body.set)
    committed()
    return KeptSetOut.from_core(kept)


@class_sets.get("/sets/<set_id>")
def open_set(path: SetPath) -> SetTextOut:
    """Return a set as it was made."""
    with the_store().reading() as session:
        return SetTextOut(set=store.set_text(session, path.set_id))


@class_sets.patch("/sets/<set_id>")
def put_set_away(path: SetPath, body: PutAwayIn) -> KeptSetOut:
    """Put a set away, or back."""
    with the_store().writing() as session:
        found = store.put_set_away(session, path.set_id, body.removed)
    committed()
    return KeptSetOut.from_core(found)
