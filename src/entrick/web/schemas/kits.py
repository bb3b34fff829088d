"""Kits of instruments."""

from __future__ import annotations

from typing import Annotated

from pydantic import ConfigDict, Field

from ...core.board.kits import Sort
from .crossing import Asked, Crossing, KitText, PlanText

KitName = Annotated[str, Field(pattern=r"^[\w .+-]{1,60}$")]


class KitPath(Asked):
    """A kit by name."""

    name: KitName


class KitOut(Crossing):
    """A kit by name, as the text of its file; `starter` where it comes with the desk and cannot be changed."""

    name: str
    text: str
    usual: bool
    starter: bool


class KitItemOut(Crossing):
    """Something a kit may hold, as its page asks for it; see `core.board.kits.Item`."""

    model_config = ConfigDict(from_attributes=True)

    key: str
    label: str
    sort: Sort
    in_unit: bool
    usual: str
    choices: tuple[str, ...]
    picture: str = ""


class KitsOut(Crossing):
    """Every kit, and everything a kit may hold."""

    kits: tuple[KitOut, ...]
    items: tuple[KitItemOut, ...]


class KitIn(Asked):
    """A kit to be kept, and whether it is the usual one from now on."""

    text: KitText
    usual: bool = False


class LacksIn(Asked):
    """A plan and a kit."""

    text: PlanText
    kit: KitText


class LackOut(Crossing):
    """Something a kit lacks: how many more steps a job takes without it, and the first that are different."""

    model_config = ConfigDict(from_attributes=True)

    told: str
    more: int
    instead: tuple[str, ...]


class LacksOut(Crossing):
    """What a kit lacks for a job."""

    lacks: tuple[LackOut, ...]
