"""The rack: its sizes against the basic rack of a published standard, and a gear that is rolled along it."""

import math
from functools import partial

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import affinity

from desk import outline, run_of, solved
from entrick.core.desk import Work, work_out
from entrick.core.geometry import Line, Point

HEAD = "units mm\nsheet A1 landscape, scale 1:1, border 10\nO = datum\n"


def part(done: Work, name: str, key: str) -> Line:
    found = done.solution.figure.items[name].parts[key]
    assert isinstance(found, Line)
    return found


@pytest.mark.parametrize("module", [1, 4, 10])
def test_the_usual_rack_is_the_basic_rack_of_iso_53(module: int) -> None:
    """ISO 53, profile A, from memory: α 20°, addendum 1 m, dedendum 1.25 m, thickness on the pitch line π m / 2."""
    done = solved(f"bar = rack, from O, 3 teeth, module {module}, backing {3 * module}\n")
    rise, top = part(done, "bar", "tooth2.rise"), part(done, "bar", "tooth2.top")
    assert top.at(0.0).y == pytest.approx(module)
    assert rise.at(0.0).y == pytest.approx(-1.25 * module)
    assert math.degrees(math.atan2(rise.direction.x, rise.direction.y)) == pytest.approx(20)
    crossed = rise.at(0.0).x + 1.25 * module * math.tan(math.radians(20))
    middle = (top.at(0.0).x + top.at(top.end or 0.0).x) / 2
    assert 2 * (middle - crossed) == pytest.approx(math.pi * module / 2)
    assert middle == pytest.approx(1.5 * math.pi * module)


@given(st.integers(18, 60), st.sampled_from(["2", "3", "4.5"]), st.floats(-0.5, 0.5))
def test_a_gear_of_the_same_module_rolls_along_it_and_touches_it(
    teeth: int, module: str, turned: float
) -> None:
    """Rolled without slip, gear and rack touch and never overlap (general polygon library)."""
    m = float(module)
    done = solved(
        f"bar = rack, from O, 6 teeth, module {module}, backing 10\nw = gear, about O, {teeth} teeth, module {module}\n"
    )
    rack, gear, radius = outline(run_of(done, "bar")), outline(run_of(done, "w")), teeth * m / 2
    # A tooth of the gear points down into the space between the third tooth and the fourth.
    gear = affinity.rotate(gear, 180 + math.degrees(turned * m / radius), (0, 0))
    gear = affinity.translate(gear, 3 * math.pi * m, radius)
    rack = affinity.translate(rack, turned * m, 0.0)
    assert gear.intersection(rack).area < 2e-3 * m * m
    assert gear.distance(rack) < 2e-3 * m


@given(st.integers(1, 30), st.sampled_from([14.5, 20, 25]), st.floats(1, 20), st.floats(0, 360))
def test_its_area_is_that_of_its_bar_and_its_teeth_wherever_it_lies(
    teeth: int, angle: float, back: float, lean: float
) -> None:
    back, lean = round(back, 3), round(lean, 3)
    done = solved(
        f"bar = rack, from O, {teeth} teeth, module 2, pressure {angle}°, backing {back}, at {lean}°\nrim = line in, bar\n"
    )
    # Teeth are trapezia as wide as half the pitch on the pitch line.
    tan, thick = math.tan(math.radians(angle)), math.pi
    tooth = (thick - 2 * 2 * tan + thick + 2 * 2.5 * tan) / 2 * 4.5
    assert abs(run_of(done, "rim").area) == pytest.approx(
        teeth * tooth + teeth * 2 * math.pi * back
    )
    assert outline(run_of(done, "rim")).is_valid


def test_it_lies_along_a_line_and_counts_in_inches() -> None:
    done = solved(
        "l = line, from O, at 30°, for 90\nbar = rack, from O, along l, 4 teeth, diametral pitch 8\n"
    )
    line = part(done, "bar", "pitch_line")
    assert line.direction.angle == pytest.approx(math.radians(30))
    assert abs(line.at(line.end or 0.0) - line.at(0.0)) == pytest.approx(4 * math.pi * 25.4 / 8)
    assert not run_of(done, "bar").closed, "without a backing it is a run of teeth"
    inches = work_out("units in\nO = datum\nbar = rack, from O, 4 teeth, diametral pitch 8\n")
    assert any("module 1 ÷ 8 = 1/8" in row for row in inches.solution.entries[1].made.working)  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("said", "told"),
    [
        ("3 teeth", "module (length)"),
        ("3 teeth, module 2, diametral pitch 8", "one of them only"),
        ("3 teeth, module 0", "more than nought"),
        ("3 teeth, module 2, backing 0", "more than nought"),
        ("3 teeth, module 2, pressure 35°, addendum 2", "pointed"),
        ("3 teeth, module 2, pressure 35°, addendum 0.5, dedendum 2", "run into each other"),
        ("3 teeth, module 2, at 30°, along l", "say one of them"),
        ("module 2", "rack needs (whole number) teeth"),
        ("3 teeth, module 2, pressure 5°", "pressure angles"),
    ],
)
def test_what_makes_no_rack_is_refused_in_words(said: str, told: str) -> None:
    errors = work_out(
        f"{HEAD}l = line, from O, at 30°, for 90\nbar = rack, from O, {said}\n"
    ).solution.errors
    assert told in errors[0].message


def test_what_is_worth_a_look_is_found_and_nothing_else() -> None:
    usual = solved("bar = rack, from O, 3 teeth, module 2\n")
    odd = solved("bar = rack, from O, 3 teeth, module 2.2, addendum 1, dedendum 0.9\n")
    assert [f for f in usual.findings if f.rule == "rack"] == []
    assert {f.weight for f in odd.findings if f.rule == "rack"} == {"wrong", "note"}


def test_its_steps_leave_every_piece_of_it() -> None:
    done = solved("bar = rack, from O, 3 teeth, module 4, backing 12\n")
    drawn = {stroke.shape for step in done.steps for stroke in step.strokes}
    flanks = {
        piece.curve
        for piece in run_of(done, "bar").pieces
        if piece.name.endswith((".rise", ".fall"))
    }
    lines = [shape for shape in drawn if isinstance(shape, Line)]
    for flank in flanks:
        assert isinstance(flank, Line)
        assert any(
            max(abs(line.offset_of(flank.at(0.0))), abs(line.offset_of(flank.at(flank.end or 0.0))))
            < 1e-9
            for line in lines
        )
    pitch = next(
        step.setting for step in done.steps if "the pitch" in step.text and step.tool == "dividers"
    )
    assert pitch is not None
    assert pitch.actual == pytest.approx(4 * math.pi)
    assert Point(2 * math.pi, 0.0) in drawn


solved = partial(solved, head=HEAD)
