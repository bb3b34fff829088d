"""``check``: what must hold of the finished part; the proof holds it against what was drawn."""

from __future__ import annotations

from ..geometry import Point
from ..kind import Args, ClauseValues, Kind, Made
from ..kind.claims import Claim, LeastPiece, LeastWall, Overall, Symmetric
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Keep what is said of the part; nothing is drawn."""
    claims: list[Claim] = []
    told: list[str] = []
    for clause in args.clauses:
        claim, words = _claim(args, clause)
        claims.append(claim)
        told.append(words)
    if not claims:
        raise Wanting(
            "say what must hold: the size overall, a line of symmetry, the least wall, the least "
            "piece"
        )
    names = " and ".join(told)
    return Made(
        Point(0.0, 0.0),
        f"Check: {names}.",
        nothing=True,
        draw=lambda work: work.finish(
            "Measure the finished part",
            "compare",
            check=f"{names}; measure the drawing, not the brief",
        ),
        claims=tuple(claims),
    )


def _claim(args: Args, clause: ClauseValues) -> tuple[Claim, str]:
    match clause.key:
        case "overall":
            across, up = clause.length("across"), clause.length("up")
            return Overall(
                float(across), float(up)
            ), f"{args.say(across.value)} by {args.say(up.value)} overall"
        case "across":
            across = clause.length("across")
            return Overall(float(across), None), f"{args.say(across.value)} across"
        case "up":
            up = clause.length("up")
            return Overall(None, float(up)), f"{args.say(up.value)} up"
        case "symmetric":
            name = clause.ref("axis").text
            return Symmetric(clause.line("axis"), name), f"symmetric about {name}"
        case "wall":
            wall = clause.length("wall")
            return LeastWall(
                _above_nought(wall.value, clause)
            ), f"no wall under {args.say(wall.value)}"
    piece = clause.length("piece")
    return LeastPiece(_above_nought(piece.value, clause)), f"no piece under {args.say(piece.value)}"


def _above_nought(value: object, clause: ClauseValues) -> float:
    size = float(value)  # type: ignore[arg-type]
    if size <= 0:
        raise ClauseError("a least size is more than nought", clause.index)
    return size


ABOUT = """\
What must hold of the finished part. Nothing is drawn; the proof measures the outlines against
it: `overall 60 by 40` (or `overall across`, `overall up`), `symmetric about` a line, `wall at
least` (between two outlines, and across each by itself: the waist of a link, the arm of a
hook), `no piece under`.
"""

SHOWN = """\
units mm
O = datum
frame = box, 60 by 40, centred on O
c = circle, centre O, radius 8
rim = line in, frame.bottom > frame.right > frame.top > frame.left
bore = line in, c
must = check, overall 60 by 40, symmetric about O.plumb, wall at least 10, no piece under 5
"""

KIND = Kind(
    name="check",
    group="Proof",
    summary="what must hold: overall size, symmetry, least wall, least piece",
    example="must = check, overall 220 by 90, symmetric about O.level, wall at least 6",
    mistake="The overall size is added up from the brief instead of measured on the drawing.",
    also=("wall", "least wall", "overall size", "symmetry", "proof"),
    forms=(
        Form("overall {across:length} by {up:length}", "overall"),
        Form("overall across {across:length}", "across"),
        Form("overall up {up:length}", "up"),
        Form("symmetric about {axis:line}", "symmetric", most=3),
        Form("wall at least {wall:length}", "wall"),
        Form("no piece under {piece:length}", "piece"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
