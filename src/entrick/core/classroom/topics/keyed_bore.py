"""A collar with a keyed bore and holes on a pitch circle."""

from __future__ import annotations

from random import Random

TITLE = "Collar"
TOLD = "A collar with a keyed bore and holes on a pitch circle."
SHEET = "sheet A4 landscape, scale 1:2, border 10"


def draw(random: Random) -> str:
    """Draw the sizes by lot, and say the part."""
    bore = random.randrange(36, 64, 4)
    wide = random.choice((10, 12, 14))
    deep = random.choice((3, 4))
    pitch = random.randrange(2 * bore + 20, 2 * bore + 60, 4)
    hole = random.randrange(10, 20, 2)
    outside = pitch + 2 * hole + random.randrange(16, 32, 4)
    count, side = random.choice((4, 6)), random.choice(("above", "below", "left", "right"))
    start = "right" if side in ("above", "below") else "above"
    return f"""
        given D = Ø{outside} "outside"
        given b = Ø{bore} "bore"
        given k = {wide} "keyway, wide"
        given t = {deep} "keyway, deep"
        given p = Ø{pitch} "pitch circle"
        given d = {count}× Ø{hole} "holes"
        O = datum, middle of sheet
        collar = circle, centre O, diameter D
        bore = circle, centre O, diameter b
        key = keyway, on bore, width k, depth t, {side}
        pitch = circle, centre O, diameter p
        at = spaced, {count} on pitch, from {start}
        hole = circle, centre at, diameter d
        rim = line in, collar
        eye = line in, bore long > key
        pins = line in, hole
        axes = centre lines, of hole collar, round pitch
    """
