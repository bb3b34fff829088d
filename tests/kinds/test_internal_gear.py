"""Internal gears, by pinions that are rolled in them and by closed forms."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import affinity

from desk import outline, refused, run_of, solved, thing
from entrick.core.geometry import Point
from examples import examples

RING = "ring = internal gear, about O, {}, module 2, {}\nrim = line in, ring\n"


def remarks(rows: str) -> list[tuple[str, str]]:
    return [(f.weight, f.message) for f in solved(rows).findings if f.rule == "internal gear"]


@given(st.integers(46, 90), st.integers(20, 30), st.floats(0, 1))
@examples(4)
def test_a_pinion_rolls_in_the_ring_without_cutting_into_it_and_touches_it(
    teeth: int, other: int, share: float
) -> None:
    done = solved(
        RING.format(f"{teeth} teeth", f"pressure 25°, turned 0, mating {other}")
        + f"w = gear, about O, {other} teeth, module 2, pressure 25°, turned 0\n"
    )
    hollow, pinion = outline(run_of(done, "ring"), 16), outline(run_of(done, "w"), 16)
    assert thing(done, "ring.mate") == Point(teeth - other, 0.0)
    turned = 360 * share / other
    placed = affinity.translate(affinity.rotate(pinion, turned, origin=(0, 0)), teeth - other, 0)
    hollow = affinity.rotate(hollow, turned * other / teeth, origin=(0, 0))
    assert placed.difference(hollow).area < 1e-3, (
        "what lies outside the hollow has been cut into the ring"
    )
    nudged = affinity.rotate(placed, 0.2, origin=(teeth - other, 0))
    assert nudged.difference(hollow).area > 1e-2, "without backlash there is no play"


@pytest.mark.parametrize("by", ["involute", "arcs", "arc"])
def test_its_circles_its_closed_outline_and_its_names(by: str) -> None:
    """Inside D − 2a, root D + 2b (handbook formulas)."""
    done = solved(RING.format("60 teeth", f"by {by}, backlash 0.1"))
    sizes = [2 * thing(done, f"ring.{part}").radius for part in ("inside", "pitch", "root", "base")]
    assert sizes == pytest.approx([116, 120, 125, 120 * math.cos(math.radians(20))])
    ring = run_of(done, "ring")
    ends = zip(ring.pieces, (*ring.pieces[1:], ring.pieces[0]), strict=True)
    assert max(abs(a.exit - b.entry) for a, b in ends) < 1e-9
    far = [abs(piece.entry) for piece in ring.pieces]
    assert [min(far), max(far)] == pytest.approx([58, 62.5])
    assert {piece.name.split(".")[2] for piece in ring.pieces} >= {"root", "tip", "flank"}
    told = "\n".join(
        next(e.made.working for e in done.solution.entries if e.statement.name == "ring" and e.made)
    )
    assert "inside D − 2a = 120 − 2 × 2 = 116" in told
    assert "width of a space π × 120 ÷ (2 × 60) + 0.1 ÷ 2 = 3.192" in told


@pytest.mark.parametrize(
    ("clauses", "weight", "words"),
    [
        ("60 teeth", "look", ""),
        ("30 teeth", "look", "inside the base circle"),
        ("60 teeth, mating 20", "wrong", "interfere"),
        (
            "60 teeth, addendum 0.5, dedendum 0.7, pressure 25°, mating 20",
            "look",
            "contact ratio is",
        ),
    ],
)
def test_what_is_wrong_is_found_and_nothing_where_all_is_well(
    clauses: str, weight: str, words: str
) -> None:
    found = remarks(f"ring = internal gear, about O, {clauses}, module 2\n")
    assert any(w == weight and words in told for w, told in found) if words else not found, found


def test_what_cannot_be_is_refused() -> None:
    assert "from 6 to 39 teeth" in refused(
        "ring = internal gear, about O, 40 teeth, module 2, mating 40\n"
    )
    assert "needs two of these" in refused("ring = internal gear, about O, 40 teeth\n")
