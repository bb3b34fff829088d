"""What is told of curves, against integrals and conditions worked out apart."""

import math

import mpmath
import pytest
from hypothesis import given
from hypothesis import strategies as st

from desk import outline, refused, solved
from entrick.core.desk import Work, work_out
from entrick.core.geometry import Loop
from entrick.core.proof import why_not_cut
from examples import examples


def told(row: str) -> tuple[str, str, list[str]]:
    """Return the sentence and the working of a statement, and what is found."""
    done: Work = solved(f"base = circle, centre O, radius 120\n{row}\n")
    entry = next(each for each in done.solution.entries if each.statement.name == "k")
    assert entry.made is not None, entry.error
    working = " | ".join(entry.made.working)
    return entry.made.sentence, working, [finding.message for finding in done.findings]


@given(
    st.integers(10, 120), st.integers(0, 120), st.integers(4, 60), st.sampled_from([1, 1.5, 2, 3])
)
@examples(6)
def test_a_helix_on_a_cone_is_as_long_as_its_integral(
    wide: int, narrow: int, lead: int, turns: float
) -> None:
    """∫√(r² + r'² + (lead/2π)²)dθ by quadrature (mpmath); a cylinder's where nothing tapers."""
    r0, r1, whole = wide / 2, narrow / 2, math.tau * turns
    slim = (r1 - r0) / whole

    def long(end: float) -> float:
        return float(
            mpmath.quad(
                lambda t: mpmath.sqrt((r0 + slim * t) ** 2 + slim**2 + (lead / math.tau) ** 2),
                [0, end],
            )
        )

    sentence, working, _ = told(
        f"k = helix, from O, diameter {wide}, to diameter {narrow}, lead {lead}, {turns} turns"
    )
    assert f"{long(math.tau):.6g}"[:5] in working
    if wide != narrow:
        assert f"to Ø{narrow}" in sentence
        assert f"{long(whole):.6g}"[:5] in working


def test_the_two_helices_that_were_told_by_the_cylinders_formula() -> None:
    assert "147.907" in told("k = helix, from O, diameter 60, to diameter 0, lead 40, 2 turns")[1]
    assert "193.781" in told("k = helix, from O, diameter 100, to diameter 20, lead 10, 1 turns")[1]


def test_a_cones_helix_unrolls_to_a_spiral_of_its_own_length() -> None:
    done = solved("k = helix, from O, diameter 60, to diameter 20, lead 30, 2 turns\n")
    item = done.solution.figure.items["k"]
    unrolled = item.part("development")
    r0, slim = 30.0, -20 / (4 * math.pi)
    long = mpmath.quad(
        lambda t: mpmath.sqrt((r0 + slim * t) ** 2 + slim**2 + (30 / math.tau) ** 2),
        [0, 4 * math.pi],
    )
    assert unrolled.length == pytest.approx(float(long), rel=1e-4)  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("row", "long"),
    [
        ("k = cycloid, from O, radius 25, 1 turns", 200.0),
        ("k = cycloid, from O, radius 100, 1 turns", 800.0),
        ("k = cycloid, from O, radius 60, 1 turns", 480.0),
        ("k = cycloid, from O, radius 20, 0.5 turns", 80.0),
        ("k = cycloid, on base, radius 30, 1 turns", 8 * 30 * (120 + 30) / 120),
        ("k = cycloid, on base, radius 30, inside, 1 turns", 8 * 30 * (120 - 30) / 120),
    ],
)
def test_a_cycloid_is_eight_radii_long_and_so_much_more_round_a_circle(
    row: str, long: float
) -> None:
    """8r(R ± r)/R (textbook formulas), not the length of the arcs it is drawn with."""
    assert f"{long:g} long" in told(row)[1]


@pytest.mark.parametrize(
    ("teeth", "pressure", "shift", "least"),
    [(33, 14.5, -0.2, 39), (20, 20, -0.2, 21), (9, 20, 0.3, 12)],
)
def test_the_least_teeth_without_undercut_allow_for_the_shift(
    teeth: int, pressure: float, shift: float, least: int
) -> None:
    """2(k − x)/sin²α (handbook formula)."""
    found = told(
        f"k = gear, about O, {teeth} teeth, module 2, pressure {pressure}°, profile shift {shift}"
    )[2]
    assert any(f"from {least} teeth on they are not" in each for each in found)


@pytest.mark.parametrize(
    ("mate", "fouls"), [(40, False), (50, False), (51, False), (53, True), (56, True)]
)
def test_tips_that_foul_in_an_internal_gear_are_found(mate: int, fouls: bool) -> None:
    """60 teeth of module 4 at 20°: clear up to 51 teeth, by turning outlines; a difference of 8 is the handbooks' rule."""
    found = told(f"k = internal gear, about O, 60 teeth, module 4, mating {mate}")[2]
    assert any("foul" in each for each in found) == fouls


def test_pins_touch_the_flanks_or_are_refused() -> None:
    """24 teeth of module 6: pins of 40 would touch at R85.1, beyond the tips at R78."""
    row = "k = gear, about O, 24 teeth, module 6, over pins {}"
    assert "beyond the tips" in refused(row.format(40))
    assert "170.2" in refused(row.format(40))
    assert "over two pins of Ø11" in told(row.format(11))[1]


def test_a_polygon_by_the_semicircle_tells_what_closes_it() -> None:
    """9 sides R40: eight of 27.544 and one of 25.899, by the construction worked out apart."""
    _, working, _ = told("k = polygon, 9 sides, centred on O, radius 40, by semicircle")
    assert "8 sides of 27.544" in working
    assert "25.899" in working
    told_off = refused("k = polygon, 25 sides, centred on O, radius 40, by semicircle\n")
    assert "step the chord off" in told_off


@pytest.mark.parametrize(
    ("row", "found"),
    [
        ("k = helix, from O, diameter 40, lead 6, 4 turns, wire 8", "run into each other"),
        (
            "k = helix, from O, diameter 40, lead 30, 4 turns, 4 starts, wire 8",
            "run into each other",
        ),
        ("k = helix, from O, diameter 40, lead 60, 2 turns, wire 50", "no such coil"),
        ("k = screw, from O, diameter 40, core diameter 10, lead 3, length 30, vee", "11.4°"),
        (
            "k = cam, about O, least 40, lift 0 at 0°, lift 12 at 90°, lift 12 at 180°, lift 0 at 270°",
            "rises 2.25 above the greatest",
        ),
    ],
)
def test_what_cannot_be_or_is_seldom_meant_is_found(row: str, found: str) -> None:
    """Pitch against wire, 2·atan(p/2 ÷ depth), the periodic cubic through the lifts: each by hand."""
    assert any(found in message for message in told(row)[2])


@pytest.mark.parametrize(
    "row",
    [
        "k = helix, from O, diameter 40, lead 12, 4 turns, wire 8",
        "k = screw, from O, diameter 40, core diameter 34.8, lead 3, length 30, vee",
        "k = cam, about O, least 40, lift 0 at 0°, lift 6 at 90°, lift 12 at 180°, lift 6 at 270°",
    ],
)
def test_what_can_be_is_not_remarked_on(row: str) -> None:
    done: Work = solved(f"{row}\n")
    kept = [each.message for each in done.findings if each.page == "remarks"]
    assert not any(each for each in kept if "dwell" not in each), kept


def test_a_cusp_is_no_fault() -> None:
    done: Work = solved(
        "base = circle, centre O, radius 90\nk = cycloid, on base, radius 30, 3 turns\nrim = line in, k\n"
    )
    assert [each for each in done.findings if each.weight == "wrong"] == []
    assert any("a cusp" in each.message for each in done.findings)


def test_a_diagram_is_no_outline() -> None:
    """The cam is 2 × (40 + 20) at most across; its diagram stands beside it and goes to no cutter."""
    row = (
        "P = point, 120 right of O\n"
        "k = cam, about O, least 40, rise 180° by 20 harmonic, fall 180° by 20 harmonic, diagram from P\n"
        "rim = line in, k\ncurve = line in, k.diagram, open\n"
    )
    done = solved(row)
    assert len(done.outlines) == 1
    overall = next(f.message for f in done.findings if f.rule == "overall")
    assert float(overall.split()[1]) <= 120
    assert any("curve is a diagram" in f.message for f in done.findings)
    assert why_not_cut(done.findings) == ""


@pytest.mark.parametrize(
    ("row", "tool"),
    [
        ("k = polygon, 6 sides, centred on O, radius 40", "set squares"),
        ("k = polygon, 8 sides, centred on O, radius 40", "protractor"),
        ("k = polygon, 6 sides, centred on O, radius 40, first corner at 20°", "protractor"),
    ],
)
def test_a_polygon_names_the_instrument_its_steps_take(row: str, tool: str) -> None:
    done = solved(f"{row}\n")
    entry = next(each for each in done.solution.entries if each.statement.name == "k")
    assert entry.made is not None
    assert tool in entry.made.working[-1]
    tools = {step.tool for step in done.steps if step.line == entry.line}
    assert any(tool.rstrip("s") in each for each in tools), tools


@given(st.integers(12, 60), st.integers(3, 30))
@examples(5)
def test_a_circular_pitch_lies_along_the_pitch_circle(teeth: int, pitch: int) -> None:
    """N teeth of circular pitch p go once round: πD = N·p (definition)."""
    done = solved(f"k = gear, about O, {teeth} teeth, circular pitch {pitch}\n")
    circle = done.solution.figure.items["k"].part("pitch")
    assert 2 * math.pi * circle.radius == pytest.approx(teeth * pitch, rel=1e-12)  # type: ignore[union-attr]
    entry = next(each for each in done.solution.entries if each.statement.name == "k")
    assert entry.made is not None
    assert f"circular pitch {pitch}" in entry.made.sentence


@pytest.mark.parametrize(
    "row",
    [
        "k = ellipse, focus O, axes 80 and 50",
        "k = cycloid, from O, radius 20, focus 10, 1 turns",
        "k = spiral, about O, radius 10 to 40, 2 turns, tangent at 3",
    ],
)
def test_no_mend_changes_the_exercise(row: str) -> None:
    (error, *_) = work_out(f"units mm\nO = datum\n{row}\n").solution.errors
    assert error.mend is None
    assert error.meant == ()


def test_how_thick_a_tooth_is_anywhere() -> None:
    """By the involute through the flank itself: angle of the flank's place at the radius, twice."""
    done = solved(
        "c = gear, about O, 24 teeth, module 4, thickness at radius 50, thickness at radius 47, mating 40\n"
    )
    told = " ".join(done.solution.entries[-1].made.working)
    base, pitch = 48 * math.cos(math.radians(20)), 48.0
    for radius in (50, 47, 52):
        angle = math.acos(base / radius)
        inv20 = math.tan(math.radians(20)) - math.radians(20)
        thick = radius * (math.pi * 4 / 2 / pitch + 2 * inv20 - 2 * (math.tan(angle) - angle))
        assert f"{thick:.3f}".rstrip("0") in told, (radius, thick, told)


def test_a_mate_that_is_undercut_is_found() -> None:
    done = solved("c = gear, about O, 40 teeth, module 4, mating 12\n")
    told = [remark.message for remark in done.solution.entries[-1].made.remarks()]
    assert any(message.startswith("the mate's 12 teeth are undercut") for message in told)


def test_a_pinion_runs_on_its_rack() -> None:
    """Contact ratio of 18 teeth on a rack, 20°, full depth, by the handbook formula worked apart: 1.719. Turned, no tooth
    of one is in the other."""
    done = solved("r = rack, from O, 12 teeth, module 4, backing 8, mating 18\n")
    made = done.solution.entries[-1].made
    assert made is not None
    phi = math.radians(20)
    along = math.sqrt(40**2 - (36 * math.cos(phi)) ** 2) - 36 * math.sin(phi) + 4 / math.sin(phi)
    ratio = along / (math.pi * 4 * math.cos(phi))
    assert f"= {ratio:.3f}" in " ".join(made.working)
    for turn in (0.0, 3.0, 7.5, 11.0, 140.0):
        sheet = made.worksheet(turn)
        rims = [outline(s.shape) for s in sheet.strokes if isinstance(s.shape, Loop)][:2]
        assert rims[0].intersection(rims[1]).area < 0.05
        assert "the rack has gone" in sheet.told
    few = solved("r = rack, from O, 12 teeth, module 4, mating 10\n").solution.entries[-1].made
    assert any("from 18 teeth on it is not" in remark.message for remark in few.remarks())


@pytest.mark.parametrize(
    ("by_diameter", "by_radius"),
    [
        (
            "cam, about O, least diameter 60, roller diameter 16, ",
            "cam, about O, least 30, roller radius 8, ",
        ),
        ("cam, about O, base circle diameter 60, ", "cam, about O, base circle radius 30, "),
        ("cycloid, from O, diameter 24, 1 turns", "cycloid, from O, radius 12, 1 turns"),
        (
            "spiral, about O, diameter 20 to 80, 2 turns",
            "spiral, about O, radius 10 to 40, 2 turns",
        ),
    ],
)
def test_a_size_across_is_twice_the_radius(by_diameter: str, by_radius: str) -> None:
    events = "rise 180° by 20, fall 180° by 20"
    both = [
        solved(f"k = {row}{events if row.startswith('cam') else ''}\n")
        for row in (by_diameter, by_radius)
    ]
    shapes = [done.solution.figure.items["k"].shape for done in both]
    assert shapes[0] == shapes[1]


@pytest.mark.parametrize(
    ("row", "mend"),
    [
        ("p = polygon, 6 sides, circumscribed about base", "p = polygon, 6 sides, around base"),
        ("p = polygon, 6 sides, inscribed in base", "p = polygon, 6 sides, in base"),
        (
            "k = cycloid, from O, rolling circle diameter 24, 1 turns",
            "k = cycloid, from O, diameter 24, 1 turns",
        ),
        ("k = involute, of base, through 90°, diameter 20", None),
        ("k = equiangular, about O, diameter 20 to 40, 1 turns", None),
    ],
)
def test_no_mend_leaves_out_what_a_number_is_the_size_of(row: str, mend: str | None) -> None:
    done = work_out(f"units mm\nO = datum\nbase = circle, centre O, radius 20\n{row}\n")
    assert done.solution.errors[0].mend == mend
