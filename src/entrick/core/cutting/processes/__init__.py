"""How each process cuts an outline: a file for each."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from ..blocks import Blocks
from ..machine import Machine
from ..paths import Cut
from . import laser, plain, router, torch

CutOut = Callable[[Cut, Machine, float, Blocks], None]
"""Writes the blocks for one outline: the cut, what is set, the width of the tool, all in plan
units."""

PROCESSES: Mapping[str, tuple[CutOut, Callable[[Machine], str]]] = {
    "plain": (plain.cut_out, plain.told),
    "router": (router.cut_out, router.told),
    "laser": (laser.cut_out, laser.told),
    "torch": (torch.cut_out, torch.told),
}
"""By process how an outline is cut, and what is told of it in the head."""

__all__ = ["PROCESSES"]
