"""A hexagon socket in a round boss, given across its flats."""

from __future__ import annotations

from random import Random

TITLE = "Socket"
TOLD = "A hexagon socket in a round boss, given across its flats."
SHEET = "sheet A4 landscape, scale 1:1, border 10"


def draw(random: Random) -> str:
    """Draw the sizes by lot, and say the part."""
    flats = random.randrange(30, 60, 2)
    boss = int(flats * 1.155 / 2) * 2 + random.randrange(24, 60, 2)
    way = random.choice(("flat up", "point up"))
    return f"""
        given D = Ø{boss} "boss"
        given f = {flats} "across flats"
        O = datum, middle of sheet
        boss = circle, centre O, diameter D
        socket = polygon, 6 sides, centred on O, f across flats, {way}
        rim = line in, boss
        hexagon = line in, socket
        axes = centre lines, of boss
    """
