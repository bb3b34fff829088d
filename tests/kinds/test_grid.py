"""``grid``."""

from hypothesis import given
from hypothesis import strategies as st

from desk import led_to, refused, solved, thing
from entrick.core.geometry import Point

lengths = st.integers(2, 60)


@given(st.lists(lengths, min_size=1, max_size=6), st.lists(lengths, min_size=1, max_size=5))
def test_grid_lines_stand_at_the_running_sums(across: list[int], up: list[int]) -> None:
    done = solved(
        f"g = grid, from O, across {' '.join(map(str, across))}, up {' '.join(map(str, up))}\n"
    )
    for i in range(len(across) + 1):
        for j in range(len(up) + 1):
            assert thing(done, f"g.at.{i}.{j}") == Point(float(sum(across[:i])), float(sum(up[:j])))


@given(st.lists(lengths, max_size=5), st.lists(lengths, max_size=5))
def test_a_grid_centred_on_a_point_has_it_in_its_middle(across: list[int], up: list[int]) -> None:
    said = [
        f"{way} {' '.join(map(str, sums))}"
        for way, sums in (("across", across), ("up", up))
        if sums
    ]
    if not said:
        assert "needs spacings" in refused("g = grid, centred on O\n")
        return
    done = solved(f"g = grid, centred on O, {', '.join(said)}\n")
    low, high = (thing(done, name) for name in ("g.at.0.0", f"g.at.{len(across)}.{len(up)}"))
    assert abs(low + high) < 1e-12
    assert (high.x - low.x, high.y - low.y) == (sum(across), sum(up))
    led_to(done)


def test_what_is_no_grid_says_why() -> None:
    for said, told in (
        ("from O", "needs spacings"),
        (
            "from O, across 20 30, centred on O",
            "either starts from a lower left corner or is centred",
        ),
        ("from O, across 20 -30", "more than nought"),
    ):
        assert told in refused(f"g = grid, {said}\n")
