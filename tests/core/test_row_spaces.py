"""What rows fix together, against a general linear algebra library."""

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from entrick.core.dimensioning.variation import RowSpace

ROWS = (
    st.integers(1, 6)
    .flatmap(
        lambda wide: st.lists(
            st.lists(st.integers(-3, 3).map(float), min_size=wide, max_size=wide),
            min_size=1,
            max_size=30,
        )
    )
    .map(np.array)
)


@given(ROWS)
def test_the_space_of_many_rows_is_that_of_one_after_another(rows: np.ndarray) -> None:
    singly = RowSpace()
    news = [singly.add(row) for row in rows]
    at_once = RowSpace.of(rows)
    assert len(at_once.rows) == len(singly.rows) == sum(news) == np.linalg.matrix_rank(rows)
    assert np.allclose(at_once.rows, singly.rows, atol=1e-9), "the same rows were new"
    for row in rows:
        assert np.allclose(at_once.rest(row), 0, atol=1e-9)


@given(ROWS)
def test_what_a_space_leaves_open_stands_square_to_it(rows: np.ndarray) -> None:
    space, wide = RowSpace.of(rows), len(rows[0])
    rest = space.null_space(wide)
    assert len(space.rows) + len(rest.rows) == wide
    assert not rest.touches(space.rows).any()
    assert not len(space.rows) or space.touches(space.rows).all()
    if len(rest.rows):
        assert rest.touches(rest.rows).all()
        assert not space.touches(rest.rows).any()


def test_no_sizes_and_no_places_span_nothing() -> None:
    assert RowSpace.of(np.zeros((0, 3))).rows.size == 0
    assert RowSpace.of(np.zeros((5, 0))).rows.size == 0
