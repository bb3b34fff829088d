"""Kits of instruments: those the desk comes with, and those one keeps."""

from __future__ import annotations

from flask import Response, current_app
from pydantic import BaseModel

from .. import store
from ..core.board.kit import Kit
from ..core.board.kits import ITEMS, STARTERS, Item, read_kit, write_kit
from .answer import Refused
from .ask import asked
from .asked_for import tasks
from .documented import Routes
from .jobs import the_store
from .problems import PROBLEMS, committed
from .schemas.kits import KitIn, KitItemOut, KitOut, KitPath, KitsOut, LacksIn, LacksOut

kits = Routes("kits", __name__, url_prefix="/api", abp_responses=PROBLEMS)


def _json(model: BaseModel) -> Response:
    return current_app.response_class(model.model_dump_json(), mimetype="application/json")


@kits.get("/kits", responses={200: KitsOut})
def every() -> Response:
    """Return every kit: the desk's own first."""
    return _every()


def _every() -> Response:
    with the_store().reading() as session:
        own = store.list_kits(session)
    starters = [_shown(name, kit, usual=False, starter=True) for name, kit in STARTERS.items()]
    kept = [_shown(kit.name, read_kit(kit.text), kit.usual, starter=False) for kit in own]
    return _json(KitsOut(kits=(*starters, *kept), items=tuple(map(_item, ITEMS))))


def _item(item: Item) -> KitItemOut:
    shown = KitItemOut.model_validate(item)
    return shown.model_copy(update={"picture": f"/api/pictures/instrument.svg?item={item.shown_as or item.key}"})


def _shown(name: str, kit: Kit, usual: bool, starter: bool) -> KitOut:
    """Present a kit."""
    return KitOut(name=name, text=write_kit(kit), usual=usual, starter=starter)


@kits.put("/kits/<string:name>", responses={200: KitOut})
def put(path: KitPath, body: KitIn) -> Response:
    """Keep a kit; what is no kit is refused in words."""
    if path.name in STARTERS:
        raise Refused(409, "This kit comes with the desk", f"keep {path.name} under another name to change it")
    kit = read_kit(body.text)
    with the_store().writing() as session:
        store.put_kit(session, path.name, write_kit(kit), body.usual)
    committed()
    return _json(_shown(path.name, kit, body.usual, starter=False))


@kits.delete("/kits/<string:name>", responses={200: KitsOut})
def remove(path: KitPath) -> Response:
    """Take a kit away."""
    with the_store().writing() as session:
        store.remove_kit(session, path.name)
    committed()
    return _every()


@kits.post("/lacks", responses={200: LacksOut})
def lacking(body: LacksIn) -> Response:
    """Return what a kit lacks for a job, and what that changes."""
    return asked(tasks.lacking, body)
