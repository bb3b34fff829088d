"""A page for each motion of a cam's follower."""

from __future__ import annotations

import math
from collections.abc import Sequence

from ...rules.motion import MOTIONS, Motion
from ..page import Chapter, Page, listed, sections, worked

PLAN = """\
units mm
sheet A4 landscape, scale 1:1, border 10
O = datum
P = point, 60 right of O
c = cam, about O, least 25, rise 150° by 20 {motion}, dwell 60°, fall 150° by 20 {motion}, diagram from P
rim = line in, c
"""  # noqa: E501


def _pages() -> Sequence[Page]:
    return list(map(_page, MOTIONS.values()))


def _page(motion: Motion) -> Page:
    plan = PLAN.format(motion=motion.name)
    accelerates = f"greatest acceleration {motion.acceleration:.4g} times lift over time squared"
    struck = "the velocity jumps at both ends: the follower is struck"
    peaks = [
        f"greatest velocity {motion.velocity:.4g} times lift over time",
        struck if math.isinf(motion.acceleration) else accelerates,
    ]
    return Page(
        key=motion.name,
        title=motion.title,
        summary=f"said {motion.name}; drawn by {motion.drawn}",
        text=sections(
            ("How it is drawn", f"On the displacement diagram: {motion.drawn}."),
            ("What it does", listed(peaks)),
            ("A plan that shows it", worked(plan)),
            (
                "Source",
                "The factors follow from the formula by differentiation, and agree with the tables "
                "of machinery handbooks.",
            ),
        ),
        also=(motion.name,),
        plan=plan,
    )


CHAPTER = Chapter("motions", "Motions of a follower", _pages)
