"""What is drawn, with what, and as what kind of line."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from ..geometry import Loop, Shape


class Role(StrEnum):
    """What a stroke is on the sheet. Weight and dash follow from it, colour never does."""

    CONSTRUCTION = "construction"
    OUTLINE = "outline"
    EDGE = "edge"
    POINT = "point"
    HIDDEN = "hidden"
    CENTRE = "centre"
    THREAD = "thread"


class Tool(StrEnum):
    """What a step is done with, before the kit decides which one."""

    COMPASS = "compass"
    DIVIDERS = "dividers"
    RULE = "rule"
    STRAIGHTEDGE = "straightedge"
    ANGLE = "angle"
    PENCIL = "pencil"


@dataclass(frozen=True, slots=True)
class Stroke:
    """One thing drawn: a shape, its role, and a name to letter beside it. A run is one curve to the
    eye."""

    shape: Shape | Loop
    role: Role = Role.CONSTRUCTION
    label: str = ""
