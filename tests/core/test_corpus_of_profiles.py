"""Parts as other programs write them: read back they are the same outlines, by hardly more numbers than they were given
by, and any number can be changed."""

import re

import pytest

from changes import each_changed, touching
from entrick.core.desk import work_out
from entrick.core.plan.document import Given, Statement
from entrick.core.plan.reader import read_plan
from entrick.core.readback import ReadBack, Ways, read_back, read_profile, write
from entrick.core.readback.settle import Target, settled
from entrick.core.solve import Solution
from entrick.core.solve.values import matches_of
from examples import some
from other_writers import Part, corpus, measures

EVERY = list(corpus())
NAMES = {name: (part, data, file) for name, part, data, file in EVERY}
TWO_IN_THE_LAST = 2.01e-3
"""How far a file of three decimals may be off."""
OF_HALF_TURNS = 8e-3
"""How far where nearly half a turn is said by its radius, as pictures do: rounded, it leaves the middle open by that."""


def again(name: str, level: bool = True) -> tuple[Part, ReadBack]:
    part, data, file = NAMES[name]
    return part, read_back(read_profile(data, file), ways=Ways(level=level))


def test_the_corpus_is_large() -> None:
    assert len(EVERY) == len(NAMES) > 180


@pytest.mark.parametrize("name", some(list(NAMES), 20))
def test_a_part_comes_back_by_the_numbers_it_was_given_by(name: str) -> None:
    part, found = again(name)
    assert found.numbers <= 1.15 * part.numbers, found.text
    assert found.off <= (OF_HALF_TURNS if name.endswith(", arcs") else TWO_IN_THE_LAST)
    outlines = sorted((abs(loop.area), loop.length) for loop in work_out(found.text).outlines)
    assert len(outlines) == len(measures(part))
    for (area, length), (own_area, own_length) in zip(outlines, measures(part), strict=True):
        assert length == pytest.approx(own_length, abs=5 * TWO_IN_THE_LAST)
        assert area == pytest.approx(own_area, abs=2 * TWO_IN_THE_LAST * own_length)


@pytest.mark.parametrize("name", some([name for name in NAMES if "turned curves" in name], 3))
def test_whatever_is_tried_of_a_part_are_statements(
    name: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    """What fits no form is no attempt: it would be given up for a worse one."""
    tried: list[str] = []

    def noted(text: str, targets: dict[str, Target]) -> tuple[Solution, str]:
        tried.append(text)
        return settled(text, targets)

    monkeypatch.setattr(write, "settled", noted)
    again(name)
    assert tried
    for text in tried:
        plan = read_plan(text)
        contents = [line.content for line in plan.lines]
        givens = frozenset(each.name for each in contents if isinstance(each, Given))
        for each in contents:
            if isinstance(each, Statement):
                assert matches_of(each, givens)


@pytest.mark.parametrize("name", some(list(NAMES), 9))
def test_any_number_can_be_changed_by_a_tenth(name: str) -> None:
    """It still solves, and every outline touches where it did: what was read are conditions, not coordinates."""
    _, found = again(name)
    before = touching(found.text)
    for changed, text in each_changed(found.text):
        assert touching(text) == before, changed


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
    for name in some([name for name in NAMES if "three decimals" in name], 3):
        _, found = again(name)
        assert not re.search(r"\d\.\d{4}", found.text), found.text
