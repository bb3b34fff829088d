"""``make load``: many at the desk at once, and the heaviest work there is. Prints latencies and
memory.

The desk is started as a drafter starts it, on a register of its own, and asked over HTTP.
"""

from __future__ import annotations

import http.client
import json
import socket
import statistics
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

from entrick.demo import sample_plans

HEAD = "units mm\nsheet A3 landscape, scale 1:1, border 10\nO = datum\n"
GEAR = HEAD + "w = gear, about O, {} teeth, module 1, bore diameter 10\n"
HEAVY: dict[str, tuple[str, dict[str, object]]] = {
    "turn a gear into 360 places": (
        "/api/work",
        {"text": GEAR.format(24) + "r = turn, of w, 360 about O\n"},
    ),
    "twenty gears": (
        "/api/work",
        {
            "text": GEAR.format(60)
            + "".join(f"r{i} = shift, of w, {70 * i + 70} right\n" for i in range(20))
        },
    ),
    "wall round a gear of 96 teeth": (
        "/api/work",
        {"text": GEAR.format(96) + "v = inset, of w, wall 3\n"},
    ),
    "region in a gear of 360 teeth": (
        "/api/regions",
        {"text": GEAR.format(360), "spots": [[210, 160]], "kind": "line in"},
    ),
    "findings of twelve gears": (
        "/api/proof",
        {
            "text": GEAR.format(60)
            + "".join(
                f"r{i} = shift, of w, {70 * i + 70} right\nm{i} = line in, r{i}\n"
                for i in range(12)
            )
        },
    ),
    "dimensions of four gears": (
        "/api/suggest",
        {
            "text": GEAR.format(40)
            + "".join(
                f"r{i} = shift, of w, {70 * i + 70} right\nm{i} = line in, r{i}\n" for i in range(4)
            )
        },
    ),
    "a box of 900 m at 1000:1": (
        "/api/work",
        {
            "text": "units mm\nsheet A4, scale 1000:1, ground squares 2\nO = datum\n"
            "b = box, 900000 by 900000, centred on O\n"
            "rim = line in, b.bottom > b.right > b.top > b.left\nh = hatch, of rim\nback = "
            "hidden, b.top\n"
            "d = dimension, from b.lower_left to b.lower_right, level\n"
        },
    ),
    "490 families": (
        "/api/work",
        {
            "text": HEAD
            + "c = circle, centre O, radius 3\n"
            + "".join(f"r{i} = turn, of c, 360 about O\n" for i in range(490))
        },
    ),
}


class Desk:
    """A served desk."""

    def __init__(self, port: int, process: subprocess.Popen[bytes]) -> None:
        self.port, self.process = port, process

    def ask(self, path: str, body: object = None) -> tuple[int, float, int]:
        """Ask for something; return status, seconds, and bytes of the answer."""
        began = time.perf_counter()
        link = http.client.HTTPConnection("127.0.0.1", self.port, timeout=60)
        sent = None if body is None else json.dumps(body)
        headers = {} if body is None else {"Content-Type": "application/json"}
        link.request("GET" if body is None else "POST", path, sent, headers)
        answer = link.getresponse()
        size = len(answer.read())
        link.close()
        return answer.status, time.perf_counter() - began, size

    def memory(self) -> float:
        """Return what the desk and its hands take together, MB; what they share is counted once."""
        waiting, total = [self.process.pid], 0
        while waiting:
            pid = waiting.pop()
            try:
                rollup = Path(f"/proc/{pid}/smaps_rollup").read_text("ascii")
                total += next(
                    int(row.split()[1]) for row in rollup.splitlines() if row.startswith("Pss:")
                )
                for task in Path(f"/proc/{pid}/task").iterdir():
                    waiting += map(int, (task / "children").read_text("ascii").split())
            except (OSError, StopIteration):
                continue
        return total / 1024


@contextmanager
def served() -> Iterator[Desk]:
    """Start a desk with the sample jobs on a register of its own, and stop it again."""
    with tempfile.TemporaryDirectory() as folder:
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            port = free.getsockname()[1]
        command = [sys.executable, "-m", "entrick.cli", "serve", "--demo", "--port", str(port)]
        process = subprocess.Popen(
            [*command, "--database", f"{folder}/register.db"], stdout=subprocess.DEVNULL
        )
        desk = Desk(port, process)
        try:
            ends = time.monotonic() + 60
            while True:
                try:
                    desk.ask("/api/jobs")
                    break
                except OSError:
                    if time.monotonic() > ends:
                        raise
                    time.sleep(0.05)
            yield desk
        finally:
            process.terminate()
            process.wait(20)


def told(name: str, times: list[float], statuses: list[int]) -> None:
    """Print a row: median, 95th of 100, slowest, and how it was answered."""
    times.sort()
    counts = ", ".join(f"{statuses.count(status)} × {status}" for status in sorted(set(statuses)))
    p95 = times[min(len(times) - 1, int(len(times) * 0.95))]
    print(
        f"{name:44} {len(times):5} asked  median {statistics.median(times) * 1000:7.0f} ms"
        f"  p95 {p95 * 1000:7.0f} ms  slowest {times[-1] * 1000:7.0f} ms  ({counts})",
        flush=True,
    )


def together(
    desk: Desk, clients: int, ask: Callable[[int, int], tuple[str, object]], seconds: float
) -> None:
    """Have clients ask one thing after another for some seconds; keep on until all have their last
    answer."""
    times: list[float] = []
    statuses: list[int] = []

    def client(number: int) -> None:
        ends, turn = time.monotonic() + seconds, 0
        while time.monotonic() < ends:
            path, body = ask(number, turn)
            status, took, _ = desk.ask(path, body)
            times.append(took)
            statuses.append(status)
            turn += 1

    threads = [threading.Thread(target=client, args=(number,)) for number in range(clients)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    told(f"{clients} clients", times, statuses)


def main(seconds: float = 10.0) -> None:
    """Put load on a desk and print what it does."""
    samples = sorted(sample_plans().values())

    def edit(number: int, turn: int) -> tuple[str, object]:
        return "/api/work", {"text": samples[number % len(samples)] + f"# {number} {turn}\n"}

    with served() as desk:
        print(f"at rest: {desk.memory():.0f} MB")
        print("24 clients edit samples")
        together(desk, 24, edit, seconds)
        print(f"memory after: {desk.memory():.0f} MB")
        print("each of the heaviest alone")
        for name, (path, body) in HEAVY.items():
            status, took, size = desk.ask(path, body)
            told(f"  {name}, {size / 1e6:.1f} MB", [took], [status])
        print("eight of the heaviest at a time, and one client who edits a sample")
        heavy = list(HEAVY.values())
        ends = threading.Event()
        outcomes: list[int] = []

        def weigh(number: int) -> None:
            turn = number
            while not ends.is_set():
                path, body = heavy[turn % len(heavy)]
                status, _, _ = desk.ask(
                    path, {**body, "text": f"{body['text']}# {number} {turn}\n"}
                )
                outcomes.append(status)
                turn += 1

        threads = [threading.Thread(target=weigh, args=(number,)) for number in range(8)]
        for thread in threads:
            thread.start()
        time.sleep(1)
        together(desk, 1, edit, seconds)
        ends.set()
        for thread in threads:
            thread.join()
        print(
            "the heavy ones: "
            f"{', '.join(f'{outcomes.count(s)} × {s}' for s in sorted(set(outcomes)))}"
        )
        print(f"memory after: {desk.memory():.0f} MB")
        print("64 heavy plans one after another")
        for number in range(64):
            path, body = heavy[number % len(heavy)]
            desk.ask(path, {**body, "text": f"{body['text']}# again {number}\n"})
        print(f"memory after: {desk.memory():.0f} MB")
        print("150 connections that say nothing, and one client")
        idle = [socket.create_connection(("127.0.0.1", desk.port)) for _ in range(150)]
        together(desk, 1, edit, seconds / 4)
        for connection in idle:
            connection.close()


if __name__ == "__main__":
    main(*map(float, sys.argv[1:]))
