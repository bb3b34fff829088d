"""Commands on one plan: solve, draw, check, carry out, rehearse."""

from __future__ import annotations

import json
import sys
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import wraps
from pathlib import Path
from typing import Any

import click

from ..core.board.kit import Kit
from ..core.cutting import Machine, machines, read_machine
from ..core.cutting.program import CAUTION
from ..core.desk import Work
from ..core.formats import carried_data, rehearsal_data, solution_data
from ..core.formats.issue import Format, Options, formats
from ..core.plan.errors import ClauseError, PlanError
from .net import SEED, Bounded, Size
from .plan_file import FILE, KIT, worked_out


@click.command(cls=Bounded)
@FILE
@KIT
@click.option(
    "--json", "as_json", is_flag=True, help="Print plain data instead of the order of work."
)
def solve(file: Path, kit: Kit | None, as_json: bool) -> None:
    """Work a plan out: points, circles, arcs, settings, outlines, findings."""
    work = worked_out(file, kit)
    if as_json:
        click.echo(json.dumps(solution_data(work), ensure_ascii=False, indent=2))
    else:
        unread = (
            error for error in work.solution.errors if work.solution.entry(error.line) is None
        )
        for error in unread:
            click.echo(f"{error.line:4}  {error.message}")
            _tell_ways(error)
        for entry in work.solution.entries:
            click.echo(
                f"{entry.line:4}  {entry.made.sentence if entry.made else entry.error.message}"  # type: ignore[union-attr]
            )
            for row in entry.made.working if entry.made else ():
                click.echo(f"        {row}")
            if entry.error:
                _tell_ways(entry.error)
    if work.solution.errors:
        sys.exit(1)


def _tell_ways(error: PlanError, err: bool = False) -> None:
    """Print what a line with a mistake may have been meant as, each as a line to copy."""
    for line in filter(None, (error.mend, *(way.line for way in error.meant))):
        click.echo(f"      → {line}", err=err)


def _variants(command: Callable[..., None]) -> Callable[..., None]:
    """Give a command a flag for each format whose ending another one has, too."""
    for each in formats().values():
        if each.apart:
            help = f"{each.label} (.{each.ending}): {each.about}."
            command = click.option(f"--{each.key}", is_flag=True, help=help)(command)
    return command


@dataclass(frozen=True, slots=True)
class Setting:
    """What is asked for of a cutter's program."""

    tool: float | None
    feed: float | None
    machine: str


def _for_a_cutter(command: Callable[..., None]) -> Callable[..., None]:
    """Give a command what is set for a cutter's program."""

    @click.option("--tool", type=Size(), help="Of a program (.nc): width of the cut, plan units.")
    @click.option(
        "--feed", type=Size(), help="Of a program (.nc): plan units a minute, if not the machine's."
    )
    @click.option(
        "--machine",
        default="plain",
        show_default=True,
        help="Of a program (.nc): plain, router, laser, torch, or a profile of your own (JSON).",
    )
    @wraps(command)
    def called(
        *args: Any, tool: float | None, feed: float | None, machine: str, **more: Any
    ) -> None:
        command(*args, setting=Setting(tool, feed, machine), **more)

    return called


@click.command(cls=Bounded)
@FILE
@click.option("-o", "--output", required=True, type=click.Path(dir_okay=False, path_type=Path))
@click.option("--clean", is_flag=True, help="Leave the construction out.")
@click.option(
    "--insist", is_flag=True, help="Write for a cutter although an outline is open or doubled."
)
@_for_a_cutter
@KIT
@_variants
def draw(
    file: Path,
    output: Path,
    clean: bool,
    insist: bool,
    kit: Kit | None,
    setting: Setting,
    **variants: bool,
) -> None:
    """Draw a plan as one of the files it goes out as, or as a cutter's program, by the ending of
    the output."""
    work = worked_out(file, kit)
    if output.suffix.lower() == ".nc":
        _write_program(work, output, setting)
        return
    wanted = [key.replace("_", "-") for key, on in variants.items() if on]
    format = _format(output.suffix.lower().removeprefix("."), wanted)
    reason = "" if insist else format.refusal(work)
    if reason:
        raise click.ClickException(
            f"not to be cut as it is: {reason}. --insist writes it all the same"
        )
    output.write_bytes(format.written(work, Options(construction=not clean)))
    if format.for_cutting:
        click.echo(CAUTION, err=True)
    for error in work.solution.errors:
        click.echo(f"{file}:{error.line}: {error.message}", err=True)
        _tell_ways(error, err=True)


def _format(ending: str, variants: list[str]) -> Format:
    """Return the format of an ending, or the variant of it that is asked for."""
    wanted = [each for each in formats().values() if each.ending == ending]
    if variants:
        wanted = [formats()[variants[0]]]
    if not wanted or wanted[0].ending != ending:
        known = ", ".join(f".{each.ending}" for each in formats().values() if not each.apart)
        raise click.UsageError(f"{ending or 'no ending'}: the output ends in {known} or .nc")
    return wanted[0]


def _machine(said: str) -> Machine:
    """Return a machine that ships with the application, or one out of a file."""
    if said in machines():
        return machines()[said]
    if not Path(said).is_file():
        known = ", ".join(machines())
        raise click.UsageError(f"--machine {said}: it is one of {known}, or a file")
    try:
        return read_machine(Path(said).read_text("utf-8", "replace"))
    except ClauseError as error:
        raise click.UsageError(f"{said}: {error.message}") from error


def _write_program(work: Work, output: Path, setting: Setting) -> None:
    from ..devices.written import written

    if setting.tool is None:
        raise click.UsageError("a cutter's program needs --tool (width of the cut)")
    machine = _machine(setting.machine)
    if setting.feed is not None:
        machine = replace(machine, feed=setting.feed * float(work.solution.unit.mm))
    try:
        found = written(work, setting.tool, machine)
    except ClauseError as error:
        raise click.ClickException(f"not to be cut as it is: {error.message}") from error
    output.write_text(found.program, "ascii", newline="")
    verdict, unit = found.verdict, work.solution.unit
    click.echo(f"{output}: {verdict.parts} parts, units {unit.value}, full size", err=True)
    for remark in verdict.remarks:
        click.echo(f"! {remark}", err=True)
    click.echo(CAUTION, err=True)


@click.command(cls=Bounded)
@FILE
def check(file: Path) -> None:
    """Inspect a plan. Exit status 0 when nothing is wrong, 1 when something is."""
    work = worked_out(file)
    signs = {"wrong": "✗", "look": "?", "note": "·", "good": "✓"}
    for finding in work.findings:
        place = f"{file}:{finding.line}: " if finding.line else f"{file}: "
        click.echo(f"{signs[finding.weight]} {place}{finding.message}")
        if finding.rule == "mistake":
            for error in work.solution.errors:
                if (error.line, error.message) == (finding.line, finding.message):
                    _tell_ways(error)
    if any(finding.weight == "wrong" for finding in work.findings):
        sys.exit(1)


@click.command("carry-out", cls=Bounded)
@FILE
@KIT
@click.option("--json", "as_json", is_flag=True, help="Print plain data.")
def carry_out(file: Path, kit: Kit | None, as_json: bool) -> None:
    """Carry the acts of a plan out exactly, and compare what they leave with its figure.

    Exit status 0 where they end in the figure, 1 where it is missed, 2 where the plan itself has
    mistakes."""
    from ..core.rehearsal.exactly import carried_exactly

    work = worked_out(file)
    for error in work.solution.errors:
        click.echo(f"{file}:{error.line}: {error.message}", err=True)
        _tell_ways(error, err=True)
    carried = carried_exactly(work.solution, work.sheet, kit)
    if as_json:
        click.echo(json.dumps(carried_data(carried), ensure_ascii=False, indent=2))
    else:
        click.echo(
            f"{carried.acts} acts, the greatest miss {carried.miss:.1e} of {carried.allowed:.1e} "
            "allowed" + (f", at {carried.where}" if carried.miss else "")
        )
        click.echo(
            f"{len(carried.computed)} marks at places worked out"
            + "".join(f"\n  {m}" for m in carried.computed)
        )
        for told in (*carried.undrawn, *filter(None, (carried.failure,))):
            click.echo(f"not drawn: {told}", err=True)
    if work.solution.errors:
        sys.exit(2)
    if not carried.ends_in_the_figure:
        sys.exit(1)


@click.command(cls=Bounded)
@FILE
@click.option(
    "--hands",
    default=500,
    show_default=True,
    type=click.IntRange(1, 100_000),
    help="So many hands.",
)
@click.option(
    "--seed", default=1, type=SEED, show_default=True, help="The same seed gives the same answer."
)
@click.option("--json", "as_json", is_flag=True, help="Print plain data.")
def rehearse(file: Path, hands: int, seed: int, as_json: bool) -> None:
    """Draw a plan by many hands, and tell how well its outline closes on paper."""
    from ..core.rehearsal.rehearse import rehearse as rehearsed

    work = worked_out(file)
    if work.solution.errors:
        for error in work.solution.errors:
            click.echo(f"{file}:{error.line}: {error.message}", err=True)
            _tell_ways(error, err=True)
        sys.exit(2)
    found = rehearsed(work.solution, work.sheet, hands, seed, kit=work.kit)
    if as_json:
        click.echo(json.dumps(rehearsal_data(found), ensure_ascii=False, indent=2))
        return
    for join in found.joins:
        click.echo(
            f"{join.outline}: {join.first} and {join.second}: half {join.miss.half:.2f} mm, nine "
            "in ten "
            f"{join.miss.nine:.2f} mm"
        )
        for way in join.instead[:1]:
            click.echo(f"    {way.told}: {way.nine:.2f} mm, {way.gain:.2f} less")
    for size in found.sizes:
        click.echo(f"{size.outline}, {size.told}: nine in ten within {size.off.nine:.2f} mm")
