"""Plans of a stated size to measure with."""

from __future__ import annotations

HEAD = (
    "units mm\nsheet A2 landscape, scale 1:2, border 10\ngiven r = 9\ngiven R = {radius}\nO = "
    "datum\n"
)


def chain(statements: int, radius: float = 60.0) -> str:
    """Return a plan of about that many statements: a chain of eyes with blends above and below,
    lined in."""
    rows, made, eye = [HEAD.format(radius=radius)], 1, 0
    walk: list[str] = []
    while made < statements - 1:
        x, y = 36 * eye, 7 * (eye % 3)
        rows.append(f"P{eye} = point, {x} right of O, {y} above O\n")
        rows.append(f"e{eye} = circle, centre P{eye}, radius r + {eye % 2}\n")
        made += 2
        if eye and made < statements - 1:
            rows.append(f"t{eye} = arc, radius R, around e{eye - 1}, around e{eye}, above\n")
            rows.append(f"l{eye} = arc, radius R, beside e{eye - 1}, beside e{eye}, below\n")
            made += 2
            walk = walk or [f"e{eye - 1}", f"t{eye}", f"e{eye}", f"l{eye}"]
        eye += 1
    rows.append(f"rim = line in, {' > '.join(walk)}\n")
    return "".join(rows)


def crossed(count: int) -> str:
    """Return a plan of level and plumb lines, `count` each way: about two pieces for each
    crossing."""
    across = " ".join(["1"] * (count - 1))
    return f"units mm\nO = datum\ng = grid, from O, across {across}, up {across}\n"
