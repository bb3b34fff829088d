"""A toothed wheel with a keyed bore."""

from __future__ import annotations

from random import Random

TITLE = "Wheel"
TOLD = "A toothed wheel with a keyed bore."
SHEET = "sheet A3 landscape, scale 1:1, border 10"


def draw(random: Random) -> str:
    """Draw the sizes by lot, and say the part."""
    teeth = random.randrange(18, 41)
    module = random.choice((3, 4, 5))
    bore = random.randrange(16, max(20, teeth * module // 3), 2)
    return f"""
        given m = {module} "module"
        given b = Ø{bore} "bore"
        O = datum, middle of sheet
        wheel = gear, about O, {teeth} teeth, module m, bore diameter b
        rim = line in, wheel
        bore = line in, wheel.bore
        axes = centre lines, round wheel.pitch, of wheel.bore
    """
