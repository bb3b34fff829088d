"""Every door from outside, tried with what was sound once and is not any more."""

from __future__ import annotations

import io
import json
import tempfile
import zipfile
from collections.abc import Callable, Iterator
from functools import cache
from importlib import import_module
from pathlib import Path
from random import Random

from entrick.core.board.kits import STARTERS, read_kit, write_kit
from entrick.core.classroom.answers import mark_answers
from entrick.core.classroom.set_file import read_set, write_set
from entrick.core.classroom.sets import make
from entrick.core.cutting import Machine
from entrick.core.desk import work_out
from entrick.core.formats import write_cutter_dxf, write_svg
from entrick.core.logbook.measured import read_value
from entrick.core.logbook.sitting import Event
from entrick.core.measure import Unit
from entrick.core.outside import read_number
from entrick.core.plan.errors import ClauseError
from entrick.core.readback import ProfileError, read_profile
from entrick.demo import sample_plans
from entrick.devices.cutter import CutterError, run
from entrick.devices.written import written
from entrick.records import EventRecord, SittingRecord, readable
from entrick.store import (
    ArchiveError,
    Folder,
    Zip,
    add_job,
    append,
    begin,
    export_register,
    import_register,
    opened_zip,
    put_kit,
)
from registers import fresh_store

ODD = [
    b"",
    b"0",
    b"-1",
    b"1e400",
    b"1e-400",
    b"9" * 5000,
    b"nan",
    b"NaN",
    b"Infinity",
    b"null",
    b"[]",
    b"{}",
    b"true",
    b'""',
    b"\x00",
    b"\xff\xfe",
    "²".encode(),
    "１".encode(),
    b"\r",
    b",",
    b'"',
    b"=1+1",
    b"[" * 3000,
    b"../..",
    str(2**63 - 1).encode(),
    str(2**53).encode(),
    b"1e308",
    b"x" * 70_000,
]
"""What is put in the place of something."""

REFUSALS = (ClauseError, ProfileError, ArchiveError, CutterError, UnicodeDecodeError)


@cache
def sound() -> dict[str, bytes]:
    """One sound document of every sort, by what it is called."""
    text = sample_plans()["OY-014-paddle-pawl-link.entrick"]
    done, folder = work_out(text), Path(tempfile.mkdtemp())
    made = make("Setting out", [text], 1, 4, 1)
    store = fresh_store(folder / "r.db")
    with store.writing() as session:
        add_job(session, text)
        put_kit(session, "mine", write_kit(STARTERS["school-mm"]), usual=True)
        begin(session, "0123abcd", 1, 1, "written")
        append(session, "0123abcd", [Event(n, "done", n, "compass", 3.5) for n in range(1, 9)])
    export_register(store, Folder(folder / "files"))
    keep = [folder / "files/register.json", *sorted((folder / "files/jobs/000001").iterdir())]
    (head := json.loads(keep[0].read_text()))["jobs"] = ["jobs/000001"]
    keep[0].write_text(json.dumps(head))
    for path in keep:
        stream_name = str(path.relative_to(folder / "files"))
        _ARCHIVE[stream_name] = path.read_bytes()
    return {
        "kit": write_kit(STARTERS["school-in"]).encode(),
        "set": write_set(made).encode(),
        "answers": b"student,1,2,3\r\n1,5,22.5,1 1/2\r\n2,a,=1,\r\n",
        "event": b'{"number": 3, "kind": "measured", "step": 7, "off": 0.5, "text": "25 mm"}',
        "sitting": b'{"uid": "0123abcd", "revision": 1, "started_at": "2026-01-01T00:00:00Z"}',
        "archive": b"",
        "zip": _zipped(_ARCHIVE),
        "dxf": write_cutter_dxf(done.outlines, done.solution.unit).encode(),
        "svg": write_svg(done.display).encode(),
        "csv": b"x,y\n0,0\n10,0\n10,5.5\n0,5\n0,0\n",
        "nc": written(done, 2.0, Machine()).program.encode(),
        "number": b"1 1/2",
        "value": b"83.25 mm",
    }


_ARCHIVE: dict[str, bytes] = {}


def _zipped(files: dict[str, bytes]) -> bytes:
    stream = io.BytesIO()
    with zipfile.ZipFile(stream, "w", zipfile.ZIP_DEFLATED) as file:
        for name, data in files.items():
            file.writestr(name, data)
    return stream.getvalue()


def spoilt(data: bytes, pick: Random) -> bytes:
    """Return a document with some of it changed, taken out, doubled, or put in the place of other parts."""
    found = bytearray(data)
    for _ in range(pick.choice([1, 1, 1, 2, 5])):
        at = pick.randrange(len(found) + 1)
        long = min(pick.choice([1, 2, 5, 20, 300]), len(found) - at)
        match pick.randrange(5):
            case 0 if found:
                found[at % len(found)] ^= 1 << pick.randrange(8)
            case 1:
                del found[at : at + long]
            case 2:
                found[at:at] = found[at : at + long] * pick.choice([1, 2, 50])
            case 3:
                found[at:at] = pick.choice(ODD)
            case _:
                # A word or number as a whole, so that the rest can still be read.
                words = [k for k in range(len(found)) if chr(found[k]).isdigit()]
                if words:
                    start = end = pick.choice(words)
                    while end < len(found) and (chr(found[end]).isdigit() or found[end] == 46):
                        end += 1
                    found[start:end] = pick.choice(ODD)
    return bytes(found)


@cache
def _register() -> object:
    return fresh_store(Path(tempfile.mkdtemp()) / "taken-in.db")


def ready() -> None:
    """Make what the doors are tried with, a register, and all that a worker has ready: no work of any
    plan's, so that its clock does not strike in their midst and leave them half made for all that follow."""
    import_module("entrick.web.workers.ready")
    sound()
    _import(_zipped(_ARCHIVE))


def doors(pick: Random) -> Iterator[tuple[str, Callable[[], object]]]:
    """Return every door by name, with something spoilt to be taken in by it."""
    for name, data in sound().items():
        worse = spoilt(data, pick)
        text = worse.decode("utf-8", "replace")
        match name:
            case "kit":
                yield name, lambda text=text: read_kit(write_kit(read_kit(text)))
            case "set":
                answers = sound()["answers"].decode()
                yield name, lambda text=text, answers=answers: mark_answers(read_set(text), answers)
            case "answers":
                made = sound()["set"].decode()
                yield name, lambda text=text, made=made: mark_answers(read_set(made), text)
            case "event" | "sitting":
                model = EventRecord if name == "event" else SittingRecord
                yield name, lambda text=text, model=model: readable(model, _json(text))
            case "archive":
                files = dict(_ARCHIVE)
                file = pick.choice(sorted(files))
                files[file] = spoilt(files[file], pick)
                yield name, lambda files=files: _import(_zipped(files))
            case "zip":
                yield name, lambda worse=worse: _import(worse)
            case "nc":
                yield name, lambda text=text: run(text)
            case "number":
                yield name, lambda text=text: read_number(text)
            case "value":
                yield name, lambda text=text: float(read_value(text, Unit.INCH))
            case _:
                yield (
                    f"profile {name}",
                    lambda worse=worse, name=name: read_profile(worse, f"x.{name}", None, ()),
                )


def _json(text: str) -> object:
    try:
        return json.loads(text)
    except (ValueError, RecursionError):
        return None


def _import(data: bytes) -> None:
    with opened_zip(io.BytesIO(data)) as file:
        import_register(_register(), Zip(file))  # type: ignore[arg-type]
