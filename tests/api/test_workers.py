"""Workers: work is bounded in time and memory, is stopped when nobody waits, and lets the quick through."""

import importlib
import os
import subprocess
import sys
import threading
import time
from collections.abc import Iterator
from pathlib import Path

import pytest
from flask.testing import FlaskClient

from entrick.core.plan.document import Plan
from entrick.core.plan.edit import EditError, delete_line
from entrick.core.summarize import summarize
from entrick.store import Store
from entrick.web.http.app import create_app
from entrick.web.workers import pool as workers
from entrick.web.workers.forward import ANSWER, SUMMARIZE, TIDIED
from entrick.web.workers.pool import Busy, Gone, InProcess, Task, TooMuchWork, Workers

SOON = 60.0
"""Seconds within which what must happen has happened, on however busy a machine."""


# Tasks must be found by name in another process: these are, wherever the tests lie.
SPIN = "while True: pass"
SPIN_WHATEVER_COMES = """
while True:
    try:
        while True: pass
    except Exception: pass
"""
UNDECIDED = "from entrick.core.kind import Undecided\nraise Undecided('which', [])"


@pytest.fixture(scope="module")
def two() -> Iterator[Workers]:
    pool = Workers()
    yield pool
    pool.close()


def test_a_task_is_done_elsewhere_by_the_worker_that_worked_last(two: Workers) -> None:
    assert two.do(abs, -7) == 7
    assert two.do(os.getpid) == two.do(os.getpid) != os.getpid()


def test_a_worker_is_there_with_all_it_needs_loaded_and_one_plan_worked_out(two: Workers) -> None:
    """Its first answer is not to take longer than its next."""
    loaded = two.do(
        eval,
        "[m in __import__('sys').modules for m in ('entrick.web.workers.ready', 'lark', 'numpy')]",
    )
    assert loaded == [True, True, True]
    parsed = (
        "__import__('entrick.core.plan.reader', fromlist=['_']).read_line.cache_info().currsize"
    )
    assert two.do(eval, parsed) > 20


@pytest.mark.parametrize(
    "task",
    [
        (exec, SPIN),
        (exec, SPIN_WHATEVER_COMES),
        (bytearray, 2**30),
        (os.abort,),
        (sum, range(10**12)),
    ],
)
def test_work_without_end_is_stopped_and_the_desk_goes_on(
    two: Workers, task: tuple[object, ...], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(workers, "WALL", 4.0)  # a call into C hears no signal
    began = time.monotonic()
    with pytest.raises(TooMuchWork):
        two.do(*task)  # type: ignore[arg-type]
    assert time.monotonic() - began < SOON
    assert two.do(abs, -1) == 1


def test_what_the_task_raises_is_raised_here(two: Workers) -> None:
    with pytest.raises(EditError, match="no line 7"):
        two.do(delete_line, Plan(()), 7)
    with pytest.raises(
        RuntimeError, match="which"
    ):  # an exception that cannot travel comes as its words
        two.do(exec, UNDECIDED)


def test_what_nobody_waits_for_any_more_is_stopped(two: Workers) -> None:
    with pytest.raises(Gone):
        two.do(exec, SPIN_WHATEVER_COMES, gone=lambda: True)
    assert two.do(abs, -2) == 2


def test_long_work_makes_room_for_quick_work_and_too_much_of_it_is_refused(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    monkeypatch.setattr(workers, "YOUNG", 0.3)
    pool = Workers()
    pool.warm()
    outcomes: list[str] = []
    over = tmp_path / "over"
    until_over = f"import os, time\nwhile not os.path.exists({str(over)!r}): time.sleep(0.01)"

    def long() -> None:
        try:
            pool.do(exec, until_over)
            outcomes.append("done")
        except Busy:
            outcomes.append("busy")

    threads = [threading.Thread(target=long) for _ in range(workers.LONG + 4)]
    for index, thread in enumerate(threads, 1):
        thread.start()
        ends = time.monotonic() + SOON
        while pool.long._value > max(0, workers.LONG - index) and time.monotonic() < ends:  # type: ignore[attr-defined]
            time.sleep(0.01)
    assert pool.do(abs, -3) == 3, "quick work goes through"
    ends = time.monotonic() + SOON
    while outcomes.count("busy") < 4 and time.monotonic() < ends:
        time.sleep(0.01)
    over.touch()
    for thread in threads:
        thread.join()
    assert outcomes.count("busy") == 4
    assert outcomes.count("done") == workers.LONG
    assert len(pool.idle) <= workers.QUICK
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
    class Weary(InProcess):
        def do(self, task: object, *args: object, **options: object) -> object:
            if task in (ANSWER, TIDIED):
                raise TooMuchWork("this asks for more work than the desk does at once")
            return super().do(task, *args)  # type: ignore[arg-type]

    client: FlaskClient = create_app(store, Weary()).test_client()
    client.environ_base["HTTP_HOST"] = "127.0.0.1:8400"
    text = 'plan "Heavy"\nunits in\nO=datum\n'
    work = client.post(
        "/api/work",
        json={
            "text": text,
            "edit": {"op": "insert", "after": 3, "text": "A = point, 1 right of O"},
        },
    )
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


def test_the_web_process_works_nothing_out_and_loads_nothing_it_would_need_to() -> None:
    """It names tasks; whoever carries them out has numbers, parser and constructions."""
    loaded = (
        "import sys; import entrick.web.http.serve as _; print(*(n for n in sys.modules if n in ('numpy', 'cv2') or "
        "n.startswith(('entrick.core.', 'entrick.web.operations'))))"
    )
    found = subprocess.run(
        [sys.executable, "-c", loaded], capture_output=True, text=True, check=True
    ).stdout.split()
    assert "entrick.core.summary" in found, "what the register lists is plain data"
    heavy = ("core.solve", "core.moves", "core.display", "core.geometry", "web.operations")
    assert not [
        name
        for name in found
        if name.startswith((*(f"entrick.{each}" for each in heavy), "numpy", "cv2"))
    ]
    with pytest.raises(AttributeError):
        Task("entrick.web.operations", "nothing_like_it")()
    assert SUMMARIZE("O = datum\n") == summarize("O = datum\n"), "a task goes by its name"


def test_the_clock_does_not_strike_while_a_library_is_loaded(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """A module half loaded would stay so; the work after it has all its time."""
    slow = "import time\nend = time.process_time() + 0.5\nwhile time.process_time() < end:\n    sum(range(1000))\n"
    (tmp_path / "slow_to_load.py").write_text(slow)
    monkeypatch.syspath_prepend(str(tmp_path))
    clock = workers.Clock()
    clock.start(workers.Bounds(0.2, 0.4, 2**30))
    try:
        importlib.import_module("slow_to_load")
    finally:
        clock.stop()
    assert not clock.struck
    assert clock.loaded > 0
