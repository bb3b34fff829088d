"""Kits of instruments: those the desk comes with, and those one keeps."""

from __future__ import annotations

from ... import store
from ...core.board.kit_items import Item, SortName
from ...core.board.kits import ITEMS, STARTERS, tidy_kit, write_kit
from ...records import KitName, KitRecord, readable
from ..answer import Refused
from ..base import Asked, Crossing, KitText
from ..http.who import me
from ..operation import Operations
from .saved import committed, the_store


class KitPath(Asked):
    """A kit by name."""

    name: KitName


class KitOut(Crossing):
    """A kit by name, as the text of its file; `starter` where it comes with the desk and cannot be
    changed."""

    name: str
    text: str
    usual: bool
    starter: bool


class KitItemOut(Crossing):
    """Something a kit may hold, as its page asks for it; see `core.board.kit_items.Item`."""

    key: str
    label: str
    sort: SortName
    in_unit: bool
    usual: str
    choices: tuple[str, ...]
    picture: str = ""


class KitsOut(Crossing):
    """Every kit, and everything a kit may hold."""

    kits: tuple[KitOut, ...]
    items: tuple[KitItemOut, ...]


class KitIn(Asked):
    """A kit to be kept, and whether it is the usual one from now on."""

    text: KitText
    usual: bool = False


kits = Operations()


@kits.get("/kits", deed="see kits")
def list_kits() -> KitsOut:
    """Return every kit: the desk's own first."""
    with the_store().reading() as session:
        own = store.list_kits(session, me())
    starters = [
        KitOut(name=name, text=write_kit(kit), usual=False, starter=True)
        for name, kit in STARTERS.items()
    ]
    kept = [
        KitOut(name=kit.name, text=kit.text, usual=kit.usual, starter=False)
        for row in own
        if (kit := readable(KitRecord, row)) is not None
    ]
    return KitsOut(kits=(*starters, *kept), items=tuple(map(_item, ITEMS)))


def _item(item: Item) -> KitItemOut:
    picture = f"/api/pictures/instrument.svg?item={item.shown_as or item.key}"
    return KitItemOut.from_core(
        item, sort=item.sort.name, choices=item.sort.choices, picture=picture
    )


@kits.put("/kits/<name>", deed="keep kits")
def put_kit(path: KitPath, body: KitIn) -> KitOut:
    """Keep a kit; what is no kit is refused in words."""
    if path.name in STARTERS:
        raise Refused(
            409, "This kit comes with the desk", f"keep {path.name} under another name to change it"
        )
    text = tidy_kit(body.text)
    with the_store().writing() as session:
        store.put_kit(session, path.name, text, body.usual, me())
    committed()
    return KitOut(name=path.name, text=text, usual=body.usual, starter=False)


@kits.delete("/kits/<name>", deed="keep kits")
def remove_kit(path: KitPath) -> KitsOut:
    """Take a kit away."""
    with the_store().writing() as session:
        store.remove_kit(session, path.name, me())
    committed()
    return list_kits()
