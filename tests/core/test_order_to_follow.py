"""An order of work a hand can follow: few words, few acts, every name lettered on the sheet before it is used."""

import re
from itertools import groupby
from statistics import median

import pytest
from hypothesis import given
from hypothesis import strategies as st

import parts
from desk import HEAD
from entrick.core.acts.act import Act, Finish
from entrick.core.board.economy import acts_at_board
from entrick.core.board.schedule import guest_of, leaves, stands_on
from entrick.core.board.steps import BoardStep
from entrick.core.desk import Work, work_out
from entrick.core.drawing.marks import Lettering
from entrick.core.rehearsal.exactly import carried_exactly
from entrick.demo import sample_plans

TOP = "units mm\nsheet A3 landscape, scale 1:2\nO = datum, middle of sheet\n"
SLOT_LINK = (
    TOP + "A = point, 80 left of O\nB = point, 80 right of O\neyeA = circle, centre A, radius 30\n"
    "eyeB = circle, centre B, radius 20\npinA = circle, centre A, diameter 20\npinB = circle, centre B, diameter 20\n"
    "t1 = line, touching eyeA, touching eyeB, outer, above\nt2 = line, touching eyeA, touching eyeB, outer, below\n"
    "s = slot, centred on O, length 60, width 20\nrim = line in, eyeA > t1 > eyeB > t2\nh1 = line in, pinA\n"
    "h2 = line in, pinB\nh3 = line in, s\n"
)
TRAMMEL = TOP + "e = ellipse, centred on O, axes 120 and 80, by trammel\nrim = line in, e\n"
CAM = (
    TOP
    + "c = cam, about O, least 40, rise 120° by 30 harmonic, dwell 60°, fall 120° by 30 harmonic, "
    "dwell 60°, 24 parts\nrim = line in, c\n"
)
SAMPLES = sample_plans()


def settings(done: Work) -> int:
    """Count how often something round is set."""
    round_ = ("compass", "beam compass", "dividers", "circle template")
    readings = [(s.tool, s.setting.reading) for s in done.steps if s.tool in round_ and s.setting]
    return sum(1 for _ in groupby(readings))


@pytest.mark.parametrize(
    ("text", "steps", "sets"),
    [
        (SAMPLES["OY-014-paddle-pawl-link.entrick"], 25, 12),
        (SLOT_LINK, 33, 9),
        (TRAMMEL, 58, 11),
        (CAM, 75, 75),
        (SAMPLES["OY-072-paddle-lift-cam.entrick"], 120, 120),
    ],
    ids=["link", "link with slot", "ellipse by trammel", "cam of 24", "cam sample"],
)
def test_a_job_takes_no_more_than_a_skilled_hand_takes(text: str, steps: int, sets: int) -> None:
    """Skilled orders of found orders of work, counted (common practice, no source)."""
    done = work_out(text)
    assert len(done.steps) <= steps
    assert settings(done) <= sets


@pytest.mark.parametrize("text", SAMPLES.values(), ids=SAMPLES.keys())
def test_a_step_is_told_in_few_words(text: str) -> None:
    words = [len(step.text.split()) for step in work_out(text).steps]
    assert median(words) <= 12
    assert max(words) <= 20


def named(step: BoardStep) -> set[str]:
    """Return the numbers and small letters by which a step names places and lines."""
    text = re.sub(r"\d+ times|[−\d.]+°|'s", "", step.text)
    found: set[str] = set()
    for first, last in re.findall(r"\b(\d+) to (\d+)\b", text):
        found |= {str(number) for number in range(int(first), int(last) + 1)}
    return found | set(re.findall(r"\b(\d+|[b-z])\b(?![°.’'])", text))


@pytest.mark.parametrize("text", SAMPLES.values(), ids=SAMPLES.keys())
def test_every_name_of_a_step_stands_on_the_sheet_by_then(text: str) -> None:
    done = work_out(text)
    standing: set[str] = set()
    letters: dict[int, set[str]] = {}
    numbers: list[str] = []
    for mark in done.display.marks:
        if isinstance(mark, Lettering):
            letters.setdefault(mark.step, set()).add(mark.text)
            numbers += [mark.text] if mark.role == "letter" and mark.text.isdigit() else []
    assert len(numbers) == len(set(numbers)), "one number is one place"
    for step in done.steps:
        standing |= letters.get(step.number, set()) | set(done.solution.figure.items)
        if step.source and not isinstance(step.source.act, Finish):
            assert named(step) <= standing, step.text


def in_vain(acts: list[Act]) -> list[Act]:
    """Return acts that leave a help line or a swing nothing stands on."""
    used = {key for act in acts for key in stands_on(act)}
    used |= {key for act in acts if (held := guest_of(act)) for key in stands_on(held)}
    return [
        act
        for act in acts
        if act.leaves and used.isdisjoint(leaves(act)) and act.called.startswith("the ")
    ]


@given(st.integers(0, 300))
def test_nothing_is_done_in_vain_and_the_figure_is_there(seed: int) -> None:
    done = work_out(HEAD + parts.part(seed)[0])
    acts = [each for own in acts_at_board(done.solution, done.sheet) for each in own.acts]
    assert [act.called for act in in_vain(acts)] == []
    found = carried_exactly(done.solution, done.sheet)
    assert (found.failure, found.undrawn) == ("", ())
    assert found.miss <= found.allowed, found.where


def test_what_is_laid_off_both_ways_is_one_length() -> None:
    done = work_out(TOP + "frame = box, 80 by 50, centred on O\nrim = line in, frame\n")
    (step,) = (s for s in done.steps if "to the left and right" in s.text)
    assert step.setting is not None
    assert step.setting.reading == "20 mm"
    assert "laid once" not in step.check
