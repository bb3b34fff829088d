"""Fuzz the desk for some seconds: ``python tests/fuzz --seconds 30 --seed 7``. Prints the seed, and every plan that fails."""

from __future__ import annotations

import argparse
import os
import signal
import sys
import time
import traceback
from collections import Counter
from pathlib import Path
from random import Random
from types import FrameType

os.environ["ENTRICK_NET"] = "off"

sys.path.insert(0, str(Path(__file__).parents[1]))

from grammar import Writer
from outside import ready
from ways import tried

STUCK = 300
"""Seconds after which one way out is taken to be without end."""


def _strike(_: int, __: FrameType | None) -> None:
    raise TimeoutError(f"no end after {STUCK} s")


def main() -> int:
    """Return 0 when nothing was found."""
    asked = argparse.ArgumentParser()
    asked.add_argument("--seconds", type=float, default=float(os.environ.get("FUZZ_SECONDS", "30")))
    asked.add_argument("--seed", type=int, default=int.from_bytes(os.urandom(4)))
    asked.add_argument("--found", type=Path, default=Path("build/fuzz"))
    args = asked.parse_args()
    print(f"seed {args.seed}", flush=True)
    ready()
    signal.signal(signal.SIGALRM, _strike)
    pick = Random(args.seed)
    writer, ends = Writer(pick), time.monotonic() + args.seconds
    plans = inputs = 0
    seen: Counter[str] = Counter()
    slowest: dict[str, float] = {}
    while time.monotonic() < ends:
        text = writer.plan()
        plans += 1
        if plans % 1000 == 0:
            print(f"{plans} plans, {inputs} inputs", flush=True)
        signal.alarm(STUCK)
        for way, error, took in tried(text, pick):
            signal.alarm(STUCK)
            inputs += 1
            slowest[way] = max(slowest.get(way, 0.0), took)
            if error is None:
                continue
            frames = traceback.extract_tb(error.__traceback__)
            place = next(
                (
                    f"{f.filename.rpartition('entrick/')[2]}:{f.lineno}"
                    for f in reversed(frames)
                    if "entrick/" in f.filename
                ),
                "?",
            )
            told = f"{way}: {type(error).__name__} at {place}: {str(error)[:120]}"
            key = f"{type(error).__name__} {way if place == '?' else place}"
            seen[key] += 1
            if seen[key] == 1:
                args.found.mkdir(parents=True, exist_ok=True)
                kept = args.found / f"{args.seed}-{plans}.entrick"
                kept.write_text(text, "utf-8", errors="surrogatepass")
                print(f"{told}\n    {kept}", flush=True)
    rows = ", ".join(
        f"{way} {took:.2f}" for way, took in sorted(slowest.items(), key=lambda row: -row[1])[:6]
    )
    print(
        f"{plans} plans, {inputs} inputs, {sum(seen.values())} failures of {len(seen)} sorts; slowest in s: {rows}"
    )
    return 1 if seen else 0


if __name__ == "__main__":
    sys.exit(main())
