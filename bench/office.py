"""``make load``, the second half: two hundred people on two desks and one PostgreSQL server.

Each has a job of their own, makes a light edit every few seconds, and saves now and then. What is
measured is how long an edit takes as more of them work; what is held is that no save is lost and no
number given twice. The picture goes to build/office.svg.
"""

from __future__ import annotations

import random
import statistics
import sys
import threading
import time
from contextlib import closing, suppress
from dataclasses import dataclass, field
from itertools import pairwise
from pathlib import Path
from typing import Any

sys.path.append(str(Path(__file__).parents[1] / "tests"))

from entrick.demo import sample_plans
from entrick.store import add_person, change_person, open_store, set_secret
from entrick.web.secrets import hashed
from postgres import Postgres
from processes import NAME, Process

PIN = "482913"
EVERY = 10.0
"""Seconds from one edit of a person to the next, in the middle: one thinks, and looks."""

SAVES = 0.25
"""Of the edits of a person, how many are saved."""

SECONDS = 20.0
"""How long so many are looked at."""

CROWDS = (1, 25, 50, 100, 200)
TIMES_ALONE = 3.0
"""How much longer an edit may take among two hundred, nine and a half times in ten."""

ORIGIN = f"https://{NAME}"


@dataclass
class Person:
    """Somebody at work: a job of theirs, how long edits took, and what was saved."""

    desk: Process
    cookie: str
    job: int = 0
    number: int = 1
    drawing: str = ""
    text: str = ""
    took: list[float] = field(default_factory=list)
    saved: dict[int, str] = field(default_factory=dict)
    trouble: list[str] = field(default_factory=list)

    def ask(self, method: str, path: str, body: Any = None) -> Any:
        """Ask the desk, and return what comes back."""
        status, told, _ = self.desk.ask(method, path, body, self.cookie, Origin=ORIGIN)
        if status >= 400:
            self.trouble.append(f"{method} {path}: {status} {told}")
        return told

    def enter(self, text: str) -> None:
        """Enter a job with a number of its own."""
        told = self.ask("POST", "/api/jobs", {"text": text, "numbered": True})
        self.job, self.drawing = told["id"], told["drawing"]
        self.text = self.ask("GET", f"/api/jobs/{self.job}")["newest"]["text"]

    def work(self, ended: threading.Event, record: bool) -> None:
        """Edit, and save now and then, until it is over."""
        made = 0
        while not ended.wait(random.expovariate(1 / EVERY)):
            made += 1
            text = self.edited(made)
            began = time.perf_counter()
            self.ask("POST", "/api/work", {"text": text, "known": []})
            if record:
                self.took.append(time.perf_counter() - began)
            if random.random() < SAVES:
                sent = {"text": text, "based_on": self.number}
                told = self.ask("POST", f"/api/jobs/{self.job}/revisions", sent)
                self.number = told["number"]
                self.saved[self.number] = told["text"]

    def edited(self, made: int) -> str:
        """Return the plan with another row."""
        return f"{self.text.rstrip()}\n# {made} {random.random():.6f}\n"


def crowd(desks: list[Process], count: int) -> list[Person]:
    """Let so many people sign in, half of them at each desk, and enter a job each."""
    plans = list(sample_plans().values())
    there: list[Person] = []
    for number in range(count):
        desk = desks[number % len(desks)]
        person = Person(desk, desk.sign_in(number + 1, PIN))
        person.enter(plans[number % 4])
        there.append(person)
    return there


def together(people: list[Person], seconds: float) -> list[float]:
    """Let people work at once for so long; return how long their edits took."""
    ended = threading.Event()
    for person in people:
        person.took = []
    threads = [threading.Thread(target=each.work, args=(ended, True)) for each in people]
    for thread in threads:
        thread.start()
    time.sleep(seconds)
    ended.set()
    for thread in threads:
        thread.join()
    return [took for person in people for took in person.took]


def p95(times: list[float]) -> float:
    """Return the time that nineteen in twenty keep within."""
    return statistics.quantiles(times, n=20)[-1] if len(times) > 1 else times[0]


def alone(person: Person, count: int = 60) -> list[float]:
    """Return how long edits take where nobody else works."""
    times = []
    for made in range(count):
        text = person.edited(made)
        began = time.perf_counter()
        person.ask("POST", "/api/work", {"text": text, "known": []})
        times.append(time.perf_counter() - began)
    return times


def lost(people: list[Person]) -> list[str]:
    """Return what was acknowledged and is not there, and numbers given twice."""
    found = []
    for person in people:
        there = person.ask("GET", f"/api/jobs/{person.job}/revisions")["revisions"]
        texts = {each["number"]: each["text"] for each in there}
        found += [
            f"job {person.job}, revision {number}"
            for number, text in person.saved.items()
            if texts.get(number) != text
        ]
    drawings = [person.drawing for person in people]
    found += sorted({f"number {each} twice" for each in drawings if drawings.count(each) > 1})
    return found + [told for person in people for told in person.trouble]


def picture(rows: list[tuple[int, float, float]], file: Path) -> None:
    """Draw latency against people: the middle and nineteen in twenty."""
    high = max(long for _, _, long in rows) * 1.15
    across = {count: 70 + 620 * n / (len(rows) - 1) for n, (count, _, _) in enumerate(rows)}

    def up(seconds: float) -> float:
        return 360 - 320 * seconds / high

    marks = []
    for which, dash, told in ((1, "", "the middle"), (2, "6 4", "19 in 20")):
        spots = [(across[row[0]], up(row[which])) for row in rows]
        for (x, y), (to_x, to_y) in pairwise(spots):
            marks.append(
                f'<line x1="{x:.1f}" y1="{y:.1f}" x2="{to_x:.1f}" y2="{to_y:.1f}" stroke="#23241f" '
                f'stroke-width="1.5" stroke-dasharray="{dash}"/>'
            )
        x, y = spots[-1]
        marks.append(f'<text x="{x - 4:.0f}" y="{y - 6:.0f}" text-anchor="end">{told}</text>')
    for count, x in across.items():
        marks.append(f'<text x="{x:.0f}" y="382" text-anchor="middle">{count}</text>')
    for step in range(5):
        seconds = high * step / 4
        marks.append(
            f'<text x="60" y="{up(seconds) + 4:.0f}" text-anchor="end">'
            f"{seconds * 1000:.0f} ms</text>"
            f'<line x1="66" y1="{up(seconds):.0f}" x2="700" y2="{up(seconds):.0f}" stroke="#ccc"/>'
        )
    file.parent.mkdir(exist_ok=True)
    file.write_text(
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 720 410" font-family="sans-serif" '
        f'font-size="12"><title>A light edit, by people at work</title>{"".join(marks)}'
        '<text x="380" y="402" text-anchor="middle">people at work on two desks</text></svg>\n',
        "utf-8",
    )


def main() -> int:
    """Print the table; return 0 where what is held holds."""
    server = Postgres()
    desks: list[Process] = []
    try:
        where = server.register()
        kept = hashed(PIN)
        with closing(open_store(where)) as store, store.writing() as session:
            change_person(session, 1, "Person 1", "P1")
            set_secret(session, 1, kept)
            for number in range(2, max(CROWDS) + 1):
                add_person(session, f"Person {number}", f"P{number}", "draws")
                set_secret(session, number, kept)
        desks = [Process(where), Process(where)]
        began = time.perf_counter()
        people = crowd(desks, max(CROWDS))
        took = time.perf_counter() - began
        print(f"{len(people)} people signed in and entered a job each in {took:.0f} s")
        single = p95(alone(people[0]))
        print(f"one alone, without a pause: 19 in 20 within {single * 1000:.0f} ms")
        rows = []
        for count in CROWDS:
            times = together(people[:count], SECONDS if count > 1 else 2 * SECONDS)
            times = times if len(times) > 5 else alone(people[0])
            middle, long = statistics.median(times), p95(times)
            rows.append((count, middle, long))
            print(
                f"{count:4} people: {len(times):4} edits, the middle {middle * 1000:4.0f} ms, "
                f"19 in 20 within {long * 1000:4.0f} ms, {long / single:.1f} times one alone"
            )
        wrong = lost(people)
        saves = sum(len(each.saved) for each in people)
        print(f"{saves} saves; lost, or given twice: {wrong[:5] or 'nothing'}")
        picture(rows, Path("build/office.svg"))
        return int(bool(wrong) or rows[-1][2] > TIMES_ALONE * single)
    finally:
        for desk in desks:
            with suppress(OSError):
                desk.stop()
        server.stop()


if __name__ == "__main__":
    raise SystemExit(main())
