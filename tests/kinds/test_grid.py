"""``grid``."""

from hypothesis import given
from hypothesis import strategies as st

from desk import solved, thing
from entrick.core.geometry import Point

lengths = st.integers(2, 60)


@given(st.lists(lengths, min_size=1, max_size=6), st.lists(lengths, min_size=1, max_size=5))
def test_grid_lines_stand_at_the_running_sums(across: list[int], up: list[int]) -> None:
    done = solved(f"g = grid, from O, across {' '.join(map(str, across))}, up {' '.join(map(str, up))}\n")
    for i in range(len(across) + 1):
        for j in range(len(up) + 1):
            assert thing(done, f"g.at.{i}.{j}") == Point(float(sum(across[:i])), float(sum(up[:j])))
