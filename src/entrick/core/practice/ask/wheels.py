"""The circles of a toothed wheel."""

from __future__ import annotations

import math
from collections.abc import Iterator
from random import Random

from ...geometry import Arc, Circle
from ..question import Question, Slip
from .context import Context

PLACE = 5
"""Where it stands among the others."""


def ask(at: Context, _: Random) -> Iterator[Question]:
    """Ask for the circles of a toothed wheel, by their diameters at full size."""
    unit, near = at.work.solution.unit.value, float(at.work.kit.graduation) / 2
    for entry in at.work.solution.entries:
        parts = entry.made.parts if entry.made else {}
        rounds = {key: parts.get(key) for key in ("pitch", "outside", "root", "base")}
        if entry.made is None or not all(isinstance(c, Circle | Arc) for c in rounds.values()):
            continue
        pitch, outside, root, base = (
            2 * c.radius for c in rounds.values() if isinstance(c, Circle | Arc)
        )
        if not root < pitch < outside:
            continue
        up, down = (outside - pitch) / 2, (pitch - root) / 2
        sine = math.sqrt(max(0.0, 1 - (base / pitch) ** 2))
        asked = {
            "outside": (
                outside,
                (
                    ("addendum once", 6, pitch + up, "The addendum goes on both sides"),
                    ("dedendum for addendum", 4, pitch + 2 * down, "Outside takes the addendum"),
                ),
            ),
            "root": (
                root,
                (
                    ("addendum once", 6, pitch - down, "The dedendum comes off on both sides"),
                    ("addendum for dedendum", 4, pitch - 2 * up, "The root takes the dedendum"),
                ),
            ),
            "base": (
                base,
                (
                    ("sine for cosine", 3, pitch * sine, "The base circle is D cos φ"),
                    (
                        "divided by the cosine",
                        3,
                        pitch * pitch / base,
                        "The base circle is D cos φ",
                    ),
                ),
            ),
        }
        for name, (right, said) in asked.items():
            own = [Slip(*each) for each in said]
            own.append(
                Slip(
                    "pitch circle for another",
                    4,
                    pitch,
                    "That is the circle the teeth are spaced on",
                )
            )
            slips = tuple(s for s in own if abs(float(s.answer) - right) > 4 * near)
            words = (
                f"{at.told(entry.line)} What is the diameter of its {name} circle, at full size?"
            )
            yield Question(
                f"wheel:{entry.line}:{name}",
                "wheel",
                words,
                "length",
                entry.line,
                right,
                0,
                unit,
                near,
                slips=tuple(sorted(slips, key=lambda slip: -slip.weight)),
                working=entry.made.working,
                hints=("Begin with the pitch circle",),
            )
