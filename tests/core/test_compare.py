"""What was made against what was meant: against distances counted by hand and by a general geometry library."""

import json
import math
from pathlib import Path

import pytest
from click.testing import CliRunner
from hypothesis import given
from hypothesis import strategies as st
from shapely import LineString, Polygon
from shapely import Point as Spot

from desk import HEAD, solved
from entrick.cli import main
from entrick.core.compare import Laid, compared, laid_over
from entrick.core.formats import write_cutter_dxf
from entrick.core.geometry import Loop, Point
from examples import examples

PLATE = (
    "frame = box, {w} by 60, centred on O\nx = rounded, all corners of frame, radius 8\nrim = line in, x\n"
    "A = point, {a} right of O, 5 above\neye = circle, centre A, diameter {d}\nbore = line in, eye\n"
)


def plate(w: float = 90, a: float = 20, d: float = 24) -> list[tuple[str, Loop]]:
    return list(solved(PLATE.format(w=w, a=a, d=d)).named_outlines)


def loops(outlines: list[tuple[str, Loop]]) -> list[Loop]:
    return [loop for _, loop in outlines]


def test_a_hole_too_large_and_a_rim_too_wide_are_off_by_what_they_are() -> None:
    found = compared(plate(), loops(plate(w=90.6, d=24.3)))
    rim, bore = found.outlines
    assert (rim.name, bore.name) == ("rim", "bore")
    assert rim.most.off == pytest.approx(0.3, abs=1e-3), "too much"
    assert bore.most.off == pytest.approx(-0.15, abs=1e-6), "too little"
    assert found.told(0.2, ".2f")[0].startswith("rim: off by 0.30 at")
    assert len(found.told(0.1, ".2f")) == 2
    assert found.told(0.31, ".2f") == ()


@given(st.floats(-170, 170), st.floats(-400, 400), st.floats(-400, 400))
def test_a_part_that_lies_anywhere_is_laid_over_its_plan(turn: float, x: float, y: float) -> None:
    there = Laid(math.radians(turn), Point(x, y))
    moved = [there.moved(loop) for loop in loops(plate())]
    laid = laid_over(moved, loops(plate()))
    found = compared(plate(), [laid.moved(loop) for loop in moved])
    assert found.greatest < 1e-3
    assert math.remainder(math.degrees(laid.turn) + turn, 360) == pytest.approx(0, abs=1e-3)


def coords(loop: Loop) -> list[tuple[float, float]]:
    from entrick.core.compare.along import places

    return [tuple(spot) for spot, _ in places(loop, 3000)]


@examples(5)
@given(st.floats(88, 92), st.floats(19, 21), st.floats(22, 26))
def test_how_far_it_is_off_agrees_with_a_general_library(w: float, a: float, d: float) -> None:
    """The greatest distance either way is Hausdorff's, by shapely over fine chords."""
    made = loops(plate(round(w, 3), round(a, 3), round(d, 3)))
    for each, (_, meant), other in zip(
        compared(plate(), made).outlines, plate(), made, strict=True
    ):
        line, there = Polygon(coords(meant)).exterior, Polygon(coords(other)).exterior
        assert each.greatest == pytest.approx(line.hausdorff_distance(there), abs=0.01)
        most = each.most
        assert abs(most.off) == pytest.approx(line.distance(Spot(*most.at)), abs=0.005)
        inside = Polygon(coords(meant)).contains(Spot(*most.at))
        if abs(most.off) > 0.01:
            assert (most.off > 0) == (inside == (each.name == "bore"))


def test_what_lacks_what_is_extra_and_what_is_left_out_is_told() -> None:
    both = plate()
    assert compared(both, loops(both)[:1]).told(0.1, ".1f") == ("bore is not there",)
    assert compared(both[:1], loops(both)).told(0.1, ".1f") == ("1 outline that was not meant",)
    notch = solved(
        "n = run, from O, right 40, up 20, left 16, down 6, left 8, up 6, left 16, close\nrim = line in, n\n"
    )
    bare = solved("n = box, 40 by 20, from O\nrim = line in, n.bottom > n.right > n.top > n.left\n")
    found = compared(list(notch.named_outlines), bare.outlines)
    assert found.greatest == pytest.approx(6)
    assert (
        "too much material" in found.told(0.1, ".1f")[0] or "left out" in found.told(0.1, ".1f")[0]
    )


def test_distances_along_an_outline_are_its_length() -> None:
    for each in compared(plate(), loops(plate())).outlines:
        ways = [spot.along for spot in each.spots]
        assert ways == sorted(ways)
        line = LineString([tuple(spot.at) for spot in each.spots])
        assert ways[-1] == pytest.approx(line.length, rel=1e-3)


def test_from_the_shell(tmp_path: Path) -> None:
    plan, file = tmp_path / "p.entrick", tmp_path / "p.dxf"
    plan.write_text(HEAD + PLATE.format(w=90, a=20, d=24), "utf-8")
    made = solved(PLATE.format(w=90.4, a=20, d=24))
    file.write_text(write_cutter_dxf(made.outlines, made.solution.unit), "utf-8")
    run = CliRunner().invoke
    wrong = run(main, ["compare", str(plan), str(file), "--within", "0.1", "--json"])
    assert wrong.exit_code == 1
    said = json.loads(wrong.output)
    assert said["outlines"]["rim"] == pytest.approx(0.2, abs=0.01)
    assert not said["fits"]
    fits = run(main, ["compare", str(plan), str(file), "--within", "0.3"])
    assert fits.exit_code == 0
    assert "within 0.3 mm" in fits.output
