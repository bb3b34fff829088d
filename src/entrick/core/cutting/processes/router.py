"""A spindle that goes down into the sheet, pass by pass, and leaves tabs on the rim."""

from __future__ import annotations

from ..along import leads, start_of, with_tabs
from ..blocks import Blocks
from ..machine import Machine
from ..paths import Cut


def told(machine: Machine) -> str:
    """Return what is set, for the head."""
    deep = machine.depths
    passes = f"{len(deep)} PASSES" if len(deep) > 1 else "1 PASS"
    tabs = (
        f", {machine.tabs} TABS {machine.tab_width:.4g} BY {machine.tab_height:.4g}"
        if machine.tabs
        else ""
    )
    return f"S{machine.spindle:.0f}, {passes} TO {deep[-1]:.4g} DEEP{tabs}, TOP OF SHEET IS Z0"


def cut_out(cut: Cut, machine: Machine, tool: float, out: Blocks) -> None:
    """Cut pass by pass: each goes in beside the outline, or down on it where there is no room, and
    comes up between."""
    into, out_of = leads(cut, machine)
    path = with_tabs(cut, machine, tool)
    over_tab = -max(machine.thickness - machine.tab_height, 0.0)
    for depth in machine.depths:
        bottom = -depth
        out.up(machine.safe)
        out.over(start_of(cut, machine))
        ramps = machine.entry == "ramp" and bool(into)
        # A ramp begins at the top of the sheet each time: where it goes in no pass has cut before.
        out.down(0.0 if ramps else bottom, machine.plunge)
        for move in into:
            if ramps:
                out.along(move, machine.plunge, bottom)
            else:
                out.along(move, machine.feed)
        lifted = False
        for stretch in path:
            lifts = stretch.tab and bottom < over_tab
            if lifts != lifted:
                out.down(over_tab if lifts else bottom, machine.plunge)
                lifted = lifts
            out.along(stretch.move, machine.feed)
        for move in out_of:
            out.along(move, machine.feed)
    out.up(machine.safe)
