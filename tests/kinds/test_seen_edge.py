"""``seen edge``."""

from desk import solved
from entrick.core.formats.dxf import write_cutter_dxf
from entrick.core.measure import Unit

PART = "c = circle, centre O, radius 30\nd = circle, centre O, radius 26\nrim = line in, c\n"


def test_a_bevel_is_neither_hole_nor_cut() -> None:
    as_hole, as_edge = solved(PART + "x = line in, d\n"), solved(PART + "x = seen edge, d\n")
    assert [o.name for o in as_hole.checked.outlines] == ["rim", "x"]
    assert [o.name for o in as_edge.checked.outlines] == ["rim"]
    drawn = [mark for mark in as_edge.display.marks if mark.role == "edge"]
    assert len(drawn) == 1
    assert not [
        f for f in as_edge.findings if f.weight in ("wrong", "look") and "x" in f.message.split()
    ]


def test_the_cutter_leaves_it_out() -> None:
    written = [
        write_cutter_dxf(solved(PART + row).outlines, Unit.MM) for row in ("x = seen edge, d\n", "")
    ]
    assert [text.count("CIRCLE\n") for text in written] == [written[1].count("CIRCLE\n")] * 2
