"""How well and how fast finished sheets are looked at: ``python -m bench.looking [SHEETS]``.

Sheets are drawn by the stand-in, sound and slipped, scanned and photographed; accuracy is held
against what was drawn, the slip told against the one that was made. Tables are printed, and drawn
into build/."""

from __future__ import annotations

import re
import resource
import sys
import time
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

import numpy as np

from entrick.core.desk import Work, work_out
from entrick.core.look.by_hand import DrawnSheet, drawn_by_hand
from entrick.core.look.finding import Finding
from entrick.core.look.fit import fit_circle
from entrick.core.look.which import Hypotheses, hypotheses
from entrick.demo import sample_plans
from entrick.devices.scanner import Lens, photograph, scan
from entrick.pictures.look import look_at_picture
from entrick.pictures.read import PictureError

SHEETS = 4
"""Sheets of each sample, scanned and photographed each."""


@dataclass
class Tally:
    """What came of many sheets."""

    first: int = 0
    tied: int = 0
    none: int = 0
    wrong: int = 0
    sound: int = 0
    false: int = 0
    refused: int = 0


def sheets_of(
    work: Work, every: Hypotheses, count: int, photo: bool
) -> Iterator[tuple[DrawnSheet, bytes, tuple[int, str] | None]]:
    """Yield sheets with their pictures, and which slip was made; every third one is sound."""
    random = np.random.default_rng(count + photo)
    weights = np.cumsum([slip.weight for slip in every.slips])
    for number in range(count):
        at = int(np.searchsorted(weights, random.random() * weights[-1]))
        slip = every.slips[at]
        is_sound = number % 3 == 2
        sheet = drawn_by_hand(
            work, int(random.integers(1 << 30)), [] if is_sound else [slip], order=every.order
        )
        turn = float(random.uniform(-3, 3))
        lens = Lens(turn=turn, bend=float(random.uniform(-0.02, 0.02)))
        picture = photograph(sheet, lens, number) if photo else scan(sheet, seed=number, turn=turn)
        step = every.order.steps.get(slip.act)
        yield sheet, picture, None if is_sound else (step.number if step else 0, slip.key)


def tallied(tally: Tally, finding: Finding, made: tuple[int, str] | None) -> None:
    """Count what was told of a sheet."""
    told = [(slip.step, slip.key) for slip in finding.slips]
    if made is None:
        tally.sound += 1
        tally.false += bool(told)
    elif told[:1] == [made]:
        tally.first += 1
    elif made in told:
        tally.tied += 1
    elif told:
        tally.wrong += 1
    else:
        tally.none += 1


def radii_off(sheet: DrawnSheet, finding: Finding, work: Work) -> Iterator[float]:
    """Yield how far radii of arcs over a right angle are measured from those that were drawn, mm on
    paper."""
    called = Counter(stroke.piece for stroke in sheet.strokes)
    # Pieces of copies may be called alike: which is which is not known by name.
    strokes = {each.piece: each.places for each in sheet.strokes if called[each.piece] == 1}
    for row in finding.rows:
        true = strokes.get(row.name)
        if row.size is None or row.judged == "missing" or true is None:
            continue
        middle = complex(np.mean(true))
        drawn = fit_circle(true, (middle, float(np.mean(np.abs(true - middle)))), 1.0)
        turned = abs(np.sum(np.angle(np.diff(true)[1:] / np.diff(true)[:-1])))
        if drawn.scatter < 0.02 and turned > np.pi / 2:
            twice = 2 if row.size.what.startswith("Ø") else 1
            yield abs(row.size.drawn * work.sheet.factor / twice - drawn.radius)


def main(count: int) -> None:
    """Look at many sheets and print what came of it."""
    tallies = {"scan": Tally(), "photo": Tally()}
    off: dict[str, list[float]] = {"scan": [], "photo": []}
    seconds: dict[str, list[float]] = {"scan": [], "photo": []}
    for name, text in sorted(sample_plans().items()):
        work = work_out(text)
        every = hypotheses(work)
        for way in tallies:
            for sheet, picture, made in sheets_of(work, every, count, way == "photo"):
                began = time.process_time()
                try:
                    finding = look_at_picture(work, picture).finding
                except PictureError:
                    tallies[way].refused += 1
                    continue
                seconds[way].append(time.process_time() - began)
                tallied(tallies[way], finding, made)
                off[way] += radii_off(sheet, finding, work)
        print(
            f"{re.sub(r'[.]entrick$', '', name):34}" + str({w: vars(t) for w, t in tallies.items()})
        )
    print(f"\n{'':10}{'CPU s, median, worst':>24}{'radius off, mm: median, 95 in 100':>38}")
    for way in tallies:
        cpu = f"{np.median(seconds[way]):.1f}, {max(seconds[way]):.1f}"
        radius = f"{np.median(off[way]):.3f}, {np.percentile(off[way], 95):.3f}"
        print(f"{way:10}{cpu:>24}{radius:>38}")
    most = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    print(f"\nmost memory of the process {most:.0f} MB")
    drawn(tallies)


def drawn(tallies: dict[str, Tally]) -> None:
    """Draw what was told into build/looked-at.svg."""
    rows = []
    for line, (way, tally) in enumerate(tallies.items()):
        at = 60.0
        whole = max(sum(vars(tally).values()) - tally.false, 1)
        for word, shade in (
            ("first", "#3b6e57"),
            ("tied", "#8db3a0"),
            ("none", "#c9c4b4"),
            ("wrong", "#b3261e"),
            ("sound", "#dfe6df"),
            ("refused", "#70736b"),
        ):
            wide = 500 * getattr(tally, word) / whole
            box = f'x="{at:.1f}" y="{20 + 40 * line}" width="{wide:.1f}" height="24"'
            told = f"<title>{way}: {word} {getattr(tally, word)}</title>"
            rows.append(f'<rect {box} fill="{shade}">{told}</rect>')
            at += wide
        rows.append(f'<text x="8" y="{37 + 40 * line}" font-size="13">{way}</text>')
    Path("build").mkdir(exist_ok=True)
    body = "".join(rows)
    Path("build/looked-at.svg").write_text(
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 600 110">{body}</svg>\n', "utf-8"
    )


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else SHEETS)
