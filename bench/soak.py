"""``make soak``: thousands of edits of all sorts at one desk, and whether its memory stays as it
was."""

from __future__ import annotations

import re
import sys
from random import Random

from entrick.demo import sample_plans

from .load import served

EDITS = 5000
EVERY = 500
"""Edits between two looks at the memory."""


def main(edits: int = EDITS) -> None:
    """Edit, save, inspect and suggest in turn, and print the memory on the way."""
    pick, samples = Random(1), sorted(sample_plans().values())
    with served() as desk:
        saved = dict.fromkeys(range(1, 6), 0)
        for turn in range(1, edits + 1):
            text = pick.choice(samples)
            given = re.search(r"^given \w+ = (\d+)", text, re.MULTILINE)
            if given is not None:
                size = int(given[1]) + pick.randint(-3, 3) / 16
                text = text[: given.start(1)] + f"{size:.4f}" + text[given.end(1) :]
            path = pick.choice(["work"] * 7 + ["proof", "suggest", "sheet-choices"])
            status, _, _ = desk.ask(f"/api/{path}", {"text": text})
            if status not in (200, 409, 422, 503):
                raise SystemExit(f"edit {turn}: {path} was answered {status}")
            if turn % 10 == 0:
                job = pick.choice(list(saved))
                based = saved[job] or 1
                status, _, _ = desk.ask(
                    f"/api/jobs/{job}/revisions", {"text": text, "based_on": based}
                )
                saved[job] = based + (status == 201)
            if turn % EVERY == 0:
                print(f"{turn} edits: {desk.memory():.0f} MB", flush=True)


if __name__ == "__main__":
    main(*map(int, sys.argv[1:]))
