"""Commands on files of others: a bare profile read back or compared, a program cut."""

from __future__ import annotations

import json
import sys
from pathlib import Path

import click

from .net import Bounded, Size


@click.command("read-back", cls=Bounded)
@click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@click.option("-o", "--output", required=True, type=click.Path(dir_okay=False, path_type=Path))
@click.option(
    "--units",
    type=click.Choice(["mm", "in"]),
    help="Of the plan; as the file says, or what is simpler.",
)
@click.option(
    "--within",
    type=Size(),
    help="How far outlines may be off, in the file's unit; if not said, 0.001 mm.",
)
@click.option(
    "--layer", "layers", multiple=True, help="Of a DXF, what to read; several times for several."
)
@click.option(
    "--keep-centre-lines", is_flag=True, help="What looks like a centre line is a groove or a cut."
)
@click.option("--json", "as_json", is_flag=True, help="Print plain data.")
def read_back_(
    file: Path,
    output: Path,
    units: str | None,
    within: float | None,
    layers: tuple[str, ...],
    keep_centre_lines: bool,
    as_json: bool,
) -> None:
    """Read a bare profile (DXF, SVG, or CSV of points) back into a plan."""
    from ..core.measure import Unit
    from ..core.readback import ProfileError, read_back, read_profile

    try:
        profile = read_profile(file.read_bytes(), file.name, within, layers, keep_centre_lines)
        found = read_back(profile, Unit(units) if units else None, within, file.stem)
    except ProfileError as error:
        raise click.ClickException(str(error)) from error
    output.write_text(found.text, "utf-8")
    said = {
        "off": found.off,
        "numbers": found.numbers,
        "outlines": len(profile.runs),
        "unit": found.unit.value,
        "seen": list(found.seen),
        "told": list(found.told),
        "layers": list(profile.layers),
    }
    if as_json:
        click.echo(json.dumps(said, ensure_ascii=False, indent=2))
        return
    click.echo(
        f"{output}: {len(profile.runs)} outlines by {found.numbers} numbers, within {found.off:.1e}"
    )
    for row in found.told:
        click.echo(f"! {row}")


@click.command(cls=Bounded)
@click.argument("program", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@click.option(
    "--against", "plan", required=True, type=click.Path(exists=True, dir_okay=False, path_type=Path)
)
@click.option(
    "--tool",
    type=Size(),
    default=None,
    help="Width of the cut, plan units; as the program says if not said.",
)
@click.option(
    "--within",
    type=Size(),
    default=0.02,
    show_default=True,
    help="How far off the part may be, mm.",
)
@click.option(
    "--fault",
    type=click.Choice(["lost step", "late answer", "cut connection"]),
    help="Switched on at --at.",
)
@click.option(
    "--at",
    "at_block",
    default=10,
    type=click.IntRange(1),
    show_default=True,
    help="Block at which the fault happens.",
)
@click.option("--json", "as_json", is_flag=True, help="Print plain data.")
def cut(
    program: Path,
    plan: Path,
    tool: float | None,
    within: float,
    fault: str | None,
    at_block: int,
    as_json: bool,
) -> None:
    """Cut PROGRAM on a simulated cutter, and hold the part against a plan.

    Exit status 0 where it fits, 1 where it does not, 2 where the machine does not do what the
    program says."""
    from dataclasses import asdict

    from ..devices.cutter import (
        Cutter,
        CutterError,
        from_datum,
        process_of,
        run,
        tool_of,
        zero_of,
    )
    from ..devices.judge import judged
    from ..devices.limits import outline_moves
    from .plan_file import worked_out

    work = worked_out(plan)
    text = program.read_text("utf-8", "replace")
    width = tool if tool is not None else tool_of(text)
    if width is None:
        raise click.UsageError("the program does not say how wide it cuts: name it with --tool")
    mm = float(work.solution.unit.mm)
    try:
        machine = run(text, Cutter(fault or "", at_block, process_of(text)))  # type: ignore[arg-type]
    except CutterError as error:
        click.echo(f"{program}: {error}", err=True)
        sys.exit(2)
    zero = zero_of(text)
    moves = from_datum(machine.moves, (zero[0] * mm, zero[1] * mm))
    moves = outline_moves(moves, machine.process)
    found = judged(moves, work.outlines, mm, width * mm, within)
    told = list(found.told)
    if as_json:
        click.echo(
            json.dumps({**asdict(found), "happened": machine.told}, ensure_ascii=False, indent=2)
        )
    else:
        click.echo(
            f"{found.parts} parts, cut {found.length:.0f} mm in {found.minutes:.1f} minutes; "
            f"gouged {found.gouged:.3f}, left {found.left:.3f} mm, "
            f"{found.corners} inner corners keep a round of up to {found.rounded:.3f} mm"
        )
        for row in machine.told:
            click.echo(f"! {row}")
        for row in told:
            click.echo(f"✗ {row}")
    if told:
        sys.exit(1)


@click.command(cls=Bounded)
@click.argument("plan", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@click.argument("made", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@click.option(
    "--within", type=Size(), default=0.1, show_default=True, help="How far off, plan units."
)
@click.option("--as-it-lies", is_flag=True, help="Do not lay it over the plan first.")
@click.option("--json", "as_json", is_flag=True, help="Print plain data.")
def compare(plan: Path, made: Path, within: float, as_it_lies: bool, as_json: bool) -> None:
    """Hold a profile MADE (DXF, SVG, CSV of points), or another plan, against PLAN.

    Exit status 0 where it is within, 1 where it is not."""
    from ..core.compare import Laid, compared, laid_over
    from ..core.readback import ProfileError, closed_outlines, read_profile
    from .plan_file import worked_out

    work = worked_out(plan)
    unit = work.solution.unit
    meant = [(name, loop) for name, loop in work.named_outlines if loop.closed]
    told: list[str] = []
    if made.suffix.lower() == plan.suffix.lower():
        loops = [loop for loop in worked_out(made).outlines if loop.closed]
    else:
        try:
            loops, told = closed_outlines(read_profile(made.read_bytes(), made.name), unit)
        except ProfileError as error:
            raise click.ClickException(str(error)) from error
    if not meant or not loops:
        raise click.ClickException("there is no closed outline to compare")
    laid = Laid() if as_it_lies else laid_over(loops, [loop for _, loop in meant])
    found = compared(meant, [laid.moved(loop) for loop in loops])
    wrong = found.told(within, ".4g")
    if as_json:
        off = {each.name: each.greatest for each in found.outlines}
        said = {"fits": not wrong, "outlines": off, "told": [*wrong, *told]}
        click.echo(json.dumps(said, ensure_ascii=False, indent=2))
    else:
        for each in found.outlines:
            click.echo(f"{each.name}: off by {each.greatest:.4g}, {each.mean:.4g} in the mean")
        for row in told:
            click.echo(f"! {row}")
        for row in wrong:
            click.echo(f"✗ {row}")
        if not wrong:
            click.echo(f"within {within:g} {unit.value}")
    if wrong:
        sys.exit(1)
