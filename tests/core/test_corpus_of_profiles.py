"""Parts as other programs write them: read back they are the same outlines, by hardly more numbers than they were given
by, and any number can be changed."""

import re

import pytest

from entrick.core.desk import work_out
from entrick.core.plan.reader import read_plan
from entrick.core.readback import ReadBack, Ways, read_back, read_profile
from entrick.core.solve import solve
from examples import some
from other_writers import Part, corpus, measures

EVERY = list(corpus())
NAMES = {name: (part, data, file) for name, part, data, file in EVERY}
NUMBER = re.compile(
    r"(?<![\w.\"])[ØR]?(\d+(?:\.\d+)?)(?=[°,\s]|$)(?! (?:sides|about|times|on|teeth)\b)"
)
TWO_IN_THE_LAST = 2.01e-3
"""How far a file of three decimals may be off."""
OF_HALF_TURNS = 8e-3
"""How far where nearly half a turn is said by its radius, as pictures do: rounded, it leaves the middle open by that."""


def again(name: str, level: bool = True) -> tuple[Part, ReadBack]:
    part, data, file = NAMES[name]
    return part, read_back(read_profile(data, file), ways=Ways(level=level))


def test_the_corpus_is_large() -> None:
    assert len(EVERY) == len(NAMES) > 180


@pytest.mark.parametrize("name", some(list(NAMES), 45))
def test_a_part_comes_back_by_the_numbers_it_was_given_by(name: str) -> None:
    part, found = again(name)
    assert found.numbers <= 1.15 * part.numbers, found.text
    assert found.off <= (OF_HALF_TURNS if name.endswith(", arcs") else TWO_IN_THE_LAST)
    outlines = sorted((abs(loop.area), loop.length) for loop in work_out(found.text).outlines)
    assert len(outlines) == len(measures(part))
    for (area, length), (own_area, own_length) in zip(outlines, measures(part), strict=True):
        assert length == pytest.approx(own_length, abs=5 * TWO_IN_THE_LAST)
        assert area == pytest.approx(own_area, abs=2 * TWO_IN_THE_LAST * own_length)


def touching(text: str) -> list[tuple[int, int]]:
    """Return of every outline how many pieces it has, and at how many joints it goes on without a corner."""
    entries = solve(read_plan(text)).entries
    assert [str(entry.error) for entry in entries if entry.error] == []
    found = []
    for loop in (loop for entry in entries if entry.made for loop in entry.made.loops):
        joints = list(zip(loop.pieces, [*loop.pieces[1:], loop.pieces[0]], strict=True))
        ways = [(a.direction(a.exit), b.direction(b.entry)) for a, b in joints if a is not b]
        smooth = sum(abs(p.cross(q)) < 1e-6 and p.dot(q) > 0 for p, q in ways)
        found.append((len(loop.pieces), smooth))
    return sorted(found)


@pytest.mark.parametrize("name", some(list(NAMES), 20))
def test_any_number_can_be_changed_by_a_tenth(name: str) -> None:
    """It still solves, and every outline touches where it did: what was read are conditions, not coordinates."""
    _, found = again(name)
    rows = found.text.split("\n")
    before = touching(found.text)
    for k, row in enumerate(rows):
        if k < 4 or "datum" in row:
            continue
        for number in NUMBER.finditer(row):
            if row[: number.start()].endswith("spaced, "):
                continue
            said = f"{float(number[1]) * 1.1:.6g}"
            changed = row[: number.start(1)] + said + row[number.end(1) :]
            assert touching("\n".join([*rows[:k], changed, *rows[k + 1 :]])) == before, changed


@pytest.mark.parametrize("part", ["plate", "bell crank", "slotted", "tee"])
def test_a_turned_part_is_set_out_level_and_the_angle_said(part: str) -> None:
    _, found = again(f"{part}, turned")
    assert found.turned % 90 == pytest.approx(17.3, abs=1e-3)
    assert "stands turned by 17.3°" in " ".join(found.told)
    _, lying = again(f"{part}, turned", level=False)
    assert lying.turned == 0
    assert lying.numbers > found.numbers


def test_numbers_are_rounded_as_the_file_rounds_its_own() -> None:
    """No number has more decimals than the file: 119.9996887 was worked out of rounded ones, and nobody gave it."""
    for name in some([name for name in NAMES if "three decimals" in name], 12):
        _, found = again(name)
        assert not re.search(r"\d\.\d{4}", found.text), found.text
