"""A block in isometric with a round hole in front."""

from __future__ import annotations

from random import Random

TITLE = "Block"
TOLD = "A block in isometric with a round hole in front."
SHEET = "sheet A4 landscape, scale 1:1, border 10"


def draw(random: Random) -> str:
    """Draw the sizes by lot, and say the part."""
    wide, high = random.randrange(48, 76, 4), random.randrange(40, 64, 4)
    thick = random.randrange(24, 48, 4)
    hole = random.randrange(14, min(wide, high) - 16, 2)
    return f"""
        given w = {wide} "wide"
        given h = {high} "high"
        given t = {thick} "thick"
        given d = Ø{hole} "hole"
        O = datum, middle of sheet
        body = isometric block, centred on O, w by h, on right, thick t, rounded 6
        hole = isometric circle, centred on O, diameter d, on right
        rim = line in, body
        front = line in, body.near, open
        eye = line in, hole
    """
