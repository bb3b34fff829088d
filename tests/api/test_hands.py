"""Hands: work is bounded in time and memory, is stopped when nobody waits, and lets the quick through."""

import os
import threading
import time
from collections.abc import Iterator

import pytest
from flask.testing import FlaskClient

from entrick.core.plan.edit import EditError
from entrick.core.solve import Undecided
from entrick.store import Store
from entrick.web import create_app, hands
from entrick.web.hands import Busy, Gone, Hands, TooMuchWork

SOON = 60.0
"""Seconds within which what must happen has happened, on however busy a machine."""


def echo(value: object) -> object:
    return value


def who() -> int:
    return os.getpid()


def spin() -> None:
    while True:
        pass


def spin_whatever_comes() -> None:
    while True:
        try:
            spin()
        except Exception:
            continue


def fill() -> int:
    return len(bytearray(2**30))


def die() -> None:
    os.kill(os.getpid(), 9)


def refuse() -> None:
    raise EditError("the plan has no line 7")


def undecided() -> None:
    raise Undecided("which", [])


def wait(seconds: float) -> float:
    time.sleep(seconds)
    return seconds


@pytest.fixture(scope="module")
def two() -> Iterator[Hands]:
    pool = Hands()
    yield pool
    pool.close()


def test_a_task_is_done_elsewhere_by_the_hand_that_worked_last(two: Hands) -> None:
    assert two.do(echo, "x") == "x"
    assert two.do(who) == two.do(who) != os.getpid()


@pytest.mark.parametrize("task", [spin, spin_whatever_comes, fill, die])
def test_work_without_end_is_stopped_and_the_desk_goes_on(two: Hands, task: object) -> None:
    began = time.monotonic()
    with pytest.raises(TooMuchWork):
        two.do(task)  # type: ignore[arg-type]
    assert time.monotonic() - began < SOON
    assert two.do(echo, 1) == 1


def test_what_the_task_raises_is_raised_here(two: Hands) -> None:
    with pytest.raises(EditError, match="no line 7"):
        two.do(refuse)
    with pytest.raises(RuntimeError, match="which"):  # an exception that cannot travel comes as its words
        two.do(undecided)


def test_what_nobody_waits_for_any_more_is_stopped(two: Hands) -> None:
    with pytest.raises(Gone):
        two.do(spin_whatever_comes, gone=lambda: True)
    assert two.do(echo, 2) == 2


def test_long_work_makes_room_for_quick_work_and_too_much_of_it_is_refused(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(hands, "YOUNG", 0.05)
    monkeypatch.setattr(hands, "PATIENCE", 0.3)
    pool = Hands()
    pool.warm()
    outcomes: list[str] = []

    def long() -> None:
        try:
            pool.do(wait, 3.0)
            outcomes.append("done")
        except Busy:
            outcomes.append("busy")

    threads = [threading.Thread(target=long) for _ in range(hands.LONG + 4)]
    for index, thread in enumerate(threads, 1):
        thread.start()
        ends = time.monotonic() + SOON
        while pool.long._value > max(0, hands.LONG - index) and time.monotonic() < ends:  # type: ignore[attr-defined]
            time.sleep(0.01)
    assert pool.do(echo, 3) == 3, "quick work goes through"
    for thread in threads:
        thread.join()
    assert outcomes.count("busy") == 4
    assert outcomes.count("done") == hands.LONG
    assert len(pool.idle) <= hands.QUICK
    pool.close()


def test_a_busy_desk_says_so_and_says_when_to_come_again(store: Store) -> None:
    class Full:
        def do(self, *_: object, **__: object) -> None:
            raise Busy("everybody at the desk is at work")

        def close(self) -> None:
            return None

    app = create_app(store, Full())
    client: FlaskClient = app.test_client()
    client.environ_base["HTTP_HOST"] = "127.0.0.1:8400"
    answer = client.post("/api/work", json={"text": "O = datum\n"})
    assert answer.status_code == 503
    assert int(answer.headers["Retry-After"]) >= 1
    saved = client.post("/api/jobs", json={"text": 'plan "Kept"\nO = datum\n'})
    assert saved.status_code == 201, "saving does not wait for anybody"
    assert saved.json is not None
    assert saved.json["pending"]
    assert saved.json["title"] == "Kept"


def test_a_plan_that_asks_for_too_much_still_has_its_text(store: Store) -> None:
    class Weary:
        def do(self, *_: object, **__: object) -> None:
            raise TooMuchWork("this asks for more work than the desk does at once")

        def close(self) -> None:
            return None

    client: FlaskClient = create_app(store, Weary()).test_client()
    client.environ_base["HTTP_HOST"] = "127.0.0.1:8400"
    text = 'plan "Heavy"\nunits in\nO=datum\n'
    work = client.post("/api/work", json={"text": text, "edit": {"op": "insert", "after": 3, "text": "A = point, 1 right of O"}})
    assert work.status_code == 200
    assert work.json is not None
    assert work.json["text"] == 'plan "Heavy"\nunits in\nO = datum\nA = point, 1 right of O\n'
    assert "more work" in work.json["trouble"]
    job = client.post("/api/jobs", json={"text": text}).json
    assert job is not None
    assert "more work" in job["trouble"]
    assert client.post("/api/export/entrick", json={"text": text}).text.endswith("O = datum\n")
    assert client.post("/api/export/pdf", json={"text": text}).status_code == 422
    assert client.post("/api/jobs", json={"copy_of": job["id"]}).status_code == 201
    assert client.patch(f"/api/jobs/{job['id']}", json={"archived": True}).status_code == 200
