"""Sensible parts made up at random, for what has to hold for any part: plates, links, flanges, slots, blends, bolt
circles, polygons, ellipses and gears, each with how many numbers it is given by."""

from __future__ import annotations

import math
import random
from collections.abc import Callable

Part = tuple[str, int]
"""Rows of a plan below its datum, and the numbers in them that may be chosen freely."""


def plate(r: random.Random) -> Part:
    """A plate with rounded corners, a hole by each, and sometimes a window or a bore."""
    wide, high, rounded = r.randrange(80, 200, 5), r.randrange(50, 120, 5), r.randrange(5, 16)
    across, up, hole = (
        wide - 2 * r.randrange(12, 18),
        high - 2 * r.randrange(12, 18),
        r.choice([5, 6, 6.5, 8, 9]),
    )
    rows = (
        f"b = box, {wide} by {high}, centred on O\ne = rounded, all corners of b, radius {rounded}\nrim = line in, e\n"
        f"p = box, {across} by {up}, centred on O\nc = circle, centre p.upper_right, diameter {hole}\nh = line in, c\n"
        "i = mirror, of h, about O.plumb\nj = mirror, of h i, about O.level\n"
    )
    if r.random() < 0.5:
        return (
            rows + f"k = circle, centre O, diameter {r.randrange(10, 24)}\nbore = line in, k\n",
            7,
        )
    wall = max(wide - across, high - up) // 2 + 6
    return (
        rows
        + f"w = box, {wide - 2 * wall} by {high - 2 * wall}, centred on O\npane = line in, w\n",
        8,
    )


def link(r: random.Random) -> Part:
    """Two eyes with pins and two blends about them or beside them."""
    apart, a, b = r.randrange(80, 240), r.randrange(18, 36), r.randrange(12, 30)
    if r.random() < 0.5:
        blends, radius = "around a, around b", r.randrange(apart, 2 * apart)
    else:
        blends, radius = "beside a, beside b", r.randrange(apart, 2 * apart)
    return (
        f"A = point, {apart} right of O\na = circle, centre O, radius {a}\nb = circle, centre A, radius {b}\n"
        f"t = arc, radius {radius}, {blends}, above\nu = arc, radius {radius + r.randrange(0, 40)}, {blends}, below\n"
        f"rim = line in, a > t > b > u\np = circle, centre O, radius {a / 2:g}\nq = circle, centre A, radius {b / 2:g}\n"
        "bore = line in, p\npin = line in, q\n"
    ), 7


def stay(r: random.Random) -> Part:
    """Two eyes and the lines that touch them."""
    apart, up, a, b = (
        r.randrange(60, 200),
        r.randrange(0, 40),
        r.randrange(10, 30),
        r.randrange(8, 24),
    )
    return (
        f"A = point, {apart} right of O, {up} above\na = circle, centre O, radius {a}\nb = circle, centre A, radius {b}\n"
        "l = line, touching a, touching b, outer, above\nm = line, touching a, touching b, outer, below\n"
        f"rim = line in, a > l > b > m\np = circle, centre O, diameter {a}\nbore = line in, p\n"
        f"q = circle, centre A, diameter {b}\npin = line in, q\n"
    ), 6 if up else 5


def flange(r: random.Random) -> Part:
    """A round flange with bolts on a pitch circle and a bore, or a bore with a keyway."""
    outside, count, bolt = r.randrange(90, 200, 2), r.randrange(3, 13), r.choice([5, 6, 8, 9, 11])
    pitch, bore = outside - 24, r.randrange(20, 40)
    rows = (
        f"f = circle, centre O, diameter {outside}\nrim = line in, f\np = circle, centre O, diameter {pitch}\n"
        f"at = spaced, {count} on p, from {r.choice(['above', 'right', '15°'])}\nc = circle, centre at, diameter {bolt}\n"
        f"bolts = line in, c\nk = circle, centre O, diameter {bore}\n"
    )
    if r.random() < 0.5:
        return rows + "bore = line in, k\n", 5
    return (
        rows
        + f"key = keyway, on k, width 6, depth {r.choice([2.8, 3, 3.5])}, above\nbore = line in, k long > key\n",
        7,
    )


def slotted(r: random.Random) -> Part:
    """A plate with corners cut off and slots, straight, or about a centre."""
    wide, high, cut = r.randrange(120, 220, 5), r.randrange(90, 140, 5), r.randrange(5, 20)
    rows = (
        f"e = run, from O, right {wide - cut}, at 45° for {2 * cut}, up {high - 3 * cut}, left {wide // 2}, at 160° for 20, close\n"
        "rim = line in, e\n"
    )
    if r.random() < 0.5:
        slot = f"slot, from A to B, width {r.randrange(6, 12)}"
        points = f"A = point, {r.randrange(30, 40)} right of O, {r.randrange(20, 26)} above\nB = point, {r.randrange(30, 40)} right of A, {r.randrange(0, 15)} above\n"
        return rows + points + f"s = {slot}\nw = line in, s\n", 12
    turn = r.randrange(0, 60, 5)
    return rows + (
        f"A = point, {wide // 2} right of O, {high // 3} above\n"
        f"s = slot, about A, radii 14 and {r.randrange(20, 24)}, from {turn}° to {turn + 70}°\nw = line in, s\n"
    ), 12


def lobed(r: random.Random) -> Part:
    """Eyes round a centre, blended from each to the next."""
    count, arm, eye = r.randrange(3, 6), r.randrange(60, 90), r.randrange(14, 20)
    blend = round(2 * arm * math.sin(math.pi / count) * r.uniform(0.6, 1.2))
    walk = " > ".join(f"eye.{k} > w.{k}" for k in range(1, count + 1))
    return (
        f"p = circle, centre O, radius {arm}\nat = spaced, {count} on p, from above\neye = circle, centre at, radius {eye}\n"
        f"t = arc, radius {blend}, beside eye.1, beside eye.2, away from O\nw = turn, of t, {count} about O\nrim = line in, {walk}\n"
        f"h = circle, centre at, diameter {eye}\nholes = line in, h\nb = circle, centre O, diameter 20\nbore = line in, b\n"
    ), 5


def cornered(r: random.Random) -> Part:
    """A regular polygon or an ellipse with an opening in it."""
    sides = r.choice([3, 5, 6, 8])
    if r.random() < 0.5:
        return (
            f"n = polygon, {sides} sides, centred on O, radius {r.randrange(40, 80)}, point up\nrim = line in, n\n"
            f"c = circle, centre O, diameter {r.randrange(10, 40)}\nbore = line in, c\n"
        ), 3
    long = r.randrange(100, 180, 2)
    return (
        f"e = ellipse, centred on O, axes {long} and {r.randrange(60, 96, 2)}, at {r.randrange(0, 90, 10)}°\nrim = line in, e\n"
        f"n = polygon, {sides} sides, centred on O, side {r.randrange(12, 20)}, flat down\nhole = line in, n\n"
    ), 5


def walled(r: random.Random) -> Part:
    """A frame of constant wall with two sizes of rounds."""
    wide, high = r.randrange(90, 180, 2), r.randrange(60, 90, 2)
    return (
        f"b = box, {wide} by {high}, centred on O\nx = rounded, corners b.lower_left b.lower_right of b, radius {r.randrange(14, 18)}\n"
        f"y = rounded, corners b.upper_left b.upper_right of x, radius {r.randrange(20, 26)}\nrim = line in, y\n"
        f"v = inset, of rim, wall {r.randrange(6, 12)}\nhole = line in, v\n"
    ), 5


def toothed(r: random.Random) -> Part:
    """A gear with a bore."""
    teeth, module = r.randrange(14, 40), r.choice([2, 2.5, 3, 4])
    pressure = r.choice(["", ", pressure 25°", ", proportions stub"])
    return (
        f"g = gear, about O, {teeth} teeth, module {module}{pressure}\nrim = line in, g\n"
        f"c = circle, centre O, diameter {r.randrange(8, 14)}\nbore = line in, c\n"
    ), 4 + bool(pressure)


def rowed(r: random.Random) -> Part:
    """A bar with a row of holes that stands to one side, and one more hole."""
    count, pitch, hole = r.randrange(3, 8), r.randrange(14, 24), r.choice([6, 7, 8.5])
    long = 30 + pitch * count + r.randrange(10, 30)
    return (
        f"b = box, {long} by 50, from O\nrim = line in, b\nA = point, 20 right of O, {r.randrange(14, 20)} above\n"
        f"c = circle, centre A, diameter {hole}\nh = line in, c\nrow = shift, of h, {pitch} right, {count - 1} times\n"
        f"B = point, {r.randrange(30, 60)} right of O, 38 above\nd = circle, centre B, diameter 5\nlast = line in, d\n"
    ), 10


SORTS: tuple[Callable[[random.Random], Part], ...] = (
    plate,
    link,
    stay,
    flange,
    slotted,
    lobed,
    cornered,
    walled,
    toothed,
    rowed,
)


def part(seed: int) -> Part:
    """Return a part by its number."""
    return SORTS[seed % len(SORTS)](random.Random(seed))
