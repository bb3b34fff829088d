"""A block with a tapped hole in section."""

from __future__ import annotations

from random import Random

TITLE = "Tapped block"
TOLD = "A block with a tapped hole in section."
SHEET = "sheet A4 landscape, scale 1:1, border 10"


def draw(random: Random) -> str:
    """Draw the sizes by lot, and say the part."""
    size = random.choice((8, 10, 12, 16, 20))
    deep = random.randrange(int(1.5 * size) // 2 * 2, 2 * size, 2)
    wide = random.randrange(4 * size, 6 * size, 4)
    high = deep + size + random.randrange(10, 30, 2)
    return f"""
        given w = {wide} "wide"
        given h = {high} "high"
        given d = {deep} "thread, deep"
        given q = {deep + size // 2} "drilled, deep"
        O = datum, middle of sheet
        block = box, w by h, centred on O
        rim = line in, block.bottom > block.right > block.top > block.left, cut
        P = point, h/2 above O
        tap = tapped hole, at P, thread "M{size}", section down, depth d, drilled q
        sect = hatch, of rim tap.edge
        axes = centre lines, along tap.axis
    """
