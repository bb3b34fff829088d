"""A disc cam with a follower, two to five events."""

from __future__ import annotations

from random import Random

TITLE = "Cam"
TOLD = "A disc cam with a follower, two to five events."
SHEET = "sheet A3 landscape, scale 1:1, border 10"


def draw(random: Random) -> str:
    """Draw the sizes by lot, and say the part."""
    least, lift = random.randrange(34, 50, 2), random.randrange(14, 26, 2)
    shaft, roller = random.randrange(16, 26, 2), random.randrange(6, 10)
    motion = random.choice(("harmonic", "cycloidal", "parabolic"))
    other = random.choice(("harmonic", "cycloidal", "parabolic"))
    rise = random.randrange(90, 150, 30)
    fall = random.randrange(90, 150, 30)
    dwell = random.choice((0, 30, 60))
    rest = 360 - rise - fall - dwell
    events = [f"rise {rise}° by h {motion}", f"dwell {dwell}°" if dwell else ""]
    events += [f"fall {fall}° by h {other}", f"dwell {rest}°" if rest else ""]
    turning = random.choice(("cw", "ccw"))
    words = ", ".join(filter(None, events))
    return f"""
        given r = {least} "least distance"
        given s = Ø{shaft} "shaft"
        given R = R{roller} "roller"
        given h = {lift} "lift"
        O = datum, middle of sheet
        C = point, 90 left of O
        G = point, 20 right of O, 20 above
        lifter = cam, about C, least r, {turning}, shaft diameter s, roller radius R, \
            {words}, 24 parts, diagram from G, 30° is 12
        rim = line in, lifter
        bore = line in, lifter.shaft
        curve = line in, lifter.diagram, open
        axes = centre lines, of bore
    """
