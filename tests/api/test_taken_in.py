"""Whatever is taken in by any door is read back by the same model: nothing short stops the desk, nothing odd stays in it."""

import io
import json
import os
import sqlite3
import time
import zipfile
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from entrick.core.board.kits import STARTERS, read_kit, write_kit
from entrick.core.logbook.sitting import Event
from entrick.core.outside import read_number
from entrick.core.plan.errors import ClauseError
from entrick.store import (
    ArchiveError,
    Folder,
    RegisterTrouble,
    Store,
    UnknownJob,
    Zip,
    add_job,
    append,
    backup,
    begin,
    clear_leftovers,
    export_register,
    import_register,
    list_sittings,
    open_store,
    put_kit,
    read_logbook,
    restore,
    salvage,
)
from entrick.store.archive import LARGEST_JSON
from entrick.store.soundness import expected_shape, known_versions, shape_of, version_of
from older_register import older_register
from registers import fresh_store

HUGE = ["1e4000000", "1e-5000", "9" * 61, "nan", "inf", "1/0", "²", "0x10", "1_0", "１", "--1", ""]
PAGES = (
    "/api/jobs",
    "/api/jobs/1",
    "/api/jobs/1/revisions",
    "/api/logbook",
    "/api/logbook.csv",
    "/api/kits",
    "/api/practice",
)


@pytest.mark.parametrize("text", HUGE)
def test_a_number_nobody_writes_by_hand_is_refused_at_once(text: str) -> None:
    began = time.process_time()
    with pytest.raises(ClauseError):
        read_number(text)
    kit = json.loads(write_kit(STARTERS["school-mm"])) | {"compass": text}
    with pytest.raises(ClauseError, match="compass"):
        read_kit(json.dumps(kit))
    assert time.process_time() - began < 0.5


def test_a_kit_of_any_size_stops_nobody(client: FlaskClient) -> None:
    for text in HUGE:
        kit = json.dumps(json.loads(write_kit(STARTERS["school-mm"])) | {"compass": text})
        assert client.put("/api/kits/mine", json={"text": kit}).status_code == 409
        assert client.post("/api/work", json={"text": "O = datum\n", "kit": kit}).status_code in (
            409,
            422,
        )
    for name in ("..", ".", "-", " x"):
        assert client.put(f"/api/kits/{name}", json={"text": "{}"}).status_code in (
            404,
            405,
            409,
            422,
        )


def test_the_last_event_of_a_sitting_leaves_the_logbook_open(client: FlaskClient) -> None:
    uid = "0123abcd"
    client.post("/api/sittings", json={"uid": uid, "job": 1, "revision": 1})
    assert (
        client.post(
            f"/api/sittings/{uid}/events", json={"events": [{"number": 20_000, "kind": "done"}]}
        ).status_code
        == 200
    )
    amended = client.post(f"/api/sittings/{uid}/amendments", json={"of": 20_000, "kind": "undone"})
    assert amended.status_code == 409
    assert client.get("/api/logbook").status_code == 200
    assert (
        client.post("/api/sittings", json={"uid": "ffffffff", "job": 1, "revision": 77}).status_code
        == 404
    )


def exported(
    tmp_path: Path, change: Callable[[dict[str, Any]], None], file: str = "jobs/000001/job.json"
) -> Folder:
    """Carry a register away that holds a bit of everything, with one thing changed in a file."""
    store = fresh_store(tmp_path / "from.db")
    with store.writing() as session:
        add_job(session, "O = datum\n")
        begin(session, "0123abcd", 1, 1, "written")
        append(session, "0123abcd", [Event(1, "done", 1, "compass", 30.0)])
        put_kit(session, "mine", write_kit(STARTERS["school-mm"]), usual=True)
    export_register(store, Folder(tmp_path / "files"))
    store.close()
    path = tmp_path / "files" / file
    said = json.loads(path.read_text())
    change(said)
    path.write_text(json.dumps(said))
    return Folder(tmp_path / "files")


def _set(*path: str | int, to: object) -> Callable[[dict[str, Any]], None]:
    def change(said: Any) -> None:
        for key in path[:-1]:
            said = said[key]
        said[path[-1]] = to

    return change


JOB = [
    _set("schedule", to="bogus"),
    _set("kit", to="x" * 61),
    _set("id", to=2**63 - 1),
    _set("id", to=2**53),
    _set("revisions", 0, "number", to=2**63 - 1),
    _set("sittings", 0, "schedule", to="bogus"),
    _set("sittings", 0, "revision", to=9),
    _set("sittings", 0, "uid", to="../../x"),
    _set("sittings", 0, "events", 0, "off", to=1e308),
    _set("sittings", 0, "events", 0, "seconds", to=1e300),
    _set("sittings", 0, "events", 0, "step", to=200_000),
    _set("sittings", 0, "events", 0, "number", to=20_001),
    _set("sittings", 0, "events", 0, "kind", to="flown"),
    _set("sittings", 0, "events", to=[{"number": 1, "kind": "done"}] * 2),
]
KIT = [
    _set("kits", 0, "name", to="../x"),
    _set("kits", 0, "name", to=""),
    _set("kits", 0, "text", to="{}"),
    _set(
        "kits",
        0,
        "text",
        to=json.dumps(json.loads(write_kit(STARTERS["school-mm"])) | {"compass": "1e-5000"}),
    ),
    _set(
        "kits",
        0,
        "text",
        to=json.dumps(
            json.loads(write_kit(STARTERS["school-mm"]))
            | {"template_holes": [f"{n}/7" for n in range(1, 1500)]}
        ),
    ),
]


@pytest.mark.parametrize(
    ("file", "change"),
    [*(("jobs/000001/job.json", c) for c in JOB), *(("register.json", c) for c in KIT)],
)
def test_what_no_page_could_show_does_not_come_in(
    tmp_path: Path, file: str, change: Callable[[dict[str, Any]], None]
) -> None:
    files = exported(tmp_path, change, file)
    with pytest.raises(ArchiveError):
        import_register(open_store(tmp_path / "to.db"), files)


def test_what_comes_in_is_shown_on_every_page(
    client: FlaskClient, store: Store, tmp_path: Path
) -> None:
    import_register(store, exported(tmp_path, lambda said: None))
    for page in PAGES:
        assert client.get(page).status_code == 200, page


def test_a_row_that_cannot_be_read_harms_only_itself(client: FlaskClient, store: Store) -> None:
    """As an older desk may have taken it in: told by its number, and everything else is shown."""
    client.post("/api/sittings", json={"uid": "0123abcd", "job": 1, "revision": 1})
    events = [{"number": n, "kind": "done"} for n in (1, 2, 3)]
    client.post("/api/sittings/0123abcd/events", json={"events": events})
    client.put("/api/kits/mine", json={"text": write_kit(STARTERS["school-mm"])})
    with sqlite3.connect(store.path) as connection:
        connection.execute("UPDATE sitting_event SET off = 1e308 WHERE number = 2")
        connection.execute("UPDATE kit SET text = '{}'")
        connection.execute("INSERT INTO job_order VALUES (2, 'bogus', '', '')")
    logbook = client.get("/api/logbook").get_json()
    assert logbook["unread"] == 1
    assert [event["number"] for event in logbook["sittings"][0]["events"]] == [1, 3]
    for page in (*PAGES, "/api/jobs/2"):
        assert client.get(page).status_code == 200, page


@pytest.mark.parametrize(
    "worse",
    [
        "CREATE TRIGGER gone AFTER INSERT ON revision BEGIN DELETE FROM revision WHERE id = new.id; END",
        "CREATE VIEW seen AS SELECT * FROM job",
        "DROP TABLE kit",
        "DROP TABLE kit; CREATE VIEW kit AS SELECT 1 AS name, 2 AS text, 3 AS usual, 4 AS digest",
        "DROP INDEX ix_revision_job_id",
        "ALTER TABLE kit ADD COLUMN more TEXT",
        "UPDATE revision SET text = 'other'",
        "DELETE FROM revision",
    ],
)
def test_a_file_built_otherwise_than_a_register_takes_no_registers_place(
    tmp_path: Path, worse: str
) -> None:
    path, copy = tmp_path / "register.db", tmp_path / "copy.db"
    store = fresh_store(path)
    with store.writing() as session:
        add_job(session, "O = datum\n")
    backup(path, copy)
    with sqlite3.connect(copy) as connection:
        connection.executescript(worse)
    before = path.read_bytes()
    with pytest.raises(RegisterTrouble):
        restore(copy, path)
    assert path.read_bytes() == before
    again, _ = salvage(copy)
    with again.reading() as session:
        assert list_sittings(session) == []


def test_migrations_make_what_the_tables_say(tmp_path: Path) -> None:
    """A register that is brought up to date version by version is made as a new one is."""
    older_register(tmp_path / "old.db", known_versions()[0])
    for name in ("old.db", "new.db"):
        open_store(tmp_path / name).close()
        with sqlite3.connect(tmp_path / name) as connection:
            assert shape_of(connection) == expected_shape()
            assert version_of(connection) == known_versions()[-1]


def test_an_archive_is_measured_while_it_is_read(tmp_path: Path) -> None:
    """A small zip that says of itself that it is small, and is not; and damaged ones."""
    stream = io.BytesIO()
    with zipfile.ZipFile(stream, "w", zipfile.ZIP_DEFLATED) as file:
        file.writestr("register.json", b" " * (LARGEST_JSON + 1))
    data = bytearray(stream.getvalue())
    assert len(data) < 100_000
    size = (LARGEST_JSON + 1).to_bytes(4, "little")
    lied = bytes(data).replace(size, (100).to_bytes(4, "little"))
    store = fresh_store(tmp_path / "to.db")
    for data_of in (bytes(data), lied):
        with zipfile.ZipFile(io.BytesIO(data_of)) as file, pytest.raises(ArchiveError):
            import_register(store, Zip(file))
    spoilt = bytearray(data)
    spoilt[60:80] = b"\xff" * 20
    with (
        zipfile.ZipFile(io.BytesIO(bytes(spoilt))) as file,
        pytest.raises(ArchiveError, match="damaged"),
    ):
        import_register(store, Zip(file))


def test_a_sitting_is_of_a_revision_that_is_there(tmp_path: Path) -> None:
    store = fresh_store(tmp_path / "r.db")
    with store.writing() as session:
        add_job(session, "O = datum\n")
    with pytest.raises(UnknownJob), store.writing() as session:
        begin(session, "0123abcd", 1, 2, "written")
    with store.reading() as session:
        assert read_logbook(session).sittings == []


def test_no_cell_of_a_table_does_anything(client: FlaskClient) -> None:
    client.post("/api/sittings", json={"uid": "0123abcd", "job": 1, "revision": 1})
    said = '=HYPERLINK("x")'
    client.post(
        "/api/sittings/0123abcd/events",
        json={"events": [{"number": 1, "kind": "note", "text": said}]},
    )
    table = client.get("/api/logbook.csv").text
    assert "'=HYPERLINK" in table
    assert ",=" not in table


def test_the_page_says_which_register_it_is_of(client: FlaskClient, store: Store) -> None:
    page = client.get("/")
    name = page.text.partition('name="register" content="')[2].partition('"')[0]
    assert len(name) == 32
    assert page.headers["X-Entrick"] == "page"


def test_what_a_killed_copy_has_left_is_cleared_and_nothing_else(tmp_path: Path) -> None:
    register = tmp_path / "register.db"
    folder = tmp_path / "register-snapshots"
    (tmp_path / ".restoring-x").mkdir()
    folder.mkdir()
    names = [folder / ".2026-03-01.db-abc", folder / "2026-03-01.db", folder / ".2026-03-02.db-new"]
    for path in names:
        path.write_bytes(b"x")
    long_ago = time.time() - 7200
    for path in (*names[:2], tmp_path / ".restoring-x"):
        os.utime(path, (long_ago, long_ago))
    assert clear_leftovers(register) == 2
    assert sorted(path.name for path in folder.iterdir()) == [".2026-03-02.db-new", "2026-03-01.db"]
