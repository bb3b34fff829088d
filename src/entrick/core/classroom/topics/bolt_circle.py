"""A flange with holes on a pitch circle, stepped off as chords."""

from __future__ import annotations

from random import Random

TITLE = "Flange"
TOLD = "A flange with holes on a pitch circle, stepped off as chords."
SHEET = "sheet A4 landscape, scale 1:1, border 10"


def draw(random: Random) -> str:
    """Draw the sizes by lot, and say the part."""
    pitch = random.randrange(90, 130, 2)
    hole = random.randrange(8, 16, 2)
    bore = random.randrange(30, pitch - 3 * hole, 2)
    outside = pitch + 2 * hole + random.randrange(8, 20, 2)
    count, start = (
        random.choice((3, 4, 5, 6, 8)),
        random.choice(("above", "right", "below", "left")),
    )
    return f"""
        given D = Ø{outside} "outside"
        given b = Ø{bore} "bore"
        given p = Ø{pitch} "pitch circle"
        given d = {count}× Ø{hole} "holes"
        O = datum, middle of sheet
        flange = circle, centre O, diameter D
        bore = circle, centre O, diameter b
        pitch = circle, centre O, diameter p
        at = spaced, {count} on pitch, from {start}
        hole = circle, centre at, diameter d
        rim = line in, flange
        eye = line in, bore
        pins = line in, hole
        axes = centre lines, of hole flange, round pitch
    """
