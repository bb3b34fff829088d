"""A washer with slots about its middle."""

from __future__ import annotations

from random import Random

TITLE = "Index plate"
TOLD = "A washer with slots about its middle."
SHEET = "sheet A4 landscape, scale 1:2, border 10"


def draw(random: Random) -> str:
    """Draw the sizes by lot, and say the part."""
    inner = random.randrange(60, 80, 4)
    outer = inner + random.randrange(16, 28, 4)
    outside = 2 * outer + random.randrange(32, 60, 4)
    bore = random.randrange(28, inner, 4)
    reach = random.choice((30, 45, 60))
    middle = random.choice((0, 90))
    return f"""
        given D = Ø{outside} "outside"
        given b = Ø{bore} "bore"
        given i = R{inner} "slots, inner side"
        given o = R{outer} "slots, outer side"
        O = datum, middle of sheet
        disc = circle, centre O, diameter D
        bore = circle, centre O, diameter b
        one = slot, about O, radii i and o, from {middle - reach}° to {middle + reach}°
        two = slot, about O, radii i and o, from {middle + 180 - reach}° to {middle + 180 + reach}°
        rim = line in, disc
        eye = line in, bore
        way1 = line in, one
        way2 = line in, two
        axes = centre lines, of disc
    """
