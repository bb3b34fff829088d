"""Programs by process: a router's passes and tabs, a beam's bridges, a torch's pierce and slow corners, as the machine
that knows nothing of who wrote them does them."""

import json
import math
from dataclasses import replace

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from desk import solved
from entrick.core.cutting import Machine, machines, read_machine
from entrick.core.cutting.machine import LIMITS, SAID, WORDS, profile_of
from entrick.core.plan.errors import ClauseError
from entrick.devices.cutter import Cutter, CutterError, process_of, run, zero_of
from entrick.devices.written import Written, written

PLATE = (
    "frame = box, 90 by 60, centred on O\nx = rounded, all corners of frame, radius 8\nrim = line in, x\n"
    "A = point, 20 right of O\neye = circle, centre A, diameter 24\nbore = line in, eye\n"
)
SQUARE = "frame = box, 90 by 60, from O\nrim = line in, frame.bottom > frame.right > frame.top > frame.left\n"
EVERY = list(machines())
ROUTER, LASER, TORCH = (machines()[each] for each in ("router", "laser", "torch"))


def cut(machine: Machine, tool: float = 3, rows: str = PLATE) -> Written:
    return written(solved(rows), tool, machine)


machines_at_large = st.builds(
    replace,
    st.sampled_from(list(machines().values())),
    lead=st.sampled_from(["arc", "line", "none"]),
    direction=st.sampled_from(["climb", "conventional"]),
    zero=st.sampled_from(["datum", "corner", "middle"]),
    entry=st.sampled_from(["ramp", "plunge"]),
    tabs=st.integers(0, 6),
    pass_depth=st.floats(0.5, 4),
)


@given(machines_at_large, st.sampled_from([0.5, 2.0, 3.0]))
def test_whatever_is_set_the_part_comes_out_the_same(machine: Machine, tool: float) -> None:
    found = cut(replace(machine, pass_depth=min(machine.pass_depth, tool)), tool)
    assert found.verdict.fits
    assert found.verdict.gouged < 0.01
    assert process_of(found.program) == machine.process
    zero = zero_of(found.program)
    assert zero == {"datum": (0, 0), "corner": (-45, -30), "middle": (0, 0)}[machine.zero]
    low, high = found.extents
    # Along the rim the middle of the tool runs half its width outside; leads may go further.
    assert low.x <= -45 - tool / 2 - zero[0] + 1e-3
    assert high.y >= 30 + tool / 2 - zero[1] - 1e-3
    assert f"ABOUT {found.verdict.minutes:.1f} MINUTES" in found.program
    assert "TOOL RUNS FROM X" in found.program


@pytest.mark.parametrize("clockwise", [True, False])
def test_climb_is_clockwise_round_a_rim_and_the_other_way_in_a_hole(clockwise: bool) -> None:
    """Common practice, no source: a spindle that turns clockwise, the stock on its right hand."""
    way = "climb" if clockwise else "conventional"
    found = cut(replace(machines()["plain"], direction=way))
    turned = {True: 0.0, False: 0.0}
    for move in found.moves:
        if move.cutting and move.centre == (20.0, 0.0):
            turned[True] += move.turn
        elif (
            move.cutting
            and move.centre
            and abs(move.turn - math.copysign(math.pi / 2, move.turn)) < 1e-3
        ):
            turned[False] += move.turn if abs(move.centre[0]) > 30 else 0.0
    assert turned[True] * (1 if clockwise else -1) == pytest.approx(2 * math.pi, abs=1e-3)
    assert turned[False] * (-1 if clockwise else 1) > 6


def test_a_router_goes_down_pass_by_pass_and_never_deeper_than_one_allows() -> None:
    found = cut(replace(ROUTER, thickness=7, through=0.5, pass_depth=2))
    lows = sorted({min(move.heights) for move in found.moves if move.cutting})
    assert lows[0] == -7.5
    depths = sorted({round(-low, 4) for low in lows if low not in (-(7 - 1.5),)})
    assert max(b - a for a, b in zip([0, *depths], depths, strict=False)) <= 2
    assert all(
        move.heights[1] >= 5
        or move.heights == (0.0, 0.0)
        or not move.rapid
        or move.start == move.end
        for move in found.moves
    )
    assert "S12000, 4 PASSES TO 7.5 DEEP, 4 TABS" in found.program


def through(found: Written, tool: float, bottom: float) -> shapely.Geometry:
    paths = [
        shapely.LineString([move.at(k / 40) for k in range(41)]).buffer(tool / 2)
        for move in found.moves
        if move.cutting and max(move.heights) <= bottom
    ]
    return shapely.unary_union(paths)


@given(st.integers(1, 6), st.floats(2, 8))
def test_tabs_hold_the_part_and_are_as_many_and_as_wide_as_asked(tabs: int, wide: float) -> None:
    """Counted by a general geometry library: what the tool has not gone through between part and sheet."""
    machine = replace(ROUTER, tabs=tabs, tab_width=wide, entry="plunge")
    found = cut(machine, 3, SQUARE)
    band = shapely.box(-1.5, -1.5, 91.5, 61.5).exterior.buffer(0.01)
    bridges = shapely.get_parts(band.difference(through(found, 3, -6)))
    real = [each for each in bridges if each.length > 1]
    assert len(real) == tabs
    for each in real:
        assert each.length / 2 == pytest.approx(wide, abs=0.15)
    assert cut(replace(machine, tabs=0), 3, SQUARE).verdict.fits


def test_a_beam_is_off_over_its_bridges_and_its_power_follows_it() -> None:
    found = cut(replace(LASER, tabs=3, tab_width=2.0), 0.2, SQUARE)
    assert "M4 S700" in found.program
    off = [move for move in found.moves if not move.cutting and not move.rapid]
    assert sum(move.length for move in off) == pytest.approx(3 * 2.2, abs=1e-3)
    assert not any(row.startswith(("G0 Z", "G1 Z")) for row in found.program.split("\r\n"))


def test_a_torch_pierces_high_waits_and_is_slow_at_corners() -> None:
    found = cut(TORCH, 1.5, SQUARE)
    rows = found.program.split("\r\n")
    on = rows.index("M3")
    assert rows[on - 1] == "G0 Z3.8"
    assert rows[on + 1] == "G4 P0.6"
    assert rows[on + 2].startswith("G1 Z1.5")
    slow = [move for move in found.moves if move.cutting and move.feed == 1440]
    assert sum(move.length for move in slow) == pytest.approx(4 * 2 * 6, rel=0.1)
    for move in slow:
        assert (
            min(math.dist(move.at(0.5), spot) for spot in ((0, 0), (90, 0), (90, 60), (0, 60))) < 8
        )


@pytest.mark.parametrize("key", EVERY)
def test_a_dry_run_goes_the_same_way_with_the_tool_off(key: str) -> None:
    wet, dry = (cut(replace(machines()[key], dry=each), 2) for each in (False, True))
    assert "DRY RUN" in dry.program
    done = run(dry.program, Cutter(process=machines()[key].process))
    assert not any(move.cutting for move in done.moves)
    assert min(min(move.heights) for move in done.moves) >= 0
    ways = [
        {(round(m.end[0], 3), round(m.end[1], 3)) for m in moves}
        for moves in (wet.moves, done.moves)
    ]
    assert ways[0] == ways[1]


@pytest.mark.parametrize(
    ("machine", "tool", "words"),
    [
        (replace(ROUTER, pass_depth=6.3), 3, "6.3 mm deep at once with a tool of 3"),
        (replace(ROUTER, tab_height=6), 3, "tabs are as high as the sheet"),
        (replace(ROUTER, tabs=24, tab_width=20), 3, "has no room for 24 tabs"),
        (replace(TORCH, cut_height=5), 1.5, "cuts higher than it pierces"),
    ],
)
def test_what_a_process_does_not_bear_is_refused_with_the_reason(
    machine: Machine, tool: float, words: str
) -> None:
    with pytest.raises(ClauseError, match=words):
        cut(machine, tool)


@pytest.mark.parametrize(
    ("process", "program", "words"),
    [
        ("router", "G21 G90 F9\nM3\n", "no speed or power"),
        ("router", "G21 G90 F9\nG1 Z-1\n", "with the spindle standing"),
        ("router", "G21 G90 F9\nS9 M3\nG1 Z-1\nG0 X5\n", "a rapid move in the sheet"),
        ("laser", "G21 G90 F9\nM4 S1200\n", "S1000 at most"),
        ("laser", "G21 G90 F9\nG0 Z5\n", "Z5 is nothing this machine does"),
        ("torch", "G21 G90 F9\nG0 Z4\nM3\nG1 X5\n", "before the sheet is pierced"),
        ("torch", "G21 G90 F9\nG0 Z4\nG1 Z0\n", "come down on the sheet"),
        ("plain", "G21 G90 F9\nG0 Z4\n", "Z4 is nothing this machine does"),
        ("plain", "G21 G90 F9\nM4\n", "M4 is nothing this machine does"),
    ],
)
def test_each_machine_does_only_what_it_has(process: str, program: str, words: str) -> None:
    with pytest.raises(CutterError, match=words):
        run(program, Cutter(process=process))  # type: ignore[arg-type]


@pytest.mark.parametrize("key", EVERY)
@pytest.mark.parametrize("block", [18, 24, 30])
def test_a_cut_connection_is_survived_by_every_machine(key: str, block: int) -> None:
    found = written(solved(PLATE), 2, machines()[key], Cutter("cut connection", block))
    assert found.verdict.fits
    assert len(found.told) == 1


@pytest.mark.parametrize("key", EVERY)
def test_a_profile_is_open_json_and_every_entry_is_named_and_bounded(key: str) -> None:
    said = json.loads(profile_of(key))
    assert read_machine(json.dumps(said)) == machines()[key]
    for entry in said:
        assert entry in SAID or entry == "process"
        wrong = {**said, entry: [1] if entry in ("dry", "name", *WORDS) else -1e9}
        with pytest.raises(ClauseError, match=entry if entry != "name" else "name of at most"):
            read_machine(json.dumps(wrong))
    assert set(LIMITS) | set(WORDS) | {"name", "dry"} == set(SAID) | {"process"}
    for text in ("", "[]", '{"colour": 1}', '{"feed": true}', '{"tabs": 1.5}', "{" * 5000):
        with pytest.raises(ClauseError):
            read_machine(text)
