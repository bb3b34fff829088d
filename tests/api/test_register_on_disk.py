"""The register on disk: private, sound, copied, carried away and back, salvaged when damaged."""

import json
import os
import re
import shutil
import sqlite3
import stat
from collections import namedtuple
from contextlib import suppress
from datetime import UTC, date, datetime, timedelta
from io import BytesIO
from pathlib import Path
from random import Random
from zipfile import ZipFile

import pytest
from click.testing import CliRunner
from flask.testing import FlaskClient
from hypothesis import given
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, rule

from entrick.cli import main
from entrick.core.board.kits import STARTERS, write_kit
from entrick.core.logbook.sitting import Event
from entrick.core.summary import Summary
from entrick.store import (
    AnswerView,
    ArchiveError,
    Folder,
    RegisterTrouble,
    StaleSave,
    Store,
    add_job,
    append,
    backup,
    begin,
    export_register,
    import_register,
    list_jobs,
    listed,
    one_job,
    open_store,
    outdated,
    put_answer,
    put_kit,
    remove_kit,
    renew,
    restore,
    revisions,
    save_revision,
    set_archived,
    set_order,
    set_removed,
    snapshot,
    snapshots_of,
)
from entrick.store.backup import DAYS, kept
from entrick.store.salvage import NAMES
from entrick.web.http.serve import Door, opened
from entrick.web.register.keeper import Keeper
from entrick.web.workers.pool import InProcess
from examples import IS_DEEP, examples
from registers import fresh_store


def filled(path: Path, jobs: int = 12, seed: int = 1) -> Store:
    """Make a register with some history; long texts lie on several pages."""
    pick, store = Random(seed), open_store(path)
    with store.writing() as session:
        for number in range(jobs):
            job = add_job(session, f'plan "Part {number}"\nO = datum\n', f"note {number}")
            for based_on in range(1, pick.randint(1, 4)):
                save_revision(
                    session,
                    job.id,
                    f"# {based_on} {'x' * pick.choice([10, 500, 9000])}\n",
                    based_on,
                )
            if number % 5 == 4:
                set_archived(session, job.id, True)
    return store


Said = dict[int, tuple[datetime, bool, list[tuple[int, int | None, str, str, datetime]]]]


def said(store: Store) -> Said:
    """Return everything a register holds."""
    found: Said = {}
    with store.reading() as session:
        for archived in (False, True):
            for job in list_jobs(session, archived, size=10_000).jobs:
                view = one_job(session, job.id)
                history = [
                    (r.number, r.based_on, r.text, r.note, r.saved_at)
                    for r in revisions(session, job.id)
                ]
                found[job.id] = (view.created_at, view.archived, history)
    return found


def test_the_named_file_alone_is_the_data_after_a_clean_stop_and_nobody_else_may_read_it(
    tmp_path: Path,
) -> None:
    path = tmp_path / "new" / "register.db"
    store = filled(path)
    assert {stat.S_IMODE(file.stat().st_mode) for file in path.parent.iterdir()} == {0o600}
    assert stat.S_IMODE(path.parent.stat().st_mode) == 0o700
    before = said(store)
    store.close()
    shutil.copy(path, tmp_path / "alone.db")
    assert said(open_store(tmp_path / "alone.db")) == before


def test_a_backup_is_taken_while_somebody_saves_and_put_back(tmp_path: Path) -> None:
    path, copy = tmp_path / "register.db", tmp_path / "copy.db"
    store = filled(path)
    before = said(store)
    with store.writing() as session:
        add_job(session, "# not committed yet\n")
        backup(path, copy)
    assert list(tmp_path.glob(".*")) == []
    with store.writing() as session:
        save_revision(session, 1, "# after the backup\n", one_job(session, 1).newest.number)
    now = said(store)
    was = restore(copy, path)
    assert said(store) == before, "whoever has it open sees what was put back"
    assert was is not None
    assert said(open_store(was)) == now, "what was there before is kept"
    (tmp_path / "bad.db").write_bytes(b"not a register at all" * 99)
    with pytest.raises(RegisterTrouble, match="no register"):
        restore(tmp_path / "bad.db", path)
    assert said(store) == before


@given(st.sets(st.integers(0, 500)), st.integers(500, 520))
def test_snapshots_are_thinned_and_never_lose_the_last_days(ages: set[int], today: int) -> None:
    start = date(2026, 1, 1)
    days = {start + timedelta(age) for age in ages}
    left = kept(days, start + timedelta(today))
    assert set(sorted(days)[-DAYS:]) <= left <= days
    assert len(left) <= 14 + 8 + 12
    assert kept(left, start + timedelta(today)) == left, (
        "what was kept today is kept when looked at again"
    )


@given(st.sets(st.integers(0, 500)), st.integers(-400, 600))
def test_a_clock_set_back_costs_no_snapshot(ages: set[int], today: int) -> None:
    start = date(2026, 1, 1)
    days = {start + timedelta(age) for age in ages}
    left = kept(days, start + timedelta(today))
    assert {day for day in days if day > start + timedelta(today)} <= left


def test_a_snapshot_is_taken_once_a_day(tmp_path: Path) -> None:
    path = tmp_path / "register.db"
    store = filled(path, 2)
    for day in range(1, 41):
        assert snapshot(path, date(2026, 3, 1) + timedelta(day)) is not None
    assert snapshot(path, date(2026, 4, 10)) is None
    there = sorted(snapshots_of(path).glob("*.db"))
    assert DAYS < len(there) < 40
    assert said(open_store(there[0])) == said(store)


def test_a_round_trip_through_open_files_gives_the_same_register(tmp_path: Path) -> None:
    store = filled(tmp_path / "register.db")
    assert export_register(store, Folder(tmp_path / "files")) == 12
    assert (
        tmp_path / "files/jobs/000001/revision-0001.entrick"
    ).read_text() == 'plan "Part 0"\nO = datum\n'
    other = fresh_store(tmp_path / "other.db")
    heard: list[tuple[int, int]] = []
    came = import_register(
        other, Folder(tmp_path / "files"), lambda done, of: heard.append((done, of))
    )
    assert (came.jobs, came.known) == (12, 0)
    assert heard[-1] == (12, 12)
    assert said(other) == said(store)
    assert import_register(other, Folder(tmp_path / "files")).known == 12, (
        "what is there is not entered twice"
    )
    third = filled(tmp_path / "third.db", 1, seed=7)
    with third.writing() as session:
        save_revision(session, 1, "# mine\n", one_job(session, 1).newest.number)
    assert import_register(third, Folder(tmp_path / "files")).jobs == 12
    assert len(said(third)) == 13, "a number that is taken is not taken over"


@pytest.mark.parametrize(
    ("file", "content", "told"),
    [
        ("register.json", None, "no register.json"),
        ("register.json", "[]", "register.json"),
        ("register.json", '{"entrick": 9, "jobs": []}', "version 9"),
        ("register.json", '{"entrick": 1, "jobs": ["../../etc"]}', "register.json"),
        ("jobs/000002/job.json", None, "000002/job.json"),
        ("jobs/000002/job.json", '{"id": 1}', "000002/job.json"),
        ("jobs/000003/revision-0001.entrick", None, "revision-0001"),
        ("jobs/000003/revision-0001.entrick", "x" * 100_001, "longer"),
    ],
)
def test_files_that_are_no_whole_register_enter_nothing(
    tmp_path: Path, file: str, content: str | None, told: str
) -> None:
    export_register(filled(tmp_path / "register.db", 4), Folder(tmp_path / "files"))
    path = tmp_path / "files" / file
    path.unlink() if content is None else path.write_text(content)
    other = fresh_store(tmp_path / "other.db")
    with pytest.raises(ArchiveError, match=told):
        import_register(other, Folder(tmp_path / "files"))
    assert said(other) == {}


def test_the_shell_backs_up_restores_exports_and_imports(tmp_path: Path) -> None:
    register, run = tmp_path / "register.db", CliRunner().invoke
    before = said(filled(register, 3))
    where = ["--database", str(register)]
    assert run(main, ["backup", str(tmp_path / "b.db"), *where]).exit_code == 0
    assert "3 jobs" in run(main, ["export", str(tmp_path / "files"), *where]).output
    assert "not empty" in run(main, ["export", str(tmp_path / "files"), *where]).output
    assert (
        run(
            main, ["import", str(tmp_path / "files"), "--database", str(tmp_path / "n.db")]
        ).exit_code
        == 0
    )
    assert said(open_store(tmp_path / "n.db")) == before
    assert run(main, ["restore", str(tmp_path / "b.db"), *where]).exit_code == 0
    bad = run(main, ["backup", str(tmp_path / "c.db"), "--database", str(tmp_path / "nowhere.db")])
    assert bad.exit_code == 1
    assert bad.output.startswith("Error: ")
    assert bad.output.count("\n") == 1


def test_the_register_is_carried_away_and_back_over_http(
    client: FlaskClient, store: Store, tmp_path: Path
) -> None:
    away = client.get("/api/register/export.zip")
    assert away.mimetype == "application/zip"
    assert json.loads(ZipFile(BytesIO(away.data)).read("register.json"))["entrick"] == 2
    again = client.post("/api/register/import", data=away.data, content_type="application/zip")
    steps = [json.loads(row) for row in again.text.splitlines()]
    assert steps[-1] == {"jobs": 0, "known": len(said(store))}
    assert steps[0] == {"done": 1, "of": len(said(store))}
    for data in (b"", b"PK", b"x" * 99):
        refused = client.post("/api/register/import", data=data, content_type="application/zip")
        assert refused.status_code == 422
        assert "Nothing was entered" in refused.json["detail"]  # type: ignore[index]
    assert (
        client.post("/api/register/import", data=b"x", content_type="text/plain").status_code == 415
    )


TABLES = ("job", "revision", "job_order", "sitting", "sitting_event", "kit", "practice_answer")


def everything(path: Path, jobs: int = 12) -> Store:
    """Make a register with something of everything in it, and something taken away again."""
    pick, store = Random(3), filled(path, jobs)
    with store.writing() as session:
        for name in ("one", "two", "gone"):
            put_kit(session, name, write_kit(STARTERS["school-mm"]), usual=name == "two")
        for number in range(40):
            at = datetime(2026, 3, 1, tzinfo=UTC) + timedelta(hours=number)
            own = AnswerView(f"{number:08x}-a", at, f"Part {number}", "radius", 0.5, ("x",), ())
            put_answer(session, own)
        for number in range(1, 9):
            job = pick.randint(1, jobs)
            set_order(session, job, schedule="settings", kit="two")
            begin(session, f"{number:08x}", job, 1, "settings", kit="two")
            events = [
                Event(n, "done", n, "compass", 30.0 + n, 0.25 * n, f"step {n}")
                for n in range(1, pick.randint(5, 60))
            ]
            append(session, f"{number:08x}", events)
    with store.writing() as session:
        remove_kit(session, "gone")
        set_removed(session, "00000003", True)
    return store


def rows_in(path: Path) -> dict[str, set[tuple[object, ...]]]:
    """Return every row of every table that is kept, by table; numbers SQLite gives itself left out."""
    connection = sqlite3.connect(path)
    found = {}
    for table in TABLES:
        read = connection.execute(f"SELECT * FROM {table}")
        names = [column[0] for column in read.description]
        own = {"revision", "sitting_event", "practice_answer"}
        skip = names.index("id") if table in own else -1
        found[table] = {tuple(v for i, v in enumerate(row) if i != skip) for row in read}
    connection.close()
    return found


def damaged_somewhere(whole: bytes, pick: Random) -> bytes:
    """Return a file with a page zeroed, some bytes changed, a stretch overwritten, or its end gone."""
    data, at = bytearray(whole), pick.randrange(len(whole))
    match pick.randrange(4):
        case 0:
            page = at // 4096 * 4096
            data[page : page + 4096] = bytes(4096)
        case 1:
            for _ in range(pick.randint(1, 20)):
                data[pick.randrange(len(data))] ^= 1 << pick.randrange(8)
        case 2:
            long = min(pick.randint(1, 9000), len(data) - at)
            data[at : at + long] = pick.randbytes(long)
        case _:
            del data[max(4096, at) :]
    return bytes(data)


@pytest.fixture(scope="module")
def whole(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A register with everything in it, made once."""
    path = tmp_path_factory.mktemp("whole") / "register.db"
    everything(path).close()
    return path


@pytest.mark.parametrize("number", range(300 if IS_DEEP else 12))
def test_whatever_is_damaged_is_noticed_salvaged_and_counted(
    tmp_path: Path, whole: Path, number: int
) -> None:
    """Each row that comes is one that was saved; what is told to be missing is what is missing, and nothing is told to
    be whole that is not."""
    path, before = tmp_path / "register.db", rows_in(whole)
    path.write_bytes(damaged_somewhere(whole.read_bytes(), Random(number)))
    broken = path.read_bytes()
    try:
        store, notice = opened(path)
    except RegisterTrouble:
        digests = [str(row[-1]).encode() for rows in before.values() for row in rows]
        assert not any(digest in broken for digest in digests), "there was something to salvage"
        assert path.read_bytes() == broken
        return
    store.close()
    after = rows_in(path)
    if not notice:
        assert after == before, "what was not noticed did not matter"
        return
    aside = next(path.parent.glob("*.damaged-*[0-9]"))
    assert aside.read_bytes() == broken, "the damaged file is as it was"
    report = aside.with_name(aside.name + ".txt").read_text()
    for table, own in after.items():
        made_up = own - before[table]
        # A job whose own row is lost begins with its first revision.
        assert not made_up or table == "job", made_up
        came, told = re.search(rf"  {NAMES[table]}: (\d+), (.*)", report).groups()  # type: ignore[union-attr]
        if "nobody can tell" in told:
            continue
        placeless = report.count(f"\n  {table} {{")
        missing = len(before[table]) - int(came) - placeless
        assert told == f"{missing} missing", table
    if "Nothing is missing" in report:
        assert after == before


def test_bytes_changed_within_a_text_are_noticed(tmp_path: Path) -> None:
    path = tmp_path / "register.db"
    filled(path).close()
    data = path.read_bytes()
    path.write_bytes(data.replace(b"Part 3", b"Port 3"))
    fresh, notice = opened(path)
    assert "salvaged" in notice
    assert 4 not in said(fresh) or len(said(fresh)[4][2]) < 4


def test_a_page_zeroed_in_the_log_is_noticed_and_work_after_it_salvaged(tmp_path: Path) -> None:
    path = tmp_path / "register.db"
    store = filled(path)
    before = said(store)
    log = path.with_name("register.db-wal").read_bytes()
    frames = (len(log) - 32) // 4120
    assert frames > 20
    for frame in range(0, frames, 7):
        copy = tmp_path / f"copy{frame}.db"
        shutil.copy(path, copy)
        at = 32 + frame * 4120
        copy.with_name(copy.name + "-wal").write_bytes(log[:at] + bytes(4120) + log[at + 4120 :])
        fresh, notice = opened(copy)
        assert "salvaged" in notice
        there = {
            (job, r[0]): r[2:4] for job, (_, _, history) in said(fresh).items() for r in history
        }
        was = {(job, r[0]): r[2:4] for job, (_, _, history) in before.items() for r in history}
        assert there.items() <= was.items()
        assert len(there) > len(was) / 2


Usage = namedtuple("Usage", "total used free")


@pytest.mark.parametrize("cause", ["newer", "foreign", "locked", "read-only", "full"])
def test_a_register_that_cannot_be_used_is_told_plainly_and_left_alone(
    tmp_path: Path, cause: str, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    path = tmp_path / "register.db"
    filled(path, 2).close()
    holder = sqlite3.connect(path)
    if cause == "newer":
        holder.execute("UPDATE alembic_version SET version_num = '9999'")
        holder.commit()
    elif cause == "foreign":
        path.write_bytes(b"a shopping list\n" * 400)
    elif cause == "locked":
        holder.execute("PRAGMA locking_mode = EXCLUSIVE")
        holder.execute("PRAGMA journal_mode = DELETE")
        holder.execute("BEGIN EXCLUSIVE")
    elif cause == "full":
        monkeypatch.setattr(shutil, "disk_usage", lambda _: Usage(10, 10, 0))
    else:
        real = os.open

        def closed(file: object, *rest: int) -> int:
            if file == path:
                raise PermissionError(13, "Permission denied", str(path))
            return real(file, *rest)  # type: ignore[arg-type]

        monkeypatch.setattr(os, "open", closed)
    content = path.read_bytes()
    door = Door(path, False, InProcess())  # type: ignore[arg-type]
    door.open()
    assert door.trouble is not None
    assert door.trouble.cause == cause
    said_so = capsys.readouterr().out
    assert said_so.count("\n") == 1
    assert str(path) in said_so
    heard: list[tuple[str, list[tuple[str, str]]]] = []
    page = b"".join(
        door({"PATH_INFO": "/"}, lambda status, headers: heard.append((status, headers)))
    ).decode()
    assert heard[0][0].startswith("503")
    assert door.trouble.safe in page
    assert door.trouble.todo.split(";")[0] in page
    assert path.read_bytes() == content
    assert [file.name for file in tmp_path.glob("*damaged*")] == []
    holder.close()
    monkeypatch.undo()
    if cause in ("locked", "full", "read-only"):
        door.tried = 0.0
        door.open()
        assert door.desk is not None, "once the cause is gone, it opens"
    door.close()


def test_a_lock_held_elsewhere_makes_saving_wait_and_say_so_and_reading_not(
    client: FlaskClient, store: Store
) -> None:
    holder = sqlite3.connect(store.path, isolation_level=None)
    holder.execute("BEGIN IMMEDIATE")
    refused = client.post("/api/jobs/1/revisions", json={"text": "O = datum\n", "based_on": 1})
    assert refused.status_code == 503
    assert refused.headers["Retry-After"]
    assert "Nothing was saved" in refused.json["detail"]  # type: ignore[index]
    assert client.get("/api/jobs").status_code == 200
    assert client.get("/api/jobs/1").status_code == 200
    holder.execute("ROLLBACK")
    assert (
        client.post(
            "/api/jobs/1/revisions", json={"text": "O = datum\n", "based_on": 1}
        ).status_code
        == 201
    )


def test_a_full_disk_refuses_the_save_and_keeps_what_is_there(
    client: FlaskClient, store: Store
) -> None:
    store.close()
    with store.engine.connect() as connection:
        pages = connection.exec_driver_sql("PRAGMA page_count").scalar()
        connection.exec_driver_sql(f"PRAGMA max_page_count = {pages}")
    with store.reading() as session:
        count = len(revisions(session, 1))
    answers = [
        client.post(
            "/api/jobs/1/revisions", json={"text": f"# {'x' * 90_000}\n", "based_on": number}
        ).status_code
        for number in range(count, count + 6)
    ]
    assert 507 in answers
    assert set(answers) <= {201, 507, 409}
    assert client.get("/api/jobs/1").status_code == 200


def test_the_keeper_renews_what_another_core_worked_out(
    store: Store, monkeypatch: pytest.MonkeyPatch
) -> None:
    with store.writing() as session:
        job = add_job(
            session, 'plan "Old"\nO = datum\nc = circle, centre O, radius 9\nrim = line in, c\n'
        )
        other = add_job(session, "x = nonsense\n", made=Summary(title="kept"))
    monkeypatch.setattr("entrick.store.listing.version", lambda: "another")
    with store.reading() as session:
        assert {found for found, _ in outdated(session, 9)} == {job.id, other.id}
        assert all(row.pending for row in list_jobs(session).jobs)
    Keeper(store, InProcess()).renew_all()
    with store.reading() as session:
        rows = {row.id: row for row in list_jobs(session).jobs}
        alone = listed(session, job.id)
    assert rows[job.id].made.outlines == 1
    assert rows[job.id].pictured
    assert alone
    assert "<circle" in alone.made.thumbnail
    assert rows[other.id].made.mistakes == 1
    assert not any(row.pending for row in rows.values())
    with store.writing() as session:
        save_revision(session, job.id, "# newer\n", 1)
        renew(session, job.id, "an older text", Summary(title="stale"))
    with store.reading() as session:
        assert (
            next(row for row in list_jobs(session).jobs if row.id == job.id).made.title != "stale"
        )


def test_five_thousand_jobs_are_listed_a_page_at_a_time(store: Store) -> None:
    with store.writing() as session:
        for number in range(300):
            add_job(
                session,
                "",
                made=Summary(title=f"Part {number:03} 50%_", drawing=f"OY-{999 - number}"),
            )
    with store.reading() as session:
        assert list_jobs(session).total == 300
        pages = [list_jobs(session, page=page, size=70) for page in range(1, 7)]
        ids = [job.id for page in pages for job in page.jobs]
        assert len(ids) == len(set(ids)) == 300
        assert ids == sorted(ids, reverse=True)
        assert [job.made.title for job in list_jobs(session, order="title", size=2).jobs] == [
            "Part 000 50%_",
            "Part 001 50%_",
        ]
        assert list_jobs(session, order="drawing", size=1).jobs[0].made.drawing == "OY-700"
        assert list_jobs(session, search="oy-7 part").total == 100
        assert list_jobs(session, search="50%_").total == 300
        assert list_jobs(session, search="%%").total == 0


class Registered(RuleBasedStateMachine):
    """Save, save on an old revision, copy, archive, restore, close and open again; beside it, what must be there."""

    @initialize()
    def begin(self) -> None:
        import tempfile

        self.folder = tempfile.TemporaryDirectory()
        self.path = Path(self.folder.name) / "register.db"
        self.store = fresh_store(self.path)
        self.jobs: dict[int, list[str]] = {}
        self.away: set[int] = set()
        self.copies: list[tuple[Path, dict[int, list[str]], set[int]]] = []

    def _any(self, number: int) -> int:
        return sorted(self.jobs)[number % len(self.jobs)]

    @rule(text=st.text(max_size=30))
    def add(self, text: str) -> None:
        text = text.encode("utf-8", "replace").decode()
        with self.store.writing() as session:
            self.jobs[add_job(session, text).id] = [text]

    @rule(number=st.integers(0, 99), text=st.text(max_size=30), late=st.integers(0, 2))
    def save(self, number: int, text: str, late: int) -> None:
        if not self.jobs:
            return
        job, text = self._any(number), text.encode("utf-8", "replace").decode()
        based_on = len(self.jobs[job]) - late
        try:
            with self.store.writing() as session:
                save_revision(session, job, text, based_on)
            assert late == 0
            self.jobs[job].append(text)
        except StaleSave as stale:
            newest = stale.newest.number
            assert (late > 0, newest) == (True, len(self.jobs[job]))

    @rule(number=st.integers(0, 99))
    def lose_power_while_saving(self, number: int) -> None:
        if not self.jobs:
            return
        job = self._any(number)
        with suppress(ZeroDivisionError), self.store.writing() as session:
            save_revision(session, job, "half", len(self.jobs[job]))
            raise ZeroDivisionError

    @rule(number=st.integers(0, 99), away=st.booleans())
    def archive(self, number: int, away: bool) -> None:
        if not self.jobs:
            return
        job = self._any(number)
        with self.store.writing() as session:
            set_archived(session, job, away)
        (self.away.add if away else self.away.discard)(job)

    @rule()
    def copy(self) -> None:
        file = Path(self.folder.name) / f"copy{len(self.copies)}.db"
        backup(self.path, file)
        self.copies.append(
            (file, {job: list(texts) for job, texts in self.jobs.items()}, set(self.away))
        )

    @rule(number=st.integers(0, 99))
    def put_back(self, number: int) -> None:
        if not self.copies:
            return
        file, jobs, away = self.copies[number % len(self.copies)]
        restore(file, self.path)
        self.jobs, self.away = {job: list(texts) for job, texts in jobs.items()}, set(away)

    @rule(clean=st.booleans())
    def open_again(self, clean: bool) -> None:
        self.store.close() if clean else self.store.engine.dispose()
        self.store = open_store(self.path)

    @invariant()
    def all_is_there(self) -> None:
        found = said(self.store)
        assert {
            job: [r[2] for r in reversed(history)] for job, (_, _, history) in found.items()
        } == self.jobs
        assert {job for job, (_, archived, _) in found.items() if archived} == self.away

    def teardown(self) -> None:
        self.store.close()
        self.folder.cleanup()


TestRegistered = Registered.TestCase
TestRegistered.settings = examples(4, stateful_step_count=20)
