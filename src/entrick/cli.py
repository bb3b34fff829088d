"""The ``entrick`` command: solve, draw and check a plan from the shell; serve the desk."""

from __future__ import annotations

import json
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import click

from .core import formats
from .core.board import Kit
from .core.board.kits import STARTERS, kit_named, read_kit
from .core.cutting.program import CAUTION
from .core.desk import Work, work_out
from .core.proof import why_not_cut


@click.group()
def main() -> None:
    """A setting-out desk: givens in, centres, settings and a proved outline out."""


def _work(file: Path, kit: Kit | None = None) -> Work:
    try:
        return work_out(file.read_text("utf-8"), kit)
    except UnicodeDecodeError as error:
        raise click.ClickException(f"{file} is not UTF-8 text") from error
    except ValueError as error:
        raise click.ClickException(str(error)) from error


def _kit(_: click.Context, __: click.Parameter, said: str | None) -> Kit | None:
    if said is None:
        return None
    try:
        return read_kit(Path(said).read_text("utf-8")) if Path(said).is_file() else kit_named(said)
    except (ValueError, OSError) as error:
        raise click.BadParameter(str(error)) from error


_KIT = click.option("--kit", callback=_kit, metavar="FILE", help=f"A kit, from a file or one of {', '.join(STARTERS)}.")
_FILE = click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))


@main.command()
@_FILE
@_KIT
@click.option("--json", "as_json", is_flag=True, help="Print plain data instead of the order of work.")
def solve(file: Path, kit: Kit | None, as_json: bool) -> None:
    """Work a plan out: points, circles, arcs, settings, outlines, findings."""
    work = _work(file, kit)
    if as_json:
        click.echo(json.dumps(formats.solution_data(work), ensure_ascii=False, indent=2))
    else:
        for entry in work.solution.entries:
            click.echo(f"{entry.line:4}  {entry.made.sentence if entry.made else entry.error.message}")  # type: ignore[union-attr]
            for row in entry.made.working if entry.made else ():
                click.echo(f"        {row}")
    if work.solution.errors:
        sys.exit(1)


@main.command()
@_FILE
@click.option("-o", "--output", required=True, type=click.Path(dir_okay=False, path_type=Path))
@click.option("--clean", is_flag=True, help="Leave the construction out.")
@click.option("--cutter", is_flag=True, help="DXF with the outlines alone; refused while one is open or doubled.")
@click.option("--insist", is_flag=True, help="Write the cutter's DXF all the same.")
@click.option("--run-sheet", is_flag=True, help="PDF of every step with boxes to tick, in the place of the sheet.")
@click.option("--tool", type=float, help="For a cutter's program (.nc): width of the cut, in the plan's unit.")
@click.option("--feed", type=float, help="For a cutter's program (.nc): the plan's unit a minute.")
@_KIT
def draw(
    file: Path, output: Path, clean: bool, cutter: bool, insist: bool, run_sheet: bool, tool: float | None,
    feed: float | None, kit: Kit | None,
) -> None:  # fmt: skip
    """Draw a plan as PDF, SVG, DXF, CSV of its settings or a cutter's program, by the ending of the output."""
    work = _work(file, kit)
    if output.suffix.lower() == ".nc":
        _write_program(work, output, tool, feed)
        return
    if cutter:
        reason = why_not_cut(work.findings)
        if reason and not insist:
            raise click.ClickException(f"not to be cut as it is: {reason}. --insist writes it all the same")
        output.write_text(formats.write_cutter_dxf(work.outlines, work.solution.unit), "utf-8")
        click.echo(CAUTION, err=True)
        return
    match output.suffix.lower():
        case ".pdf" if run_sheet:
            output.write_bytes(formats.write_run_sheet(work))
        case ".pdf":
            output.write_bytes(formats.write_pdf(work.display, work.solution.title, not clean))
        case ".svg":
            output.write_text(formats.write_svg(work.display, not clean, work.solution.unit), "utf-8")
        case ".dxf":
            output.write_text(formats.write_dxf(work.display, work.solution.unit, not clean), "utf-8")
        case ".csv":
            output.write_text(formats.settings_csv(work.steps, work.kit, work.before, work.after), "utf-8", newline="")
        case ending:
            raise click.UsageError(f"{ending or 'no ending'}: the output ends in .pdf, .svg, .dxf, .csv or .nc")
    for error in work.solution.errors:
        click.echo(f"{file}:{error.line}: {error.message}", err=True)


def _write_program(work: Work, output: Path, tool: float | None, feed: float | None) -> None:
    from .core.cutting import tool_paths, write_program

    if tool is None or feed is None:
        raise click.UsageError("a cutter's program needs --tool (width of the cut) and --feed")
    reason = why_not_cut(work.findings)
    if reason:
        raise click.ClickException(f"not to be cut as it is: {reason}")
    unit, title = work.solution.unit, f"{work.solution.drawing} {work.solution.title}"
    try:
        cuts = tool_paths(work.named_outlines, tool)
        output.write_text(write_program(cuts, unit, tool, feed, title), "ascii", newline="")
    except ValueError as error:
        raise click.ClickException(f"not to be cut as it is: {error}") from error
    click.echo(f"{output}: {len(cuts)} outlines, units {unit.value}, full size", err=True)
    click.echo(CAUTION, err=True)


@main.command("read-back")
@click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@click.option("-o", "--output", required=True, type=click.Path(dir_okay=False, path_type=Path))
@click.option("--units", type=click.Choice(["mm", "in"]), help="Of the plan; as the file says, or what is simpler.")
@click.option("--within", type=float, help="How far outlines may be off, in the file's unit; if not said, 0.001 mm.")
@click.option("--layer", "layers", multiple=True, help="Of a DXF, what to read; several times for several.")
@click.option("--json", "as_json", is_flag=True, help="Print plain data.")
def read_back_(
    file: Path, output: Path, units: str | None, within: float | None, layers: tuple[str, ...], as_json: bool
) -> None:
    """Read a bare profile (DXF, SVG, or CSV of points) back into a plan."""
    from .core.measure import Unit
    from .core.readback import ProfileError, read_back, read_profile

    if within is not None and not within > 0:
        raise click.UsageError("--within is more than nought")
    try:
        profile = read_profile(file.read_bytes(), file.name, within, layers)
        found = read_back(profile, Unit(units) if units else None, within, file.stem)
    except ProfileError as error:
        raise click.ClickException(str(error)) from error
    output.write_text(found.text, "utf-8")
    said = {"off": found.off, "numbers": found.numbers, "outlines": len(profile.runs), "unit": found.unit.value,
            "seen": list(found.seen), "told": list(found.told), "layers": list(profile.layers)}  # fmt: skip
    if as_json:
        click.echo(json.dumps(said, ensure_ascii=False, indent=2))
        return
    click.echo(f"{output}: {len(profile.runs)} outlines by {found.numbers} numbers, within {found.off:.1e}")
    for row in found.told:
        click.echo(f"! {row}")


@main.command()
@click.argument("program", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@click.option("--against", "plan", required=True, type=click.Path(exists=True, dir_okay=False, path_type=Path))
@click.option("--tool", type=float, default=None, help="Width of the cut, plan units; as the program says if not said.")
@click.option("--within", type=float, default=0.02, show_default=True, help="How far off the part may be, mm.")
@click.option("--fault", type=click.Choice(["lost step", "late answer", "cut connection"]), help="Switched on at --at.")
@click.option("--at", "at_block", default=10, show_default=True, help="Block at which the fault happens.")
@click.option("--json", "as_json", is_flag=True, help="Print plain data.")
def cut(
    program: Path, plan: Path, tool: float | None, within: float, fault: str | None, at_block: int, as_json: bool
) -> None:
    """Cut PROGRAM on a simulated cutter, and hold the part against a plan.

    Exit status 0 where it fits, 1 where it does not, 2 where the machine does not do what the program says.
    """
    from dataclasses import asdict

    from .devices.cutter import Cutter, CutterError, run, tool_of
    from .devices.judge import judged

    work = _work(plan)
    text = program.read_text("utf-8", "replace")
    width = tool if tool is not None else tool_of(text)
    if width is None:
        raise click.UsageError("the program does not say how wide it cuts: name it with --tool")
    mm = float(work.solution.unit.mm)
    try:
        machine = run(text, Cutter(fault or "", at_block))  # type: ignore[arg-type]
    except CutterError as error:
        click.echo(f"{program}: {error}", err=True)
        sys.exit(2)
    found = judged(machine.moves, work.outlines, mm, width * mm, within)
    told = list(found.told)
    if as_json:
        click.echo(json.dumps({**asdict(found), "happened": machine.told}, ensure_ascii=False, indent=2))
    else:
        click.echo(f"{found.parts} parts, cut {found.length:.0f} mm in {found.minutes:.1f} minutes; "
                   f"gouged {found.gouged:.3f}, left {found.left:.3f} mm, "
                   f"{found.corners} inner corners keep a round")  # fmt: skip
        for row in machine.told:
            click.echo(f"! {row}")
        for row in told:
            click.echo(f"✗ {row}")
    if told:
        sys.exit(1)


@main.command()
@_FILE
def check(file: Path) -> None:
    """Inspect a plan. Exit status 0 when nothing is wrong, 1 when something is."""
    work = _work(file)
    signs = {"wrong": "✗", "look": "?", "note": "·", "good": "✓"}
    for finding in work.findings:
        place = f"{file}:{finding.line}: " if finding.line else f"{file}: "
        click.echo(f"{signs[finding.weight]} {place}{finding.message}")
    if any(finding.weight == "wrong" for finding in work.findings):
        sys.exit(1)


@main.command("carry-out")
@_FILE
@_KIT
@click.option("--json", "as_json", is_flag=True, help="Print plain data.")
def carry_out(file: Path, kit: Kit | None, as_json: bool) -> None:
    """Carry the acts of a plan out exactly, and compare what they leave with its figure.

    Exit status 0 where they end in the figure, 1 where it is missed, 2 where the plan itself has mistakes.
    """
    from .core.rehearsal.exactly import carried_exactly

    work = _work(file)
    for error in work.solution.errors:
        click.echo(f"{file}:{error.line}: {error.message}", err=True)
    carried = carried_exactly(work.solution, work.sheet, kit)
    if as_json:
        click.echo(json.dumps(formats.carried_data(carried), ensure_ascii=False, indent=2))
    else:
        click.echo(f"{carried.acts} acts, the greatest miss {carried.miss:.1e} of {carried.allowed:.1e} allowed"
                   + (f", at {carried.where}" if carried.miss else ""))  # fmt: skip
        click.echo(
            f"{len(carried.computed)} marks at places worked out" + "".join(f"\n  {m}" for m in carried.computed)
        )
        for told in (*carried.undrawn, *filter(None, (carried.failure,))):
            click.echo(f"not drawn: {told}", err=True)
    if work.solution.errors:
        sys.exit(2)
    if not carried.ends_in_the_figure:
        sys.exit(1)


@main.command()
@_FILE
@click.option("--hands", default=500, show_default=True, type=click.IntRange(1, 100_000), help="So many hands.")
@click.option("--seed", default=1, show_default=True, help="The same seed gives the same answer.")
@click.option("--json", "as_json", is_flag=True, help="Print plain data.")
def rehearse(file: Path, hands: int, seed: int, as_json: bool) -> None:
    """Draw a plan by many hands, and tell how well its outline closes on paper."""
    from .core.rehearsal.rehearse import rehearse as rehearsed

    work = _work(file)
    if work.solution.errors:
        for error in work.solution.errors:
            click.echo(f"{file}:{error.line}: {error.message}", err=True)
        sys.exit(2)
    found = rehearsed(work.solution, work.sheet, hands, seed)
    if as_json:
        click.echo(json.dumps(formats.rehearsal_data(found), ensure_ascii=False, indent=2))
        return
    for join in found.joins:
        click.echo(f"{join.outline}: {join.first} and {join.second}: half {join.miss.half:.2f} mm, nine in ten "
                   f"{join.miss.nine:.2f} mm")  # fmt: skip
        for way in join.instead[:1]:
            click.echo(f"    {way.told}: {way.nine:.2f} mm, {way.gain:.2f} less")
    for size in found.sizes:
        click.echo(f"{size.outline}, {size.way} over all {size.size:.1f} mm: nine in ten within {size.off.nine:.2f} mm")


_PEM = click.Path(exists=True, dir_okay=False, path_type=Path)


@main.command()
@click.option("--port", default=8400, show_default=True)
@click.option("--database", type=click.Path(dir_okay=False, path_type=Path), default=None, help="SQLite file.")
@click.option("--demo", is_flag=True, help="Load the sample jobs into an empty register.")
@click.option("--lan", is_flag=True, help="Let phones and tablets of the local network in, by a code that is printed.")
@click.option("--lan-address", metavar="ADDRESS", help="Which address of this machine, where it has several.")
@click.option("--cert", type=_PEM, help="Certificate chain of one's own, PEM, for --lan; goes with --key.")
@click.option("--key", type=_PEM, help="Its private key, PEM.")
def serve(
    port: int, database: Path | None, demo: bool, lan: bool, lan_address: str | None, cert: Path | None,
    key: Path | None,
) -> None:  # fmt: skip
    """Serve the desk on 127.0.0.1; with --lan to the local network as well."""
    from .web.pairing import local_address
    from .web.serve import Network, run

    if (cert is None) != (key is None):
        raise click.UsageError("--cert and --key go together")
    if not lan:
        if cert or lan_address:
            raise click.UsageError("--lan-address, --cert and --key go with --lan")
        run(port, database, demo)
        return
    try:
        network = Network(local_address(lan_address), cert, key)
    except ValueError as error:
        raise click.UsageError(str(error)) from error
    run(port, database, demo, network)


_DATABASE = click.option(
    "--database",
    type=click.Path(dir_okay=False, path_type=Path),
    default=None,
    help="The register; the usual one if not said.",
)


def _register(database: Path | None) -> Path:
    from .web.serve import default_register

    return database or default_register()


@contextmanager
def _told() -> Iterator[None]:
    """Say what is wrong with a register in one line."""
    from .store import ArchiveError, RegisterTrouble

    try:
        yield
    except (RegisterTrouble, ArchiveError) as error:
        raise click.ClickException(str(error)) from error
    except OSError as error:
        raise click.ClickException(f"{error.filename}: {error.strerror}") from error


@main.command()
@click.argument("file", type=click.Path(dir_okay=False, path_type=Path))
@_DATABASE
def backup(file: Path, database: Path | None) -> None:
    """Write a copy of the register to FILE, also while the desk is used."""
    from .store import backup as copy

    with _told():
        copy(_register(database), file)
    click.echo(f"{file} holds the register as it is now")


@main.command()
@click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@_DATABASE
def restore(file: Path, database: Path | None) -> None:
    """Put the backup FILE in the place of the register, which is kept as a snapshot first."""
    from .store import restore as put_back

    with _told():
        kept = put_back(file, _register(database))
    click.echo(f"the register is as it was in {file}" + (f"; as it was before, it is in {kept}" if kept else ""))


@main.command("export")
@click.argument("folder", type=click.Path(file_okay=False, path_type=Path))
@_DATABASE
def export_(folder: Path, database: Path | None) -> None:
    """Write every job with its history to FOLDER as open files."""
    from .store import Folder, export_register, open_store

    if folder.exists() and any(folder.iterdir()):
        raise click.ClickException(f"{folder} is not empty: name a new folder")
    with _told():
        store = open_store(_register(database))
        count = export_register(store, Folder(folder))
        store.close()
    click.echo(f"{count} jobs written to {folder}")


@main.command("import")
@click.argument("folder", type=click.Path(exists=True, file_okay=False, path_type=Path))
@_DATABASE
def import_(folder: Path, database: Path | None) -> None:
    """Enter every job of an exported FOLDER, all or none."""
    from .store import Folder, import_register, open_store

    with _told():
        store = open_store(_register(database))
        came = import_register(store, Folder(folder))
        store.close()
    click.echo(f"{came.jobs} jobs entered" + (f", {came.known} were there already" if came.known else ""))


@main.group("set")
def sets() -> None:
    """Practice for a class: make a set, its papers and its key."""


_PLANS = click.argument("plans", nargs=-1, required=True, type=click.Path(exists=True, dir_okay=False, path_type=Path))
_OUT = click.option("-o", "--output", required=True, type=click.Path(dir_okay=False, path_type=Path))
_SET = click.argument("file", metavar="SET", type=click.Path(exists=True, dir_okay=False, path_type=Path))


def _said(error: Exception) -> click.ClickException:
    return click.ClickException(str(error))


@sets.command("make")
@_PLANS
@_OUT
@click.option("--students", default=24, show_default=True)
@click.option("--questions", "count", default=20, show_default=True)
@click.option("--seed", default=1, show_default=True, help="The same seed gives the same set.")
@click.option("--title", default="Setting out", show_default=True)
@click.option("--rule", "rules", multiple=True, help="What is tested; all that can be asked on paper if not said.")
def make_set(
    plans: tuple[Path, ...], output: Path, students: int, count: int, seed: int, title: str, rules: tuple[str, ...]
) -> None:
    """Make a set from PLANS: one variant of them for every student."""
    from .core.practice.question import RULES
    from .core.practice.sets import make, write_set

    unknown = set(rules) - set(RULES)
    if unknown:
        raise click.UsageError(f"there is no rule {sorted(unknown)[0]}; there are {', '.join(RULES)}")
    try:
        texts = [plan.read_text("utf-8") for plan in plans]
        with click.progressbar(length=students, label="papers", file=sys.stderr) as bar:
            made = make(title, texts, students, count, seed, frozenset(rules), lambda done, of: bar.update(1))
    except (ValueError, UnicodeDecodeError) as error:
        raise _said(error) from error
    output.write_text(write_set(made), "utf-8")
    click.echo(f"{output}: {students} papers of {len(made.papers[0].questions)} questions")


def _papers(file: Path, output: Path, key: bool, paper: str) -> None:
    from .core.formats.practice_paper import write_papers
    from .core.practice.sets import read_set

    try:
        made = read_set(file.read_text("utf-8"))
    except ValueError as error:
        raise _said(error) from error
    output.write_bytes(write_papers(made, key, paper))  # type: ignore[arg-type]
    click.echo(f"{output}: {len(made.papers)} {'keys' if key else 'papers'}")


_PAPER = click.option("--paper", type=click.Choice(["A4", "letter"]), default="A4", show_default=True)


@sets.command("paper")
@_SET
@_OUT
@_PAPER
def set_paper(file: Path, output: Path, paper: str) -> None:
    """Write the papers of SET as PDF, every student's on pages of its own."""
    _papers(file, output, False, paper)


@sets.command("key")
@_SET
@_OUT
@_PAPER
def set_key(file: Path, output: Path, paper: str) -> None:
    """Write the key of SET as PDF: answers and working of every paper."""
    _papers(file, output, True, paper)


@main.command("mark")
@_SET
@click.argument("answers", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@_OUT
def mark(file: Path, answers: Path, output: Path) -> None:
    """Mark ANSWERS (CSV: student,1,2,...) to SET, each slip named; the slips of the class are printed."""
    from .core.practice.sets import mark_answers, marks_csv, read_set, slips_of

    try:
        made = read_set(file.read_text("utf-8"))
        found = mark_answers(made, answers.read_text("utf-8"))
    except (ValueError, UnicodeDecodeError) as error:
        raise _said(error) from error
    output.write_text(marks_csv(made, found), "utf-8", newline="")
    click.echo(f"{output}: {len(found)} papers marked")
    for slip, times, who in slips_of(found):
        click.echo(f"{times:6} times by {who:4}  {slip}")


if __name__ == "__main__":
    main()
