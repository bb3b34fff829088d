"""Three bosses about a bore, with waists beside them."""

from __future__ import annotations

from random import Random

TITLE = "Hand wheel"
TOLD = "Three bosses about a bore, with waists beside them."
SHEET = "sheet A4 landscape, scale 1:2, border 10"


def draw(random: Random) -> str:
    """Draw the sizes by lot, and say the part."""
    pitch = random.randrange(140, 190, 4)
    boss = random.randrange(28, pitch // 4, 2)
    waist = random.randrange(boss + 12, boss + 40, 2)
    grip = random.randrange(boss // 2, boss, 2)
    bore = random.choice([size for size in (36, 40, 44, 48) if size != grip])
    at = random.choice(("above", "below"))
    lower = "below" if at == "above" else "above"
    return f"""
        given p = Ø{pitch} "pitch circle"
        given b = 3× R{boss} "bosses"
        given d = 3× Ø{grip} "grip holes"
        given R = 3× R{waist} "waists"
        given h = Ø{bore} "bore"
        O = datum, middle of sheet
        pitch = circle, centre O, diameter p
        at = spaced, 3 on pitch, from {at}
        boss = circle, centre at, radius b
        grip = circle, centre at, diameter d
        waist = arc, radius R, beside boss.2, beside boss.3, {lower}
        waists = turn, of waist, 3 about O
        spindle = circle, centre O, diameter h
        rim = line in, boss.1 > waists.3 > boss.2 > waists.1 > boss.3 > waists.2
        eye = line in, grip
        bore = line in, spindle
        axes = centre lines, of grip spindle, round pitch
    """
