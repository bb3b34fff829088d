"""A stepped plate whose lengths are a chain with a link left open."""

from __future__ import annotations

from random import Random

TITLE = "Step plate"
TOLD = "A stepped plate whose lengths are a chain with a link left open."
SHEET = "sheet A4 landscape, scale 1:1, border 10"


def draw(random: Random) -> str:
    """Draw the sizes by lot, and say the part."""
    links = [random.randrange(16, 44, 2) for _ in range(4)]
    if len(set(links)) < len(links):
        links = [a + 2 * n for n, a in enumerate(sorted(links))]
        random.shuffle(links)
    open_link = random.randrange(4)
    words = " ".join("?" if n == open_link else str(size) for n, size in enumerate(links))
    rise = random.randrange(12, 22, 2)
    return f"""
        chain c = {words}, overall {sum(links)} "along the foot"
        given h = {rise} "each step"
        O = datum, middle of sheet
        A = point, {sum(links) // 2} left of O
        stairs = run, from A, right c.1, up h, right c.2, up h, right c.3, up h, right c.4, up h
        back = run, from stairs.end, left c.4, left c.3, left c.2, left c.1, down 4*h
        rim = line in, stairs > back
    """
