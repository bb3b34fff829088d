"""A cutter's program by ISO 6983: one outline after another at full size, arcs as arcs."""

from __future__ import annotations

from collections.abc import Sequence

from ..geometry import Point
from ..measure import Unit
from ..plan.errors import ClauseError
from .along import directed
from .blocks import Blocks, number
from .machine import Machine, in_unit
from .paths import Cut
from .processes import PROCESSES

CAUTION = (
    "A profile says nothing about strength, fit or material. Check scale and units on the machine "
    "before cutting; "
    "guard, eye protection and the site's own rules apply."
)

LARGEST_FEED = 100_000


def write_program(
    cuts: Sequence[Cut],
    unit: Unit,
    tool: float,
    machine: Machine,
    zero: Point,
    title: str = "",
    remarks: Sequence[str] = (),
) -> str:
    """Write the program of a cutter.

    Parameters
    ----------
    cuts : sequence of Cut
        In the order of cutting.
    unit : Unit
        Of the plan: the program is in it, at full size.
    tool : float
        Width of the cut, plan units; already taken off in the paths.
    machine : Machine
        What is set on it.
    zero : Point
        Where the program has its zero, plan units from the datum.
    title : str
    remarks : sequence of str
        What else is to be said in its head.

    Returns
    -------
    str
        G20 or G21 (inch, mm), G90 (absolute), G17 (in the plane of the sheet), G94 (feed a minute);
        G0 to where the tool goes in, M3 (of a beam M4) and M5 for cutting and not, S for turns or
        power, G4 P to wait, Z where the process has a height; G1 along lines, G2 and G3 along arcs
        with I and J from their beginning to their centre. CR LF at the end of blocks.

    Raises
    ------
    ClauseError
        For a feed that is none, or tabs there is no room for.
    """
    set_ = in_unit(machine, unit)
    if not 0 < set_.feed <= LARGEST_FEED:
        raise ClauseError(
            f"a feed is more than nought and at most {LARGEST_FEED} {unit.value} a minute"
        )
    cut_out, told = PROCESSES[machine.process]
    out = Blocks(unit, zero, machine.dry)
    out.say("O1")
    for remark in (title or "OUTLINES", *remarks):
        out.remark(remark)
    out.remark(f"UNITS {unit.value.upper()}, FULL SIZE 1 TO 1, TOOL {tool:.4g}, KERF TAKEN OFF")
    out.remark(f"{machine.process}: {told(set_)}")
    out.remark(
        f"PROGRAM ZERO X{number(zero.x, out.places)} Y{number(zero.y, out.places)} FROM THE DATUM, "
        f"{machine.direction}"
    )
    if machine.dry:
        out.remark("DRY RUN: THE TOOL STAYS OFF")
    out.remark("LAYOUT ONLY. CHECK UNITS AND SCALE ON THE MACHINE, GUARD IT, WEAR EYE PROTECTION")
    out.say(f"G{21 if unit is Unit.MM else 20} G90 G17 G94")
    out.feed(set_.feed)
    if machine.process == "router":
        out.up(set_.safe)
        out.on(f"M3 S{machine.spindle:.0f}")
        out.wait(machine.spin_up)
    for count, cut in enumerate(cuts, 1):
        out.remark(f"{count} {cut.name}, {'HOLE' if cut.hole else 'RIM'}")
        cut_out(directed(cut, machine), set_, tool, out)
    if machine.process == "router":
        out.off()
    out.say("M30")
    return "%\r\n" + "".join(f"{row}\r\n" for row in out.rows) + "%\r\n"
