"""The pages: one document for every view, the built scripts, styles and fonts."""

from __future__ import annotations

import json
import re
from functools import cache
from pathlib import Path

from flask import Blueprint, Response, abort, send_from_directory

from ...store import name_of
from ..register.saved import the_store
from . import guard, who

STATIC = Path(__file__).parents[1] / "static"

pages = Blueprint("pages", __name__)

PAGES = "src/pages/"
"""Where the front end has its pages: each is a file called as its address."""


@cache
def _addresses() -> re.Pattern[str]:
    """Return what the addresses of all pages look like, by what was built."""
    manifest = json.loads((STATIC / ".vite" / "manifest.json").read_text("utf-8"))
    names = (key[len(PAGES) :].removesuffix(".tsx") for key in manifest if key.startswith(PAGES))
    parts = (
        re.sub(r"\\\$(\w+)", _parameter, re.escape(name).replace(r"\.", "/")) for name in names
    )
    return re.compile("/(" + "|".join("" if part == "index" else part for part in parts) + ")")


def _parameter(named: re.Match[str]) -> str:
    """Return what may stand for a parameter of an address: a number where it is called an id."""
    return r"\d+" if named[1].endswith("Id") else "[^/]+"


def at(path: str) -> Response:
    """Return the document of the front end, which finds its page by the address; where there is
    none it says so, and shows the way back."""
    if not (STATIC / "index.html").is_file():
        abort(503, "The front end is not built yet: run make build.")
    return _document(200 if _addresses().fullmatch(path) else 404)


def _document(status: int) -> Response:
    text = (STATIC / "index.html").read_text("utf-8")
    who.find()
    with the_store().reading() as session:
        name = name_of(session)
    for mark, said in (("REGISTER", name), ("NONCE", guard.nonce()), ("WHO", str(who.me()))):
        text = text.replace(f"%{mark}%", said)
    # By this the script that keeps pages tells them from whatever else has an address.
    return Response(text, status, {"X-Entrick": "page"}, mimetype="text/html")


@pages.get("/assets/<path:name>")
def asset(name: str) -> Response:
    """Return a built file; its name changes with its content, so it may be kept."""
    return send_from_directory(STATIC / "assets", name, max_age=31536000)


@pages.get("/board-worker.js")
def worker() -> Response:
    """Return the script that keeps a sitting going while the desk is away; asked for anew each
    time."""
    return send_from_directory(STATIC, "board-worker.js", max_age=0)


@pages.get("/mark.svg")
def mark() -> Response:
    """Return the mark shown in the browser's tab."""
    return send_from_directory(STATIC, "mark.svg")
