"""Two desks that are processes of their own serve one register: nothing is lost, nothing given twice, nothing stale."""

from __future__ import annotations

import subprocess
import sys
import threading
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path

import pytest

from entrick.store import change_person, everybody, open_store, set_secret
from entrick.store.doors import TRIES
from entrick.web.secrets import hashed
from office import CHECKS, DRAWS, OTHER, RUNS, office_in
from processes import NAME, Process

PIN = "482913"


@pytest.fixture(params=["file", "server"])
def database(request: pytest.FixtureRequest, tmp_path: Path) -> str:
    where = (
        str(tmp_path / "r.db")
        if request.param == "file"
        else request.getfixturevalue("postgres").register()
    )
    with closing(open_store(where if "://" in where else Path(where))) as store:
        office_in(store)
        kept = hashed(PIN)
        with store.writing() as session:
            for who in (RUNS, DRAWS, CHECKS, OTHER):
                set_secret(session, who, kept)
    return where


@pytest.fixture
def desks(database: str) -> Iterator[tuple[Process, Process]]:
    both = Process(database), Process(database)
    yield both
    for each in both:
        each.stop()


def test_two_processes_are_one_desk(database: str, desks: tuple[Process, Process]) -> None:
    one, two = desks
    # Who asks otherwise than through the proxy is no proxy.
    assert one.ask("GET", "/", X_Forwarded_Host="elsewhere.test")[0] == 403
    assert one.ask("POST", "/api/work", {"text": ""}, Origin="https://elsewhere.test")[0] == 403
    assert one.ask("GET", "/api/jobs")[0] == 401
    # Of whoever has not come in no more is read than a passphrase is long.
    assert one.ask("POST", "/api/jobs", {"text": "#" * 5000})[0] == 413
    # Signed in at one is signed in at the other.
    draws, runs = one.sign_in(DRAWS, PIN), two.sign_in(RUNS, PIN)
    for desk in desks:
        assert desk.ask("GET", "/api/people/here", cookie=draws)[1]["you"] == DRAWS
        assert (
            desk.ask("POST", "/api/work", {"text": "O = datum\n"}, draws, Origin=f"https://{NAME}")[
                0
            ]
            == 200
        )
    _no_number_is_given_twice(desks, draws)
    _no_save_is_lost(desks, draws)
    _wrong_pins_are_counted_once(desks)
    # Taken out at one is out at the other.
    assert one.ask("DELETE", f"/api/people/{DRAWS}", cookie=runs)[0] == 200
    assert two.ask("GET", "/api/jobs", cookie=draws)[0] == 401
    # One is killed: the other goes on, and what was saved is there.
    one.stop(kill=True)
    status, told, _ = two.ask("GET", "/api/jobs?size=200", cookie=runs)
    assert status == 200
    assert told["total"] > 10


def _no_number_is_given_twice(desks: tuple[Process, Process], cookie: str) -> None:
    entered: list[tuple[int, str]] = []

    def enter(desk: Process) -> None:
        for _ in range(5):
            status, job, _ = desk.ask("POST", "/api/jobs", {"title": "Pawl"}, cookie)
            assert status == 201, job
            entered.append((job["id"], job["drawing"]))

    _together([lambda desk=desk: enter(desk) for desk in desks for _ in range(2)])  # type: ignore[misc]
    assert len(entered) == 20
    assert len({number for number, _ in entered}) == len({drawing for _, drawing in entered}) == 20


def _no_save_is_lost(desks: tuple[Process, Process], cookie: str) -> None:
    saved: list[tuple[int, str]] = []

    def save(desk: Process, who: int) -> None:
        done = 0
        while done < 5:
            newest = desk.ask("GET", "/api/jobs/2", cookie=cookie)[1]["newest"]["number"]
            text = f"O = datum\n# {who} for the {done}. time\n"
            status, told, _ = desk.ask(
                "POST", "/api/jobs/2/revisions", {"text": text, "based_on": newest}, cookie
            )
            assert status in (201, 409), told
            if status == 201:
                saved.append((told["number"], text))
                done += 1

    _together([lambda desk=desk, n=n: save(desk, n) for n, desk in enumerate([*desks, *desks])])  # type: ignore[misc]
    there = desks[0].ask("GET", "/api/jobs/2/revisions", cookie=cookie)[1]["revisions"]
    texts = {each["number"]: each["text"] for each in there}
    assert sorted(texts) == list(range(1, 22)), "one after another, without a gap"
    assert dict(saved) == {number: text for number, text in texts.items() if number > 1}


def _wrong_pins_are_counted_once(desks: tuple[Process, Process]) -> None:
    """Whichever process is asked, after so many wrong PINs none is looked at, not the right one either."""
    for number in range(TRIES):
        body = {"person": OTHER, "secret": f"00000{number}"}
        assert desks[number % 2].ask("POST", "/api/people/here", body)[0] == 403
    for desk in desks:
        assert desk.ask("POST", "/api/people/here", {"person": OTHER, "secret": PIN})[0] == 429


def _together(works: list[object]) -> None:
    failed: list[BaseException] = []

    def carried(work: object) -> None:
        try:
            work()  # type: ignore[operator]
        except BaseException as error:
            failed.append(error)

    threads = [threading.Thread(target=carried, args=(work,)) for work in works]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert failed == []


def test_both_begin_on_an_empty_register_at_once(postgres: object) -> None:
    """The tables are made once, and there is one first person."""
    where = postgres.fresh()  # type: ignore[attr-defined]
    opens = "import sys; from entrick.store import open_store; open_store(sys.argv[1]).close()"
    begun = [subprocess.Popen([sys.executable, "-c", opens, where]) for _ in range(3)]
    assert [each.wait(60) for each in begun] == [0, 0, 0]
    with closing(open_store(where)) as store:
        with store.writing() as session:
            change_person(session, RUNS, "Ostler", "OS")
        with store.reading() as session:
            assert [each.name for each in everybody(session)] == ["Ostler"]
