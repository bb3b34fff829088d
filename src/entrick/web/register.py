"""The register as a whole: taken away as open files, taken in again, and what its keeper should know."""

from __future__ import annotations

import json
import tempfile
import zipfile
from collections.abc import Iterator
from queue import Queue
from threading import Thread
from typing import Any

from flask import Response, abort, current_app, g, request, stream_with_context

from .. import store
from .documented import Routes
from .jobs import the_store
from .pairing import the_pairing
from .problems import FILES, PROBLEMS, committed
from .schemas.jobs import NoticeOut, PairingOut

register = Routes("register", __name__, url_prefix="/api/register", abp_responses=PROBLEMS)

PROGRESS = {
    "description": "One line of JSON for every step: `{done, of}`, at last `{jobs, known}` or `{problem}`",
    "content": {"application/x-ndjson": {"schema": {"type": "string"}}},
}


def _shown(found: PairingOut) -> Response:
    return current_app.response_class(found.model_dump_json(), mimetype="application/json")


@register.get("/pairing", responses={200: PairingOut})
def pairing() -> Response:
    """Return how a phone or tablet comes in; told at the desk alone."""
    found = the_pairing()
    if found is None or not g.at_the_desk:
        return _shown(PairingOut())
    picture = "/api/register/pairing.svg"
    return _shown(PairingOut(address=found.address, code=found.code, secure=found.secure, picture=picture))


@register.get("/pairing.svg", responses={200: FILES})
def pairing_picture() -> Response:
    """Return the address for the network as a QR picture."""
    found = the_pairing()
    if found is None or not g.at_the_desk:
        abort(404)
    return current_app.response_class(found.picture(), mimetype="image/svg+xml")


@register.get("/notice", responses={200: NoticeOut})
def notice() -> Response:
    """Return what whoever keeps the register should know, such as that it was salvaged."""
    told = current_app.extensions.get("entrick.notice", "")
    return current_app.response_class(NoticeOut(told=told).model_dump_json(), mimetype="application/json")


@register.get("/export.zip", responses={200: FILES})
def export() -> Response:
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


@register.post("/import", responses={200: PROGRESS})
def take_in() -> Response:
    """Enter every job of an exported register, all or none, and tell how far it is."""
    kept = tempfile.TemporaryFile()  # noqa: SIM115  closed when it has been read
    while block := request.stream.read(65536):
        kept.write(block)
    kept.seek(0)
    register_, steps = the_store(), Queue[Any]()

    def work() -> None:
        try:
            with kept, store.opened_zip(kept) as file:
                came = store.import_register(
                    register_, store.Zip(file), lambda done, of: steps.put({"done": done, "of": of})
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
