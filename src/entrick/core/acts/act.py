"""What is done at the board, as values: what an act stands on, what is set for it, what it leaves.

Acts name what they stand on by the keys under which earlier acts left it, never by coordinates.
Where that comes to lie (`strokes`, `planned`) is what the figure says; whoever carries acts out
works it out anew from what they name."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..drawing.strokes import Role, Stroke
from ..geometry import Arc, Circle, Line, Loop, Point
from ..measure import Number

Finishing = Literal[
    "hatch",
    "letter",
    "dimension",
    "centre lines",
    "scale bar",
    "compare",
    "detail",
    "fix",
    "border",
    "rub out",
]
"""What finishes a sheet."""

Key = str
"""The name under which an act left something: the statement's, and a role or a number in it."""


@dataclass(frozen=True, slots=True)
class Mark:
    """A place pricked or marked: its key, where the figure has it, what the drafter calls it."""

    key: Key
    at: Point
    called: str


@dataclass(frozen=True, slots=True)
class Edge:
    """A straight line that has been drawn. It has a sense, from which the crossings on it are
    counted."""

    key: Key
    line: Line
    called: str


@dataclass(frozen=True, slots=True)
class Round:
    """A circle, or a swing of one, drawn about a mark; `drawn` is so much of it as has been, all
    where empty."""

    key: Key
    circle: Circle
    called: str
    needle: Key = ""
    drawn: tuple[Circle | Arc, ...] = ()


@dataclass(frozen=True, slots=True)
class Traced:
    """A curve drawn through its stations by the French curve; `loop` is the true one, which it
    follows between them."""

    key: Key
    loop: Loop
    called: str


Thing = Mark | Edge | Round | Traced


NOWHERE = Point(0.0, 0.0)
"""The direction of what has none."""

ACROSS = "measure across the finished circle: it is twice the setting"
"""What is asked to be measured back of a whole circle."""


@dataclass(frozen=True, slots=True)
class Setting:
    """What the compass, or the dividers, are opened to.

    Attributes
    ----------
    size : Fraction or float
        Plan units at full size.
    between : two keys, optional
        The marks it is opened between; by the rule where there are none.
    free : bool
        Whether any opening does: the size is no more than a handy one.
    told : str
        Why this size: ``more than half the distance``.
    """

    size: Number
    between: tuple[Key, Key] | None = None
    free: bool = False
    told: str = ""


@dataclass(frozen=True, slots=True)
class Way:
    """A direction: so many degrees counter-clockwise from level, or from a line that has been
    drawn."""

    degrees: Number = 0
    off: Key = ""
    called: str = ""


LEVEL, PLUMB = Way(0), Way(90)


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Act:
    """Something done at the board. Compared by identity, so that what is derived from it can be
    kept.

    Attributes
    ----------
    leaves : str
        Key of what it leaves; empty where it leaves nothing that could be stood on.
    called : str
        What the drafter calls what is left.
    strokes : tuple of Stroke
        What appears on the sheet, where the figure has it.
    check : str
        How to see that it came out right.
    wanted : bool
        Whether it is asked for though nothing stands on it.
    """

    leaves: Key = ""
    called: str = ""
    strokes: tuple[Stroke, ...] = ()
    check: str = ""
    wanted: bool = False


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Fix(Act):
    """Find the place of the datum: measured from two sides of the sheet that is fixed on the
    board."""

    planned: Point


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Measure(Act):
    """Mark a place at a distance from a mark: along a drawn line, or along an edge held in a
    direction.

    `computed` says that the length was worked out and is neither given nor said on the card. Where
    it is one of a `row`, the rule is laid once for all of them.
    `ahead` is the direction in which the place lies from the mark, of length 1.
    """

    start: Key
    way: Way
    size: Number
    planned: Point
    ahead: Point = NOWHERE
    told: str = ""
    why: str = ""
    computed: bool = False
    row: bool = False


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Prick(Act):
    """Mark where two drawn things cross.

    `pick` says which crossing: along the sense of the line (first, second), or to the left or right
    of the line from the first centre to the second; on a curve the one nearest to where the figure
    has it. A line that nothing else wants is `held`: the edge is laid there, and not drawn along.
    Where `both` crossings are marked it is not said which."""

    first: Key
    second: Key
    pick: Literal["", "first", "second", "left", "right", "curve"]
    planned: Point
    told: str = ""
    laid: str = ""
    held: Draw | None = None
    both: bool = False


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Draw(Act):
    """Draw a straight line through two marks, through one in a direction, or in a direction so that
    it touches a round."""

    start: Key = ""
    end: Key = ""
    way: Way | None = None
    touching: Key = ""
    planned: Line
    told: str = ""


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Swing(Act):
    """Swing a circle, or part of one, about a mark."""

    needle: Key
    setting: Setting
    planned: Circle
    told: str = ""


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class StepOff(Act):
    """Step off equal lengths from a mark, along a line or round a circle; leaves one mark for each
    step.

    `along` is the key of a line or circle; `forwards` along the sense of the line,
    counter-clockwise round a circle. `by_rule` where the steps are ticks of the rule laid along."""

    start: Key
    setting: Setting
    along: Key
    forwards: bool
    marks: tuple[Key, ...]
    planned: tuple[Point, ...]
    compass: bool = False
    by_rule: bool = False
    told: str = ""


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Strip(Act):
    """Mark a place by a strip of paper with two lengths ticked off from one end (trammel). Where
    the further tick is to lie is `held` in the same go where nothing else is wanted of it.

    The further tick, `whole` from the end, is laid on the mark `tick`, the nearer, `rest` from it,
    on the line `axis`; the end is pricked."""

    tick: Key
    axis: Key
    pick: Literal["first", "second"]
    whole: Number
    rest: Number
    planned: Point
    ends: tuple[str, str, str] = ("", "", "")
    held: Measure | None = None


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Trace(Act):
    """Draw a curve through marks, or touching lines and circles, by the French curve.

    `planned` is what the figure has, arcs that keep to the true curve `within` a length.
    """

    stations: tuple[Key, ...]
    planned: Loop
    touching: bool = False
    within: float = 0.0
    tool: str = "French curve"


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Copy(Act):
    """Repeat what has been drawn: moved from one mark to another, turned about one, or turned over
    on a line.

    `pairs` names originals and their copies; `things` are the copies where the figure has them.
    """

    pairs: tuple[tuple[Key, Key], ...]
    things: tuple[Thing, ...]
    how: Literal["shift", "turn", "mirror"]
    about: Key
    to: Key = ""
    degrees: Number = 0


@dataclass(frozen=True, slots=True)
class Gone:
    """A piece to be gone over: on which thing, from which mark to which; all round where none are
    said. `needle` is the mark a round lies about."""

    thing: Key
    start: Key
    end: Key
    planned: Line | Circle | Arc | Loop
    called: str = ""
    needle: Key = ""


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class GoOver(Act):
    """Go over what stands there in light lines: as outline, seen edge, hidden or thread line,
    feature by feature. What nothing else wants is `drawn` in the same go, and not lightly
    before."""

    pieces: tuple[Gone, ...]
    role: Role = Role.OUTLINE
    told: str = ""
    setting: Setting | None = None
    drawn: Swing | Draw | None = None


@dataclass(frozen=True, slots=True, eq=False, kw_only=True)
class Finish(Act):
    """What finishes a sheet: hatch, letter, dimension, centre lines, compare. It leaves nothing to
    stand on."""

    verb: Finishing
    told: str
    of: Key = ""
    size: Number | None = None
