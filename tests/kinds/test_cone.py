"""``cone``."""

import pytest

from desk import outline, solved, thing


@pytest.mark.parametrize("along", ["up", "left", "right"])
@pytest.mark.parametrize("true", ["", ", true"])
def test_its_outline_is_the_hull_of_base_and_apex(along: str, true: str) -> None:
    """Against shapely: the silhouette of a cone is the convex hull of its base and its apex."""
    done = solved(f"c = cone, from O, diameter 50, height 60, along {along}{true}\n")
    base, apex = outline(thing(done, "c.base"), 40), thing(done, "c.apex")
    hull = base.union(
        type(base)([(apex.x, apex.y), (apex.x, apex.y + 1e-9), (apex.x + 1e-9, apex.y)])
    ).convex_hull
    assert outline(thing(done, "c"), 40).area == pytest.approx(hull.area, rel=1e-4)
    parts = thing(done, "c.near").length + thing(done, "c.hidden").length
    assert parts == pytest.approx(thing(done, "c.base").length)
    middle = thing(done, "c.hidden").pieces[len(thing(done, "c.hidden").pieces) // 2].entry
    assert (
        outline(thing(done, "c"), 40)
        .buffer(1e-6)
        .contains(type(outline(thing(done, "c"), 40).centroid)(middle.x, middle.y))
    )
