"""Commands on pictures of finished sheets: make one, look at one, look at a class's."""

from __future__ import annotations

import json
import sys
import zipfile
from collections.abc import Iterator
from pathlib import Path

import click

from ..core.board.kit import Kit
from ..core.desk import Work
from ..core.formats.looked import commonest, looked_data, marks_table
from ..core.look.by_hand import drawn_by_hand
from ..core.look.finding import TOLERANCE, Finding
from ..core.look.places import PlacesError, look_at_places, read_taken
from ..core.look.scheme import Marked, Scheme, marked
from ..core.look.which import hypotheses
from ..pictures.look import look_at_picture
from ..pictures.read import LARGEST, PictureError
from .net import SEED, Bounded, Size, Told
from .plan_file import FILE, KIT, worked_out

TOLERATED = click.option(
    "--within", type=Size(50), default=TOLERANCE, show_default=True, help="Tolerance, mm on paper."
)


@click.command(cls=Bounded)
@FILE
@click.argument("picture", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@KIT
@TOLERATED
@click.option("--json", "as_json", is_flag=True, help="Print plain data.")
def look(file: Path, picture: Path, kit: Kit | None, within: float, as_json: bool) -> None:
    """Look at a PICTURE (PNG, JPEG, TIFF, PDF) of the finished sheet of a plan: what is off, by how
    much, and which act slipped. A table of measured places or sizes (.csv) does as well.

    Ends with 0 where everything is within the tolerance, 1 where not, 2 where no sheet of the plan
    is found.
    """
    work = worked_out(file, kit)
    if picture.suffix.lower() == ".csv":
        sys.exit(_look_at_places(work, picture))
    try:
        finding = look_at_picture(work, picture.read_bytes(), within).finding
    except PictureError as error:
        click.echo(f"{picture.name}: {error}", err=True)
        sys.exit(2)
    if as_json:
        click.echo(json.dumps(looked_data(finding), ensure_ascii=False, indent=2))
    else:
        click.echo("\n".join(_described(finding)))
    sys.exit(0 if finding.is_within else 1)


def _look_at_places(work: Work, table: Path) -> int:
    try:
        found = look_at_places(work, read_taken(table.read_text("utf-8")))
    except PlacesError as error:
        click.echo(f"{table.name}: {error}", err=True)
        return 2
    click.echo(found.sentence)
    for name, off in found.off:
        click.echo(f"{name:24} {off:.2f} mm off at most")
    return 0 if found.fits and not found.slips else 1


def _described(finding: Finding) -> Iterator[str]:
    yield finding.sentence
    yield from finding.notes
    for row in finding.rows:
        size = row.size
        drawn = f"{size.what} drawn {size.drawn:.2f} ± {size.u:.2f}" if size else ""
        place = f"place {row.place:.2f} ± {row.place_u:.2f} mm off"
        yield f"{row.name:24} {row.judged:8} {'; '.join(filter(None, (drawn, place, row.told)))}"


@click.command(cls=Told)
@FILE
@click.option("-o", "--output", required=True, type=click.Path(dir_okay=False, path_type=Path))
@KIT
@click.option(
    "--slip", default="", help="What goes wrong: part of the name of a slip, or a number."
)
@click.option("--photo", is_flag=True, help="Photographed askew and not scanned.")
@click.option("--seed", default=1, type=SEED, show_default=True)
def scan(file: Path, output: Path, kit: Kit | None, slip: str, photo: bool, seed: int) -> None:
    """Draw a plan by a simulated hand and make a picture of it (a stand-in for a scanner); where
    the output is a .csv, measure places of it (a stand-in for a digitiser)."""
    from ..devices.digitiser import digitised
    from ..devices.scanner import photograph
    from ..devices.scanner import scan as scanned

    work = worked_out(file, kit)
    every = hypotheses(work).slips if slip else ()
    fitting = [each for each in every if slip in each.key]
    if slip.isdigit() and int(slip) < len(every):
        fitting = [every[int(slip)]]
    if slip and not fitting:
        names = ", ".join(dict.fromkeys(each.key for each in every))
        raise click.ClickException(f"no act of this plan suffers {slip!r}; there are: {names}")
    sheet = drawn_by_hand(work, seed, fitting[seed % len(fitting) :][:1] if fitting else ())
    if output.suffix.lower() == ".csv":
        output.write_text(digitised(sheet, seed), "utf-8")
        return
    output.write_bytes(photograph(sheet, seed=seed) if photo else scanned(sheet, seed=seed))


MOST_SHEETS = 400
"""Pictures of a class that are looked at."""


@click.command("look-class", cls=Told)
@FILE
@click.argument("pictures", type=click.Path(exists=True, path_type=Path))
@click.option("-o", "--output", required=True, type=click.Path(dir_okay=False, path_type=Path))
@KIT
@TOLERATED
def look_class(file: Path, pictures: Path, output: Path, kit: Kit | None, within: float) -> None:
    """Look at the PICTURES of a class, a folder or a zip with one for each student, and write
    their marks as a table."""
    work, scheme = worked_out(file, kit), Scheme()
    rows: list[tuple[str, Marked | None, str]] = []
    keys: list[str] = []
    for student, content in _pictures(pictures):
        try:
            finding = look_at_picture(work, content, within).finding
        except PictureError as error:
            rows.append((student, None, str(error)))
            click.echo(f"{student}: {error}")
            continue
        marks = marked(finding, scheme)
        keys += [slip.key for slip in (*finding.slips[:1], *finding.second[:1])]
        rows.append((student, marks, finding.sentence))
        click.echo(f"{student}: {marks.whole:g} of {scheme.whole:g}. {finding.sentence}")
    output.write_text(marks_table(rows), "utf-8")
    for key, count in commonest(keys).items():
        click.echo(f"{count}× {key}")


def _pictures(where: Path) -> Iterator[tuple[str, bytes]]:
    if where.is_dir():
        files = sorted(each for each in where.iterdir() if each.is_file())
        yield from ((each.stem, each.read_bytes()) for each in files[:MOST_SHEETS])
        return
    try:
        with zipfile.ZipFile(where) as archive:
            infos = [each for each in archive.infolist() if not each.is_dir()]
            for info in infos[:MOST_SHEETS]:
                if info.file_size <= LARGEST:
                    yield Path(info.filename).stem, archive.read(info)
    except zipfile.BadZipFile as error:
        raise click.ClickException(f"{where} is neither a folder nor a zip") from error
