"""``screw``."""

import math

from hypothesis import given
from hypothesis import strategies as st

from desk import HEAD
from entrick.core.desk import work_out
from entrick.core.geometry import Loop


@given(
    st.integers(20, 60),
    st.integers(60, 92),
    st.integers(1, 3),
    st.integers(4, 30),
    st.sampled_from(["square", "vee"]),
)
def test_every_edge_of_a_screw_lies_on_it_between_its_ends(
    wide: int, share: int, starts: int, lead: int, form: str
) -> None:
    # A thread finer than this is drawn as a symbol, not edge by edge; its ends are then sharper than a pencil.
    lead = max(lead, wide // 5)
    core, long = wide * share / 100, lead * 2.3
    rows = f"s = screw, from O, diameter {wide}, core diameter {core}, lead {lead}, length {long}, {form}"
    done = work_out(f"{HEAD}{rows}, {starts} starts\n")
    if form == "square" and share / 100 < math.cos(math.pi / 2 / starts):
        assert "the core is at least" in done.solution.errors[0].message
        return
    assert not done.solution.errors
    parts = done.solution.figure.items["s"].parts
    beyond = 4e-4 * wide
    for name, edge in parts.items():
        if not isinstance(edge, Loop):
            continue
        low, high = edge.box
        assert low.y > -beyond
        assert high.y < long + beyond
        radius = {"crest": wide / 2, "root": core / 2}.get(name.partition(".")[0], wide / 2)
        assert max(-low.x, high.x) < radius + beyond
        if name.startswith(("crest", "root")):
            # cos θ = x/r and the rise go together: the place is on a helix of the lead (definition).
            for piece in edge.pieces:
                turn = math.acos(max(-1.0, min(1.0, piece.entry.x / radius))) / math.tau * lead
                pitch = lead / starts
                shift = pitch / 2
                far = [((piece.entry.y + way * turn + lead / 2) / shift) % 1 for way in (1, -1)]
                assert min(min(f, 1 - f) for f in far) < (1e-3 * wide + 6e-3 * lead) / shift
    assert parts["crest.1"] != parts["root.1"]
