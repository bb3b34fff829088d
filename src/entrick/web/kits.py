"""Kits of instruments: those the desk comes with, and those one keeps."""

from __future__ import annotations

from urllib.parse import urlencode

from flask import Response, current_app
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from .. import store
from ..core.board import Kit
from ..core.board.kits import STARTERS, read_kit, write_kit
from ..core.measure import Unit
from . import tasks
from .ask import asked
from .jobs import the_store
from .problems import PROBLEMS, committed
from .schemas import KitIn, KitOut, KitPath, KitsOut, LacksIn, LacksOut

kits = APIBlueprint("kits", __name__, url_prefix="/api", abp_responses=PROBLEMS)


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
    return _json(KitsOut(kits=(*starters, *kept), units=tuple(unit.value for unit in Unit)))


SHOWN = 35
"""Opening at which a compass is pictured, mm."""


def _shown(name: str, kit: Kit, usual: bool, starter: bool) -> KitOut:
    """Present a kit with pictures of what it holds."""
    held = [{"tool": "compass", "value": f"{SHOWN / float(kit.unit.mm):.4g}", "unit": kit.unit.value}]
    held += [{"tool": "30/60 set square", "value": "60", "unit": "deg"}] if kit.squares else []
    held += [{"tool": "protractor", "value": "35", "unit": "deg"}] if kit.protractor is not None else []
    pictures = tuple(f"/api/pictures/setting.svg?{urlencode(each)}" for each in held)
    return KitOut(name=name, text=write_kit(kit), usual=usual, starter=starter, pictures=pictures)


@kits.put("/kits/<string:name>", responses={200: KitOut})
def put(path: KitPath, body: KitIn) -> Response:
    """Keep a kit; what is no kit is refused in words."""
    if path.name in STARTERS:
        raise tasks.Refused(409, "This kit comes with the desk", f"keep {path.name} under another name to change it")
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
