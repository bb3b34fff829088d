"""The register as a whole: taken away as open files, taken in again, and what its keeper should
know."""

from __future__ import annotations

import json
import tempfile
import zipfile
from collections.abc import Iterator
from datetime import datetime
from queue import Queue
from threading import Thread
from typing import Annotated, Any

from flask import Response, abort, current_app, g, request, stream_with_context
from pydantic import Field

from ... import store
from ..answer import Answer
from ..base import Asked, Crossing
from ..http.pairing import Pairing, the_pairing
from ..http.who import me
from ..operation import Operations
from .saved import committed, the_store


class NoticeOut(Crossing):
    """What whoever keeps the register should know, empty where there is nothing."""

    told: str


class DeviceOut(Crossing):
    """A device of the network that was let in."""

    key: str
    name: str
    address: str
    came_at: datetime
    seen_at: datetime


class PairingOut(Crossing):
    """How phones and tablets of the local network come in; empty where the desk was not asked to
    let them.

    `secure` where there is a certificate: then a browser keeps the pages of a sitting, too. The
    `code` is good for so many `seconds`; `knocks` tells of wrong ones.
    """

    address: str = ""
    code: str = ""
    seconds: int = 0
    secure: bool = False
    picture: str = ""
    devices: tuple[DeviceOut, ...] = ()
    knocks: str = ""


class DevicePath(Asked):
    """A device that was let in."""

    key: Annotated[str, Field(pattern=r"^[0-9a-f]{32}$")]


whole = Operations()


@whole.get("/register/pairing", deed="see who works here")
def pairing() -> PairingOut:
    """Return how a phone or tablet comes in, and which have; told at the desk alone."""
    found = the_pairing()
    if found is None or not g.at_the_desk:
        return PairingOut()
    return PairingOut.from_core(found, picture="/api/register/pairing.svg")


def _door() -> Pairing:
    result = the_pairing()
    if result is None or not g.at_the_desk:
        abort(404)
    return result


@whole.post("/register/pairing/code", deed="run the office")
def renew_code() -> PairingOut:
    """Take another code."""
    _door().renew()
    return pairing()


@whole.delete("/register/devices/<key>", deed="run the office")
def send_away(path: DevicePath) -> PairingOut:
    """Let a device in no more."""
    _door().send_away(path.key)
    return pairing()


@whole.get("/register/pairing.svg", deed="see who works here")
def pairing_picture() -> Answer:
    """Return the address for the network as a QR picture."""
    return Answer(_door().picture(), "image/svg+xml")


@whole.get("/register/notice", deed="see who works here")
def notice() -> NoticeOut:
    """Return what whoever keeps the register should know, such as that it was salvaged."""
    told = current_app.extensions.get("entrick.notice", "")
    return NoticeOut(told=told)


@whole.get("/register/export.zip", deed="run the office")
def export_register() -> Response:
    """Return every job with its history as open files in a zip."""
    kept = tempfile.TemporaryFile()  # noqa: SIM115  closed when it has been sent
    with zipfile.ZipFile(kept, "w", zipfile.ZIP_DEFLATED) as file:
        store.export_register(the_store(), store.Zip(file))
    size = kept.tell()
    kept.seek(0)

    def sent() -> Iterator[bytes]:
        with kept:
            while block := kept.read(65536):
                yield block

    response = current_app.response_class(stream_with_context(sent()), mimetype="application/zip")
    response.headers["Content-Length"] = str(size)
    response.headers["Content-Disposition"] = 'attachment; filename="register.zip"'
    return response


@whole.post("/register/import", sends="application/zip", deed="run the office")
def import_register() -> Response:
    """Enter every job of an exported register, all or none, and tell how far it is."""
    kept = tempfile.TemporaryFile()  # noqa: SIM115  closed when it has been read
    while block := request.stream.read(65536):
        kept.write(block)
    kept.seek(0)
    register, steps, by = the_store(), Queue[Any](), me()

    def work() -> None:
        try:
            with kept, store.opened_zip(kept) as file:
                came = store.import_register(
                    register,
                    store.Zip(file),
                    lambda done, of: steps.put({"done": done, "of": of}),
                    by,
                )
            steps.put({"jobs": came.jobs, "known": came.known})
        except (store.ArchiveError, store.RegisterTrouble) as error:
            steps.put({"problem": f"{error}. Nothing was entered."})
        except Exception as error:
            steps.put(error)

    Thread(target=work, daemon=True).start()
    first = steps.get()
    if isinstance(first, dict) and "problem" in first:
        raise store.ArchiveError(first["problem"].removesuffix(". Nothing was entered."))
    if isinstance(first, Exception):
        raise first

    def told() -> Iterator[str]:
        step = first
        while True:
            if isinstance(step, Exception):
                yield json.dumps({"problem": "The desk has a fault; nothing was entered."}) + "\n"
                return
            yield json.dumps(step) + "\n"
            if "done" not in step:
                if "jobs" in step:
                    committed()
                return
            step = steps.get()

    return current_app.response_class(stream_with_context(told()), mimetype="application/x-ndjson")
