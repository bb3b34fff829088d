"""Profiles by writers of their own: parts worked out with complex numbers, and files of them as other programs write
them. Nothing here knows the desk."""

from __future__ import annotations

import cmath
import io
import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

import ezdxf

Corner = tuple[complex, float]
"""A corner of a path, and how the way to the next bulges: the tangent of a quarter of the sweep, 0 for a line."""

Path = list[Corner]


@dataclass(frozen=True)
class Part:
    """Closed paths and circles, and the fewest numbers it can be given by (counted by hand)."""

    name: str
    paths: tuple[Path, ...]
    circles: tuple[tuple[complex, float], ...]
    numbers: int


def rounded(corners: Sequence[complex], radii: Sequence[float]) -> Path:
    """Round the corners of a polygon that is gone round counter-clockwise."""
    found: Path = []
    count = len(corners)
    for k, (at, radius) in enumerate(zip(corners, radii, strict=True)):
        back, on = corners[k - 1] - at, corners[(k + 1) % count] - at
        if not radius:
            found.append((at, 0.0))
            continue
        turn = cmath.phase(-on / back)
        off = radius * math.tan(abs(turn) / 2)
        found += [(at + back / abs(back) * off, math.tan(turn / 4)), (at + on / abs(on) * off, 0.0)]
    return found


def box(wide: float, high: float) -> list[complex]:
    return [complex(x * wide / 2, y * high / 2) for x, y in ((-1, -1), (1, -1), (1, 1), (-1, 1))]


def hull(rounds: Sequence[tuple[complex, float]]) -> Path:
    """Lay a belt round circles, counter-clockwise."""
    ends = []
    for k, (a, p) in enumerate(rounds):
        b, q = rounds[(k + 1) % len(rounds)]
        lean = math.acos((p - q) / abs(b - a))
        out = (b - a) / abs(b - a) * cmath.exp(-1j * lean)
        ends.append((a + out * p, b + out * q))
    found: Path = []
    for k, (leave, arrive) in enumerate(ends):
        at, _ = rounds[(k + 1) % len(rounds)]
        on = ends[(k + 1) % len(rounds)][0]
        sweep = cmath.phase((on - at) / (arrive - at)) % math.tau
        found += [(leave, 0.0), (arrive, math.tan(sweep / 4))]
    return found


def waisted(rounds: Sequence[tuple[complex, float]], hollow: float) -> Path:
    """Run round circles with hollow arcs between them that touch both."""
    touches = []
    for k, (a, p) in enumerate(rounds):
        b, q = rounds[(k + 1) % len(rounds)]
        far, near, reach = p + hollow, q + hollow, abs(b - a)
        along = (reach**2 + far**2 - near**2) / (2 * reach)
        unit = (b - a) / reach
        centre = a + unit * complex(along, -math.sqrt(far**2 - along**2))
        touches.append((centre, a + (centre - a) / far * p, b + (centre - b) / near * q))
    found: Path = []
    for k, (centre, leave, arrive) in enumerate(touches):
        hollow_sweep = cmath.phase((arrive - centre) / (leave - centre))
        at, _ = rounds[(k + 1) % len(rounds)]
        on = touches[(k + 1) % len(rounds)][1]
        sweep = cmath.phase((on - at) / (arrive - at)) % math.tau
        found += [(leave, math.tan(hollow_sweep / 4)), (arrive, math.tan(sweep / 4))]
    return found


def swept(spots: Sequence[complex], centres: Sequence[complex]) -> Path:
    """Run from place to place along arcs about centres, counter-clockwise."""
    count = len(spots)
    return [
        (a, math.tan((cmath.phase((spots[(k + 1) % count] - c) / (a - c)) % math.tau) / 4))
        for k, (a, c) in enumerate(zip(spots, centres, strict=True))
    ]


def ring(count: int, radius: float, size: float, start: float = 0.0) -> list[tuple[complex, float]]:
    return [(cmath.rect(radius, start + math.tau * k / count), size) for k in range(count)]


def parts() -> Iterator[Part]:
    """Yield parts of every sort, with sizes of their own."""
    yield Part("link", (hull([(0, 22), (90, 14)]),), ((0, 11), (90, 6.5)), 5)
    yield Part(
        "plate",
        (rounded(box(120, 80), [12] * 4),),
        tuple((complex(x * 42, y * 25), 5.25) for x in (-1, 1) for y in (-1, 1)),
        6,
    )
    c = 9
    x, y = 55, 35
    octagon = [
        complex(*p)
        for p in (
            (c - x, -y),
            (x - c, -y),
            (x, c - y),
            (x, y - c),
            (x - c, y),
            (c - x, y),
            (-x, y - c),
            (-x, c - y),
        )
    ]
    yield Part("chamfered", ([(p, 0.0) for p in octagon],), ((0, 17),), 4)
    yield Part("slotted", ([(p, 0.0) for p in box(96, 52)], hull([(-18, 7), (18, 7)])), (), 4)
    angle = [0j, 80 + 0j, 80 + 15j, 15 + 15j, 15 + 60j, 60j]
    yield Part(
        "bracket", (rounded(angle, [0, 6, 6, 10, 6, 6]),), ((7.5 + 45j, 3.5), (60 + 7.5j, 3.5)), 11
    )
    yield Part("flange", (), ((0, 65), (0, 25), *ring(6, 48, 5.5)), 5)
    yield Part(
        "three eyes",
        (
            hull(
                [(cmath.rect(40, a), 16) for a in (math.pi / 2, math.pi * 7 / 6, math.pi * 11 / 6)]
            ),
        ),
        tuple(ring(3, 40, 8, math.pi / 2)),
        4,
    )
    yield Part("waisted link", (waisted([(0, 26), (84, 18)], 60),), ((0, 13), (84, 9)), 6)
    yield Part(
        "hollow triangle",
        (
            waisted(
                [(cmath.rect(50, a), 15) for a in (math.pi / 2, math.pi * 7 / 6, math.pi * 11 / 6)],
                45,
            ),
        ),
        ((0, 12),),
        4,
    )
    corners = [cmath.rect(30, a) for a in (math.pi / 2, math.pi * 7 / 6, math.pi * 11 / 6)]
    yield Part("of three arcs", (swept(corners, [corners[2], corners[0], corners[1]]),), (), 1)
    yield Part(
        "hexagon", ([(cmath.rect(32, math.tau * k / 6), 0.0) for k in range(6)],), ((0, 14),), 2
    )
    half = math.sqrt(30**2 - 18**2)
    yield Part(
        "flatted round",
        ([(-half + 18j, math.tan((math.tau - 2 * math.acos(18 / 30)) / 4)), (half + 18j, 0.0)],),
        ((0, 8),),
        3,
    )
    yield Part(
        "tee",
        (
            [
                (complex(*p), 0.0)
                for p in (
                    (-10, 0),
                    (10, 0),
                    (10, 50),
                    (40, 50),
                    (40, 66),
                    (-40, 66),
                    (-40, 50),
                    (-10, 50),
                )
            ],
        ),
        (),
        4,
    )
    yield Part("washer", (), ((0, 40), (0, 21)), 2)
    wedge = [0j, 90 + 0j, 20 + 45j]
    yield Part("rounded triangle", (rounded(wedge, [8] * 3),), (), 4)
    far = -70 + 40j
    touch = cmath.rect(20, cmath.phase(far) - math.acos(20 / abs(far)))
    nose = math.tan(((cmath.phase(touch) + math.pi / 2) % math.tau) / 4)
    yield Part(
        "nosed", ([(-70 - 20j, 0.0), (-20j, nose), (touch, 0.0), (far, 0.0)],), ((0, 10),), 4
    )
    mouth = complex(6, -math.sqrt(20**2 - 6**2))
    keyhole = [mouth, mouth - 2 * mouth.real, -6 - 40j, 6 - 40j]
    bow = _sweep(keyhole[0], keyhole[1], 0)
    yield Part(
        "keyhole",
        ([(p, 0.0) for p in box(90, 130)], [(p, bow if p == mouth else 0.0) for p in keyhole]),
        (),
        5,
    )
    yield Part("egg", (_egg(24, 16, 50, 84),), ((0, 10),), 5)
    yield Part("strap", (hull([(0, 18), (60, 18)]),), ((0, 9), (60, 9)), 3)
    yield Part("bell crank", (_crank(),), ((0, 9), (70, 7), (45j, 7)), 7)
    ears = [(52 + 0j, 12), (0j, 38), (-52 + 0j, 12), (0j, 38)]
    yield Part("gasket", (waisted(ears, 20),), ((0, 25), (52, 6), (-52, 6)), 6)


def _sweep(a: complex, b: complex, about: complex) -> float:
    """Return how an arc bulges from place to place, counter-clockwise."""
    return math.tan((cmath.phase((b - about) / (a - about)) % math.tau) / 4)


def _egg(big: float, small: float, apart: float, flank: float) -> Path:
    """Run round two circles with flanks that bulge and touch both from outside."""
    a, b = 0j, complex(apart, 0)
    far, near = flank - big, flank - small
    x = (apart**2 + far**2 - near**2) / (2 * apart)
    low = complex(x, -math.sqrt(far**2 - x**2))
    upper, lower = (
        (b + (b - c) / near * small, a + (a - c) / far * big) for c in (low, low.conjugate())
    )
    ends = [lower[0], upper[0], upper[1], lower[1]]
    return swept(ends, [b, low, a, low.conjugate()])


def _belt(a: complex, p: float, b: complex, q: float) -> tuple[complex, complex]:
    out = (b - a) / abs(b - a) * cmath.exp(-1j * math.acos((p - q) / abs(b - a)))
    return a + out * p, b + out * q


def _crossing(a: complex, b: complex, c: complex, d: complex) -> complex:
    one, other = b - a, d - c
    return a + one * ((c - a).conjugate() * other).imag / (one.conjugate() * other).imag


def _crank() -> Path:
    """Run round three eyes, rounded in the crook between the two arms."""
    outer = [at for at, _ in hull([(0, 18), (70 + 0j, 13), (45j, 13)])]
    arm, leg = _belt(70 + 0j, 13, 0j, 18), _belt(0j, 18, 45j, 13)
    crook = _crossing(*arm, *leg)
    back, on = arm[0] - crook, leg[1] - crook
    turn = cmath.phase(-on / back)
    off = 12 * math.tan(abs(turn) / 2)
    return [
        (outer[0], 0.0),
        (outer[1], _sweep(outer[1], arm[0], 70)),
        (arm[0], 0.0),
        (crook + back / abs(back) * off, math.tan(turn / 4)),
        (crook + on / abs(on) * off, 0.0),
        (leg[1], _sweep(leg[1], outer[4], 45j)),
        (outer[4], 0.0),
        (outer[5], _sweep(outer[5], outer[0], 0)),
    ]


Move = Callable[[complex], complex]


def moved(part: Part, turn: float, by: complex = 0j) -> Part:
    """Turn a part (degrees) and move it."""
    way = cmath.exp(1j * math.radians(turn))
    paths = tuple([(at * way + by, bulge) for at, bulge in path] for path in part.paths)
    circles = tuple((at * way + by, r) for at, r in part.circles)
    return replace(part, paths=paths, circles=circles)


def polyline_dxf(part: Part, places: int = 12) -> bytes:
    """Write closed polylines with bulges, to so many decimals."""
    document = ezdxf.new(units=4)
    space = document.modelspace()
    for path in part.paths:
        rows = [
            (round(p.real, places), round(p.imag, places), round(b, places + 3)) for p, b in path
        ]
        space.add_lwpolyline(rows, format="xyb", close=True)
    for at, r in part.circles:
        space.add_circle((round(at.real, places), round(at.imag, places)), round(r, places))
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode()


def _ways(path: Path) -> Iterator[tuple[complex, complex, float]]:
    for (a, bulge), (b, _) in pairwise([*path, path[0]]):
        yield a, b, bulge


def _centre(a: complex, b: complex, bulge: float) -> complex:
    return (a + b) / 2 + 1j * (b - a) * (1 - bulge * bulge) / (4 * bulge)


def pieces_dxf(part: Part, places: int = 12) -> bytes:
    """Write every line and arc as an entity of its own, the last first, arcs from their lower angle up."""
    document = ezdxf.new("R12")
    space = document.modelspace()

    def at(spot: complex) -> tuple[float, float]:
        return round(spot.real, places), round(spot.imag, places)

    for a, b, bulge in reversed([way for path in part.paths for way in _ways(path)]):
        if not bulge:
            space.add_line(at(a), at(b))
            continue
        centre = _centre(a, b, bulge)
        ends = [round(math.degrees(cmath.phase(end - centre)), places) for end in (a, b)]
        start, stop = ends if bulge > 0 else reversed(ends)
        space.add_arc(at(centre), round(abs(a - centre), places), start, stop)
    for spot, r in part.circles:
        space.add_circle(at(spot), round(r, places))
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode()


def _picture(rows: Sequence[str], more: str = "") -> bytes:
    size = 'width="400mm" height="400mm" viewBox="-200 -200 400 400"'
    paths = "".join(f'<path fill="none" d="{row}"/>' for row in rows)
    return f'<svg xmlns="http://www.w3.org/2000/svg" {size}>{paths}{more}</svg>'.encode()


def _said(spot: complex, places: int) -> str:
    return f"{spot.real:.{places}f},{-spot.imag:.{places}f}"


def arcs_svg(part: Part, places: int = 3) -> bytes:
    """Write paths with arcs, y downwards, as pictures for the browser have them."""
    rows = []
    for path in part.paths:
        row = f"M{_said(path[0][0], places)}"
        for a, b, bulge in _ways(path):
            r = abs(a - _centre(a, b, bulge)) if bulge else 0.0
            large, side = int(abs(bulge) > 1), int(bulge < 0)
            arc = f"A{r:.{places}f} {r:.{places}f} 0 {large} {side} {_said(b, places)}"
            row += arc if bulge else f"L{_said(b, places)}"
        rows.append(row + "Z")
    rounds = "".join(
        f'<circle cx="{at.real:.{places}f}" cy="{-at.imag:.{places}f}" r="{r:.{places}f}"/>'
        for at, r in map(_complex, part.circles)
    )
    return _picture(rows, rounds)


def _complex(each: tuple[complex, float]) -> tuple[complex, float]:
    return complex(each[0]), each[1]


def curves_svg(part: Part, places: int = 4) -> bytes:
    """Write everything as cubic curves and lines, as drawing programs do: no arc of more than a quarter."""
    rows = []
    full = [[(complex(at) + r, 1.0), (complex(at) - r, 1.0)] for at, r in part.circles]
    for path in [*part.paths, *full]:
        row = f"M{_said(path[0][0], places)}"
        for a, b, bulge in _ways(path):
            row += _cubics(a, b, bulge, places) if bulge else f"L{_said(b, places)}"
        rows.append(row + "Z")
    return _picture(rows)


def _cubics(a: complex, b: complex, bulge: float, places: int) -> str:
    centre, sweep = _centre(a, b, bulge), 4 * math.atan(bulge)
    count = math.ceil(abs(sweep) / (math.pi / 2) - 1e-9)
    each, out = sweep / count, a - centre
    reach, said = 4 / 3 * math.tan(each / 4), ""
    for k in range(count):
        p, q = (out * cmath.exp(1j * each * n) for n in (k, k + 1))
        controls = (centre + p * (1 + 1j * reach), centre + q * (1 - 1j * reach), centre + q)
        said += "C" + " ".join(_said(spot, places) for spot in controls)
    return said


def points_csv(part: Part, places: int = 4) -> bytes:
    """Write a single path as points along it, 3 degrees apart."""
    rows = ["x,y [mm]"]
    for a, b, bulge in _ways(part.paths[0]):
        if not bulge:
            rows.append(f"{a.real:.{places}f},{a.imag:.{places}f}")
            continue
        centre, sweep = _centre(a, b, bulge), 4 * math.atan(bulge)
        count = max(2, math.ceil(abs(sweep) / math.radians(3)))
        for k in range(count):
            spot = centre + (a - centre) * cmath.exp(1j * sweep * k / count)
            rows.append(f"{spot.real:.{places}f},{spot.imag:.{places}f}")
    return "\n".join(rows).encode()


Writing = Callable[[Part], tuple[bytes, str]]

WRITINGS: dict[str, Writing] = {
    "polylines": lambda part: (polyline_dxf(part), "a.dxf"),
    "polylines of three decimals": lambda part: (polyline_dxf(part, 3), "a.dxf"),
    "pieces": lambda part: (pieces_dxf(part), "a.dxf"),
    "pieces of four decimals": lambda part: (pieces_dxf(part, 4), "a.dxf"),
    "arcs": lambda part: (arcs_svg(part), "a.svg"),
    "curves": lambda part: (curves_svg(part), "a.svg"),
    "turned": lambda part: (polyline_dxf(moved(part, 17.3, 12.7 + 31j)), "a.dxf"),
    "turned, of three decimals": lambda part: (pieces_dxf(moved(part, 52.9), 3), "a.dxf"),
    "turned curves": lambda part: (curves_svg(moved(part, -8.4, 3 + 5j)), "a.svg"),
}


def corpus() -> Iterator[tuple[str, Part, bytes, str]]:
    """Yield every part in every writing: what it is, itself, the file and its name."""
    for part in parts():
        for name, writing in WRITINGS.items():
            of_angle = int(name.startswith("turned") and bool(part.paths))
            counted = replace(part, numbers=part.numbers + of_angle)
            yield f"{part.name}, {name}", counted, *writing(part)


def measures(part: Part) -> list[tuple[float, float]]:
    """Return area and length of every outline, the smallest first."""
    found = [(math.pi * r * r, math.tau * r) for _, r in part.circles]
    for path in part.paths:
        area = length = 0.0
        for a, b, bulge in _ways(path):
            area += (a.conjugate() * b).imag / 2
            sweep = 4 * math.atan(bulge)
            r = abs(a - _centre(a, b, bulge)) if bulge else 0.0
            area += r * r * (sweep - math.sin(sweep)) / 2
            length += r * abs(sweep) if bulge else abs(b - a)
        found.append((abs(area), length))
    return sorted(found)
