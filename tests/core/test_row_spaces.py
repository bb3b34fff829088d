"""What rows fix together, against a general linear algebra library."""

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from entrick.core.dimensioning.variation import RowSpace

ROWS = st.integers(1, 6).flatmap(
    lambda wide: st.lists(
        st.lists(st.integers(-3, 3).map(float), min_size=wide, max_size=wide).map(tuple), min_size=1, max_size=30
    )
)


@given(ROWS)
def test_the_space_of_many_rows_is_that_of_one_after_another(rows: list[tuple[float, ...]]) -> None:
    singly = RowSpace()
    news = [singly.add(row) for row in rows]
    at_once = RowSpace.of(np.array(rows))
    assert len(at_once.rows) == len(singly.rows) == sum(news) == np.linalg.matrix_rank(np.array(rows))
    assert np.allclose(np.array(at_once.rows), np.array(singly.rows), atol=1e-9), "the same rows were new"
    for row in rows:
        assert np.allclose(at_once.rest(row), 0, atol=1e-9)


@given(ROWS)
def test_what_a_space_leaves_open_stands_square_to_it(rows: list[tuple[float, ...]]) -> None:
    space, wide = RowSpace.of(np.array(rows)), len(rows[0])
    rest = space.across(wide)
    assert len(space.rows) + len(rest.rows) == wide
    assert not any(rest.touches(row) for row in space.rows)


def test_no_sizes_and_no_places_span_nothing() -> None:
    assert RowSpace.of(np.zeros((0, 3))).rows == []
    assert RowSpace.of(np.zeros((5, 0))).rows == []
