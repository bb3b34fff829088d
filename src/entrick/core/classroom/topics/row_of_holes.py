"""A plate with rounded corners and a row of holes."""

from __future__ import annotations

from random import Random

TITLE = "Strap"
TOLD = "A plate with rounded corners and a row of holes."
SHEET = "sheet A4 landscape, scale 1:2, border 10"


def draw(random: Random) -> str:
    """Draw the sizes by lot, and say the part."""
    hole = random.randrange(16, 28, 4)
    high = 2 * hole + random.randrange(20, 40, 4)
    count = random.choice((3, 4, 5))
    pitch = random.randrange(2 * hole, 3 * hole, 4)
    end = random.randrange(2 * hole, 2 * hole + 20, 4)
    corner = random.randrange(8, high // 3, 4)
    return f"""
        given l = {(count - 1) * pitch + 2 * end} "long"
        given h = {high} "high"
        given r = 4× R{corner} "corners"
        given e = {end} "first hole from the end"
        given p = {pitch} "pitch"
        given d = {count}× Ø{hole} "holes"
        O = datum, middle of sheet
        plate = box, l by h, centred on O
        edge = rounded, all corners of plate, radius r
        P = point, l/2 - e left of O
        hole = circle, centre P, diameter d
        row = shift, of hole, p right, {count - 1} times
        rim = line in, edge
        pins = line in, row
        first = line in, hole
        axes = centre lines, of row hole
    """
