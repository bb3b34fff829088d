"""The truth of every order of work: carried out exactly by one who knows nothing of the kinds, it ends in the figure."""

import json
import math
import re
import sys
from dataclasses import replace
from fractions import Fraction
from pathlib import Path
from random import Random

import pytest
import sympy
from click.testing import CliRunner
from hypothesis import assume, given
from hypothesis import strategies as st

from desk import HEAD
from entrick.cli import main
from entrick.core.acts.act import Act, Measure, Prick, Swing, Trace
from entrick.core.board.order import acts_of
from entrick.core.desk import Work, work_out
from entrick.core.geometry import Arc, Circle, Line, Point
from entrick.core.geometry.shapes import is_drawn_at
from entrick.core.rehearsal.carry_out import Board, NotDrawn, carry_out, miss_of
from entrick.core.rehearsal.exactly import Carried, carried_exactly
from entrick.core.rehearsal.hand import NONE
from entrick.core.rehearsal.many import Hands
from entrick.demo import sample_plans
from examples import some

EXAMPLES = re.findall(
    r"```entrick\n(.*?)```", Path("docs/plan-language.md").read_text("utf-8"), re.DOTALL
)
LINK = sample_plans()["OY-014-paddle-pawl-link.entrick"]


def carried(text: str) -> Carried:
    done = work_out(text)
    return carried_exactly(done.solution, done.sheet)


def every_act(done: Work) -> list[Act]:
    return [act for own in acts_of(done.solution, done.sheet) for act in own.acts]


@pytest.mark.parametrize("text", [*sorted(sample_plans().values()), *some(EXAMPLES, 25)])
def test_every_sample_and_every_example_of_the_language_ends_in_its_figure(text: str) -> None:
    found = carried(text)
    assert found.failure == ""
    assert found.undrawn == ()
    assert found.miss <= found.allowed, found.where
    # Where three circles, or two and a point, are touched, the centre is measured as it was worked out.
    assert found.computed == () or "touching c, touching d" in text


@given(st.integers(0, 2**32))
def test_a_random_plan_ends_in_its_figure(seed: int) -> None:
    """The fuzzer's own plans: whatever was worked out can be carried out; `computed` places are told, not counted on."""
    sys.path.insert(0, str(Path(__file__).parents[1] / "fuzz"))
    from grammar import Writer

    text = Writer(Random(seed)).plan()
    # What is smaller than a pencil point, or larger than any sheet, is put down as worked out.
    assume(not re.search(r"0\.000|\d{6}", text))
    done = work_out(text)
    found = carried_exactly(done.solution, done.sheet)
    assert found.failure == ""
    assert found.miss <= 10 * found.allowed, found.where


METHODS = [
    *(
        f"c = ellipse, centred on O, axes {a} and {b}, at 20°{how}"
        for a, b in ((80, 50), (50, 80))
        for how in ("", ", by trammel", ", by rectangle", ", by foci", ", by four centres")
    ),
    "P = point, 30 right of O, 35 below\nc = ellipse, centred on O, axis 80, through P, by foci",
    *(
        f"c = polygon, {n} sides, centred on O, radius 20{how}"
        for n in (5, 6, 7, 10)
        for how in ("", ", by semicircle")
    ),
    *(
        f"c = isometric circle, centred on O, diameter 40, on {plane}{how}"
        for plane in ("top", "left", "right")
        for how in ("", ", by points", ", by template")
    ),
    *(
        f"c = {kind}, along {axis}{how}"
        for axis in ("up", "left", "right")
        for how in ("", ", true", ", projection")
        for kind in (
            "cylinder, from O, diameter 40, length 60",
            "cone, from O, diameter 50, height 70",
        )
    ),
    "c = stub, from O, diameter 40, length 20, step diameter 24, step length 30, along left, rounded",
    "c = isometric block, centred on O, 60 by 40, on right, thick 22, rounded 8",
    *(
        f"c = gear, about O, {n} teeth, module 2{how}\nrim = line in, c"
        for n in (12, 20, 60, 90)
        for how in ("", ", by arcs", ", by arc", ", pressure 14.5")
    ),
    "c = gear, about O, 30 teeth, module 4, shown three, bore diameter 30, keyway 8 by 4\nrim = line in, c.bore",
    *(
        f"c = cam, about O, least 40, rise 120° by 20 {motion}, dwell 60°, fall 180° by 20 {motion}{how}\nrim = line in, c"
        for motion in ("harmonic", "cycloidal", "parabolic", "uniform")
        for how in ("", ", roller radius 8, offset 6 left, ccw", ", flat")
    ),
    "P = point, 100 right of O\nc = cam, about O, least 30, rise 180° by 20 cycloidal, fall 180° by 20 parabolic, diagram from P",
    "c = helix, from O, diameter 40, lead 24, 2 turns, 2 starts, wire 4, left hand",
    "c = helix, from O, diameter 40, to diameter 20, lead 12, 2 turns, level",
    "c = screw, from O, diameter 40, core diameter 32, lead 24, length 60, square, 2 starts",
    "c = screw, from O, diameter 40, core diameter 32, lead 6, length 30, vee, left hand",
    "c = cycloid, from O, radius 8, 2 turns",
    "c = spiral, about O, radius 0 to 40, 1.3 turns, cw",
    "k = circle, centre O, radius 20\nc = involute, of k, through 200°\nd = cycloid, on k, radius 5, inside, 1 turns",
    'c = tapped hole, at O, thread "M10", section right, depth 20, drilled 26, runout 2',
]
"""Every curve and solid, by every method it has."""


@pytest.mark.parametrize("rows", some(METHODS, 30))
def test_every_method_of_a_curve_or_solid_ends_in_it(rows: str) -> None:
    found = carried(HEAD.replace("A2", "A1") + rows + "\n")
    assert (found.failure, found.undrawn, found.computed) == ("", (), ())
    assert found.acts > 5, "it was worked out at all"
    assert found.miss <= found.allowed, found.where


places = st.integers(-60, 60)


@given(
    st.sampled_from(["point", "line", "circle"]),
    st.lists(places, min_size=10, max_size=10),
    st.integers(6, 14),
)
def test_a_circle_through_and_touching_three_things_is_constructed(
    third: str, at: list[int], radius: int
) -> None:
    """Two points and a third thing, and three lines: no centre is measured as it was worked out."""
    rows = [
        f"{n} = point, {at[2 * i]} right of O, {at[2 * i + 1]} above" for i, n in enumerate("ABCDE")
    ]
    rows += [
        "l = line, from C to D",
        "m = line, from D to E",
        "k = line, from A to B",
        f"q = circle, centre E, radius {radius}",
    ]
    last = {"point": "through C", "line": "touching l", "circle": "touching q"}[third]
    text = HEAD + "\n".join([*rows, f"x = circle, through A, through B, {last}, first"]) + "\n"
    done = work_out(text)
    assume(not done.solution.errors)
    made = done.solution.entries[-1].made
    assert made is not None
    assume(made.shape.radius < 300)  # type: ignore[union-attr]
    found = carried_exactly(done.solution, done.sheet)
    assert found.miss <= 1000 * found.allowed, found.where
    assert not [name for name in found.computed if name.startswith("x")] or third == "circle"


def test_the_centre_by_two_swings_is_where_exact_geometry_has_it() -> None:
    """SymPy's circles cross in the mark that carrying the link out leaves."""
    done = work_out(LINK)
    board = carry_out(every_act(done), Hands(NONE, 1, 0, done.sheet.factor))
    items = done.solution.figure.items
    swings = [act for act in every_act(done) if isinstance(act, Swing) and "top" in act.leaves][:2]
    circles = [
        sympy.Circle(
            sympy.Point(Fraction(items[name].shape.x), Fraction(items[name].shape.y)),
            sympy.Rational(s.setting.size),
        )  # type: ignore[union-attr]
        for name, s in zip("AB", swings, strict=True)
    ]
    exact = [complex(float(p.x), float(p.y)) for p in circles[0].intersection(circles[1])]
    centre = next(act for act in every_act(done) if act.called == "top.centre")
    assert min(abs(board.mark(centre.leaves)[0] - spot) for spot in exact) < 1e-11


def test_a_wrong_size_is_seen_and_what_is_not_there_is_told() -> None:
    done = work_out(LINK)
    acts = every_act(done)
    index = next(
        i for i, act in enumerate(acts) if isinstance(act, Swing) and act.leaves.startswith("top")
    )
    swing = acts[index]
    assert isinstance(swing, Swing)
    acts[index] = replace(swing, setting=replace(swing.setting, size=swing.setting.size + 1))
    board = Board(Hands(NONE, 1, 0, done.sheet.factor))
    misses = []
    for act in acts:
        board.do(act)
        misses += [float(off[0]) for off in miss_of(board, act).values()]
    assert max(misses) > 0.5
    with pytest.raises(NotDrawn, match="has not been"):
        carry_out(acts[4:], Hands(NONE, 1, 0, done.sheet.factor))


def test_stations_of_a_traced_curve_are_constructed_and_never_its_coordinates() -> None:
    """No place of a curve is measured from the datum: each is left by an act that names what it stands on."""
    done = work_out(sample_plans()["OY-061-inspection-hatch.entrick"])
    acts = every_act(done)
    by_key = {act.leaves: act for act in acts}
    traces = [act for act in acts if isinstance(act, Trace)]
    assert traces
    for trace in traces:
        for key in trace.stations:
            source = by_key[key]
            assert not (isinstance(source, Measure) and source.computed)


@pytest.mark.parametrize(
    ("rows", "status"),
    [("a = circle, centre O, radius 5\n", 0), ("a = circle, centre X, radius 5\n", 2)],
)
def test_the_shell_tells_whether_a_plan_ends_in_its_figure(
    tmp_path: Path, rows: str, status: int
) -> None:
    file = tmp_path / "p.entrick"
    file.write_text(HEAD + rows, "utf-8")
    run = CliRunner().invoke(main, ["carry-out", str(file), "--json"])
    assert run.exit_code == status
    told = json.loads(run.stdout)
    assert told["ends_in_the_figure"]
    assert told["computed_places"] == 0
    assert told["greatest_miss"] <= told["allowed"]


def test_picks_survive_what_passes_no_touch() -> None:
    """Turned, shifted and scaled, the same acts with the same picks end in the figure: no act goes by coordinates."""
    for turn in range(0, 360, 30):
        c, s = math.cos(math.radians(turn)), math.sin(math.radians(turn))
        rows = (
            f"A = point, {-60 * c:.6f} right of O, {-60 * s:.6f} above\nB = point, {60 * c:.6f} right of O, {60 * s:.6f} above\n"
            "a = circle, centre A, radius 20\nb = circle, centre B, radius 12\n"
            f"x = arc, radius 90, around a, around b, near P\nrim = line in, a > x > b, open\n"
        )
        spot = f"P = point, {-80 * s:.6f} right of O, {80 * c:.6f} above\n"
        found = carried(HEAD + spot + rows)
        assert found.ends_in_the_figure, (turn, found)


@pytest.mark.parametrize("text", sorted(sample_plans().values()))
def test_what_is_pricked_is_reached_by_what_is_drawn(text: str) -> None:
    """No swing stops short of the crossing that is marked on it, and no line: what is too short is run on."""
    drawn: list[Line | Circle | Arc] = []
    for act in every_act(work_out(text)):
        drawn += [
            stroke.shape for stroke in act.strokes if isinstance(stroke.shape, Line | Circle | Arc)
        ]
        if isinstance(act, Prick) and act.pick != "curve":
            reaching = [
                curve
                for curve in drawn
                if is_drawn_at(curve, act.planned) and near(curve, act.planned)
            ]
            assert len(reaching) >= 2 or any(is_copy(key) for key in (act.first, act.second)), (
                act.called,
                act.told,
            )


def near(curve: Line | Circle | Arc, spot: Point) -> bool:
    if isinstance(curve, Line):
        return abs(curve.offset_of(spot)) < 1e-6
    return abs(abs(spot - curve.centre) - curve.radius) < 1e-6


def is_copy(key: str) -> bool:
    """Tell whether a thing was laid off from tracing paper: it shows as a run."""
    return key.count(".") > 0 and ":" in key
