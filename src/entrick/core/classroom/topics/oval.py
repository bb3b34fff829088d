"""An oval hatch drawn by four centres, with a window like it."""

from __future__ import annotations

from random import Random

TITLE = "Hatch"
TOLD = "An oval hatch drawn by four centres, with a window like it."
SHEET = "sheet A4 landscape, scale 1:2, border 10"


def draw(random: Random) -> str:
    """Draw the sizes by lot, and say the part."""
    long = random.randrange(200, 320, 4)
    short = random.randrange(int(long * 0.6) // 4 * 4, int(long * 0.8), 4)
    rim = random.randrange(16, 32, 2)
    return f"""
        given a = {long} "long"
        given b = {short} "short"
        given w = {rim} "rim, wide"
        O = datum, middle of sheet
        oval = ellipse, centred on O, axes a and b, by four centres
        inner = ellipse, centred on O, axes a - 2*w and b - 2*w
        edge = line in, oval
        light = line in, inner
        axes = centre lines, along oval.long, along oval.short
    """
