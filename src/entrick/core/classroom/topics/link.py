"""A link with two eyes, blended around one side and beside the other."""

from __future__ import annotations

from random import Random

TITLE = "Link"
TOLD = "A link with two eyes, blended around one side and beside the other."
SHEET = "sheet A4 landscape, scale 1:2, border 10"


def draw(random: Random) -> str:
    """Draw the sizes by lot, and say the part."""
    far = random.randrange(160, 260, 4)
    big = random.randrange(48, 72, 4)
    small = random.randrange(32, big - 8, 4)
    over = far // 2 + big + random.randrange(20, 80, 4)
    under = random.randrange(far // 2, far, 4)
    pin, bolt = random.randrange(24, big, 4), random.randrange(16, small, 4)
    side, other = random.choice((("above", "below"), ("below", "above")))
    return f"""
        given a = {far} "between the eyes"
        given e1 = Ø{2 * big} "big eye"
        given e2 = R{small} "small eye"
        given b1 = Ø{pin} "big pin"
        given b2 = Ø{bolt} "small pin"
        given R = R{over} "blend around"
        given r = R{under} "blend beside"
        O = datum, middle of sheet
        A = point, a/2 left of O
        B = point, a/2 right of O
        eyeA = circle, centre A, diameter e1
        eyeB = circle, centre B, radius e2
        pinA = circle, centre A, diameter b1
        pinB = circle, centre B, diameter b2
        over = arc, radius R, around eyeA, around eyeB, {side}
        under = arc, radius r, beside eyeA, beside eyeB, {other}
        rim = line in, eyeA > over > eyeB > under
        bore = line in, pinA
        pin = line in, pinB
        axes = centre lines, of pinA pinB
    """
