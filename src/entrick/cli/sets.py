"""Commands for a class: make a set, its papers and its key, mark answers."""

from __future__ import annotations

import sys
from pathlib import Path
from typing import Any

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
@click.option(
    "--students",
    default="24",
    show_default=True,
    help="How many, or the file of a class list: a name in a row, or CSV with a column  name.",
)
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
@click.option(
    "--grade",
    default=0,
    show_default=True,
    type=click.IntRange(0, 4),
    help="1 at full size, 2 at a scale, 3 each slip told from any other, 4 two traps at once.",
)
def make_set(
    plans: tuple[Path, ...],
    output: Path,
    students: str,
    count: int,
    seed: int,
    title: str,
    **asked: Any,
) -> None:
    """Make a set from PLANS: one variant of them for every student."""
    from ..core.classroom.answers import read_names
    from ..core.classroom.set_file import write_set
    from ..core.classroom.sets import Asked, make
    from ..core.practice.question import RULES

    rules = frozenset(asked["rules"])
    unknown = rules - set(RULES)
    if unknown:
        raise click.UsageError(
            f"there is no rule {sorted(unknown)[0]}; there are {', '.join(RULES)}"
        )
    try:
        texts = [plan.read_text("utf-8") for plan in plans]
        is_number = students.isdigit()
        called = int(students) if is_number else read_names(Path(students).read_text("utf-8"))
        papers = called if isinstance(called, int) else len(called)
        with click.progressbar(length=papers, label="papers", file=sys.stderr) as bar:
            made = make(
                title,
                texts,
                called,
                count,
                seed,
                Asked(rules, asked["grade"]),
                lambda done, of: bar.update(1),
            )
    except (OSError, ValueError, UnicodeDecodeError) as error:
        raise _said(error) from error
    output.write_text(write_set(made), "utf-8")
    click.echo(f"{output}: {len(made.papers)} papers of {len(made.papers[0].questions)} questions")


@sets.command("part", cls=Told)
@click.argument("topic")
@_OUT
@click.option("--seed", default=1, type=SEED, show_default=True, help="Another one, another part.")
@click.option("--grade", default=0, show_default=True, type=click.IntRange(0, 4))
def set_part(topic: str, output: Path, seed: int, grade: int) -> None:
    """Write the plan of a new part of TOPIC, such as  link  or  cam."""
    from ..core.classroom.topics import new_part
    from ..core.plan.writer import write_plan

    try:
        work = new_part(topic, seed, grade)
    except ValueError as error:
        raise _said(error) from error
    output.write_text(write_plan(work.plan), "utf-8")
    click.echo(f"{output}: {work.solution.title}")


def _papers(file: Path, output: Path, key: bool, paper: str) -> None:
    from ..core.classroom.set_file import read_set
    from ..core.formats.practice_key import write_key
    from ..core.formats.practice_paper import write_papers

    try:
        made = read_set(file.read_text("utf-8"))
    except (ValueError, UnicodeDecodeError) as error:
        raise _said(error) from error
    write = write_key if key else write_papers
    output.write_bytes(write(made, paper))  # type: ignore[arg-type]
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


@sets.command("answers", cls=Told)
@_SET
@_OUT
def set_answers(file: Path, output: Path) -> None:
    """Write an empty table of answers to SET as CSV, to be filled in."""
    from ..core.classroom.answers import answer_sheet
    from ..core.classroom.set_file import read_set

    try:
        written = answer_sheet(read_set(file.read_text("utf-8")))
    except (ValueError, UnicodeDecodeError) as error:
        raise _said(error) from error
    output.write_text(written, "utf-8", newline="")
    click.echo(f"{output}: to be filled in")


@click.command("mark", cls=Told)
@_SET
@click.argument("answers", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@_OUT
def mark(file: Path, answers: Path, output: Path) -> None:
    """Mark ANSWERS (CSV: student,1,2,...) to SET, each slip named; the slips of the class are
    printed."""
    from ..core.classroom.answers import mark_answers, marks_csv, read_answers, slips_of
    from ..core.classroom.set_file import read_set

    try:
        made = read_set(file.read_text("utf-8"))
        said = answers.read_text("utf-8")
        found = mark_answers(made, said)
        left_out = read_answers(said).left_out
    except (ValueError, UnicodeDecodeError) as error:
        raise _said(error) from error
    output.write_text(marks_csv(made, found), "utf-8", newline="")
    click.echo(f"{output}: {len(found)} papers marked")
    for told in left_out:
        click.echo(told)
    for slip, times, who in slips_of(found):
        click.echo(f"{times:6} times by {who:4}  {slip}")
