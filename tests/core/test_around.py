"""The sheet made ready and finished: steps before the first statement and after the last."""

import csv
import io

import pytest

from entrick.core.desk import work_out
from entrick.core.formats import settings_csv

START = 'plan "Gate"\ndrawing OY-9\nunits {}\nsheet {}\nO = datum\n'


def test_every_size_of_the_sheet_is_measured_before_anything_is_drawn_on_it() -> None:
    done = work_out(START.format("mm", "A3 landscape, scale 1:2, border filing, strip top"))
    told = [(step.text, step.setting.reading if step.setting else "") for step in done.before]
    assert [reading for _, reading in told] == ["", "20 mm", "10 mm", "12 mm", ""], (
        "at full size, whatever the scale"
    )
    assert "filing border" in told[1][0]
    assert "From the upper border" in told[3][0]


def test_on_ruled_paper_the_ruling_is_laid_true_first() -> None:
    done = work_out(START.format("mm", "A3, ground isometric 5"))
    assert "ruled in isometric" in done.before[1].text


@pytest.mark.parametrize(
    ("school", "rubbed"),
    [("construction rubbed out", True), ("construction kept", False), ("border 10", False)],
)
def test_rubbing_out_is_by_the_school_the_sheet_names(school: str, rubbed: bool) -> None:
    done = work_out(START.format("mm", f"A4, {school}"))
    assert not done.sheet.errors
    assert any("Rub out the light lines" in step.text for step in done.after) == rubbed
    assert "Gate, OY-9" in done.after[-2].text


def test_the_rows_of_a_csv_say_what_is_ready_what_is_as_it_is_and_what_finishes() -> None:
    rows = (
        START.format("in", "A4")
        + "a = circle, centre O, radius 2\nb = circle, centre O, radius 3\n"
    )
    done = work_out(rows + "A = point, 1/4 right of O\nc = circle, centre A, radius 3\n")
    table = list(
        csv.DictReader(io.StringIO(settings_csv(done.steps, done.kit, done.before, done.after)))
    )
    assert [row["step"] for row in table][:1] == ["ready 1"]
    assert [row["step"] for row in table][-1].startswith("finish")
    kept = [row for row in table if row["as it is"]]
    assert [row["statement"] for row in kept] == ["c"]
