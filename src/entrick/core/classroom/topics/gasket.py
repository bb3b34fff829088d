"""Two eyes joined by straight sides that touch both."""

from __future__ import annotations

from random import Random

TITLE = "Gasket"
TOLD = "Two eyes joined by straight sides that touch both."
SHEET = "sheet A4 landscape, scale 1:2, border 10"


def draw(random: Random) -> str:
    """Draw the sizes by lot, and say the part."""
    far = random.randrange(140, 240, 4)
    big = random.randrange(44, 64, 4)
    small = random.randrange(24, big - 8, 4)
    bore, hole = random.randrange(24, big, 4), random.randrange(12, small, 4)
    return f"""
        given a = {far} "between the eyes"
        given e1 = R{big} "big eye"
        given e2 = R{small} "small eye"
        given b1 = Ø{bore} "bore"
        given b2 = Ø{hole} "hole"
        O = datum, middle of sheet
        A = point, a/2 left of O
        B = point, a/2 right of O
        eyeA = circle, centre A, radius e1
        eyeB = circle, centre B, radius e2
        pinA = circle, centre A, diameter b1
        pinB = circle, centre B, diameter b2
        top = line, touching eyeA, touching eyeB, outer, above
        low = line, touching eyeA, touching eyeB, outer, below
        rim = line in, eyeA > top > eyeB > low
        bore = line in, pinA
        pin = line in, pinB
        axes = centre lines, of pinA pinB
    """
