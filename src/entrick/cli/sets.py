"""Commands for a class: make a set, its papers and its key, mark answers."""

from __future__ import annotations

import sys
from pathlib import Path

import click

from .net import SEED, Told


@click.group("set")
def sets() -> None:
    """Practice for a class: make a set, its papers and its key."""


_PLANS = click.argument(
    "plans", nargs=-1, required=True, type=click.Path(exists=True, dir_okay=False, path_type=Path)
)
_OUT = click.option(
    "-o", "--output", required=True, type=click.Path(dir_okay=False, path_type=Path)
)
_SET = click.argument(
    "file", metavar="SET", type=click.Path(exists=True, dir_okay=False, path_type=Path)
)


def _said(error: Exception) -> click.ClickException:
    return click.ClickException(str(error))


@sets.command("make", cls=Told)
@_PLANS
@_OUT
@click.option("--students", default=24, show_default=True)
@click.option("--questions", "count", default=20, show_default=True)
@click.option(
    "--seed", default=1, type=SEED, show_default=True, help="The same seed gives the same set."
)
@click.option("--title", default="Setting out", show_default=True)
@click.option(
    "--rule",
    "rules",
    multiple=True,
    help="What is tested; all that can be asked on paper if not said.",
)
def make_set(
    plans: tuple[Path, ...],
    output: Path,
    students: int,
    count: int,
    seed: int,
    title: str,
    rules: tuple[str, ...],
) -> None:
    """Make a set from PLANS: one variant of them for every student."""
    from ..core.practice.question import RULES
    from ..core.practice.sets import make, write_set

    unknown = set(rules) - set(RULES)
    if unknown:
        raise click.UsageError(
            f"there is no rule {sorted(unknown)[0]}; there are {', '.join(RULES)}"
        )
    try:
        texts = [plan.read_text("utf-8") for plan in plans]
        with click.progressbar(length=students, label="papers", file=sys.stderr) as bar:
            made = make(
                title,
                texts,
                students,
                count,
                seed,
                frozenset(rules),
                lambda done, of: bar.update(1),
            )
    except (ValueError, UnicodeDecodeError) as error:
        raise _said(error) from error
    output.write_text(write_set(made), "utf-8")
    click.echo(f"{output}: {students} papers of {len(made.papers[0].questions)} questions")


def _papers(file: Path, output: Path, key: bool, paper: str) -> None:
    from ..core.formats.practice_paper import write_papers
    from ..core.practice.sets import read_set

    try:
        made = read_set(file.read_text("utf-8"))
    except (ValueError, UnicodeDecodeError) as error:
        raise _said(error) from error
    output.write_bytes(write_papers(made, key, paper))  # type: ignore[arg-type]
    click.echo(f"{output}: {len(made.papers)} {'keys' if key else 'papers'}")


_PAPER = click.option(
    "--paper", type=click.Choice(["A4", "letter"]), default="A4", show_default=True
)


@sets.command("paper", cls=Told)
@_SET
@_OUT
@_PAPER
def set_paper(file: Path, output: Path, paper: str) -> None:
    """Write the papers of SET as PDF, every student's on pages of its own."""
    _papers(file, output, False, paper)


@sets.command("key", cls=Told)
@_SET
@_OUT
@_PAPER
def set_key(file: Path, output: Path, paper: str) -> None:
    """Write the key of SET as PDF: answers and working of every paper."""
    _papers(file, output, True, paper)


@click.command("mark", cls=Told)
@_SET
@click.argument("answers", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@_OUT
def mark(file: Path, answers: Path, output: Path) -> None:
    """Mark ANSWERS (CSV: student,1,2,...) to SET, each slip named; the slips of the class are
    printed."""
    from ..core.practice.sets import mark_answers, marks_csv, read_set, slips_of

    try:
        made = read_set(file.read_text("utf-8"))
        found = mark_answers(made, answers.read_text("utf-8"))
    except (ValueError, UnicodeDecodeError) as error:
        raise _said(error) from error
    output.write_text(marks_csv(made, found), "utf-8", newline="")
    click.echo(f"{output}: {len(found)} papers marked")
    for slip, times, who in slips_of(found):
        click.echo(f"{times:6} times by {who:4}  {slip}")
