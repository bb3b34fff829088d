"""Salvage: what can still be read of a damaged register.

Every row carries a digest of all it says, so that one found anywhere in the file is either exactly
what was saved or is left out; and the register notes how many rows each of its tables holds, so
that it can be told what is missing."""

from __future__ import annotations

import json
import shutil
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from sqlalchemy import Table
from sqlalchemy.orm import Session

from .about import NAME, ROWS, counted
from .database import Store, open_store
from .digest import DIGEST, as_python, is_sound, kept
from .listing import put_summary
from .models import FIRST, About, Base, Job, PersonRow, Revision
from .sqlite_file import Value, rows_of

SIDE_FILES = ("-wal", "-shm")

NAMES = {
    "person": "people",
    "job": "jobs",
    "revision": "revisions",
    "job_order": "orders of work",
    "sitting": "sittings",
    "sitting_event": "events of sittings",
    "kit": "kits",
    "practice_answer": "answers of practice",
    "class_set": "sets for a class",
    "class_mark": "marks of a class",
    "signature": "signatures",
}
"""What the rows of a table are to whoever keeps the register."""

KEYS = {
    "person": ("id",),
    "job": ("id",),
    "revision": ("job_id", "number"),
    "job_order": ("job_id",),
    "sitting": ("id",),
    "sitting_event": ("sitting_id", "number"),
    "kit": ("person_id", "name"),
    "practice_answer": ("uid",),
    "class_set": ("id",),
    "class_mark": ("id",),
    "signature": ("job_id", "number", "signed_as"),
    "about": ("name",),
}
"""By which columns the rows of a table are told apart."""

Row = Mapping[str, Any]

WHOSE = "person_id"
"""The column that says whose a row is."""


@dataclass(frozen=True, slots=True)
class Salvaged:
    """What became of a damaged register.

    Attributes
    ----------
    aside : Path
        Where the damaged file lies now, as it was.
    report : Path
        A list of what was salvaged and what was not.
    came : dict
        Rows that were salvaged, by table.
    lost : dict
        Rows that were not, by table; None where nobody can tell.
    placeless : int
        Rows that were read and have no place any more, such as events of a lost sitting: they stand
        in the report.
    """

    aside: Path
    report: Path
    came: Mapping[str, int]
    lost: Mapping[str, int | None]
    placeless: int

    @property
    def is_whole(self) -> bool:
        """Whether everything came, as far as anybody can tell and that is known."""
        return not self.placeless and all(count == 0 for count in self.lost.values())

    def told(self) -> str:
        """Return what is missing, in a sentence."""
        if self.is_whole:
            return "Nothing is missing."
        lost = [f"{count} {NAMES[name]}" for name, count in self.lost.items() if count]
        unknown = [NAMES[name] for name, count in self.lost.items() if count is None]
        told = [f"Missing: {', '.join(lost)}."] if lost else []
        if unknown:
            told.append(f"How many {', '.join(unknown)} there were cannot be told.")
        if self.placeless:
            told.append(f"{self.placeless} rows were read and have no place any more.")
        return " ".join(told)


@dataclass(slots=True)
class _Found:
    """Sound rows by table and by what tells them apart."""

    rows: dict[str, dict[tuple[Any, ...], Row]] = field(default_factory=dict)

    def of(self, table: str) -> dict[tuple[Any, ...], Row]:
        return self.rows.setdefault(table, {})

    def noted(self, name: str) -> str | None:
        row = self.of(About.__tablename__).get((name,))
        return None if row is None else str(row["said"])


def salvage(path: Path) -> tuple[Store, Salvaged]:
    """Set a damaged register aside and open a fresh one with whatever can be read of it.

    Raises
    ------
    LookupError
        Where not one row can be read; the file is left where it is.
    """
    found = _read(path)
    if not any(found.of(name) for name in counted()):
        raise LookupError(f"nothing can be read in {path}")
    stamp = datetime.now().strftime("%Y%m%d-%H%M%S")
    aside = path.with_name(f"{path.name}.damaged-{stamp}")
    for side in ("", *SIDE_FILES):
        file = path.with_name(path.name + side)
        if file.exists():
            shutil.move(file, aside.with_name(aside.name + side))
    store = open_store(path, found.noted(NAME) or "")
    with store.writing() as session:
        came, placeless = _enter(session, found)
    lost = {name: _lost(found, name) for name in counted()}
    report = aside.with_name(aside.name + ".txt")
    saved = Salvaged(aside, report, came, lost, len(placeless))
    report.write_text("\n".join(_report(path, saved, found, placeless)) + "\n", "utf-8")
    report.chmod(0o600)
    return store, saved


def _read(path: Path) -> _Found:
    layouts: dict[int, list[tuple[Table, list[str]]]] = {}
    for table in kept():
        names = table.columns.keys()
        # As an older version wrote them, rows do not say whose they are.
        for own in (
            (names, [name for name in names if name != WHOSE]) if WHOSE in names else (names,)
        ):
            layouts.setdefault(len(own), []).append((table, own))
    result = _Found()
    for row_id, values in rows_of(path):
        if not values or not isinstance(values[-1], str) or len(values[-1]) != 64:
            continue
        for table, names in layouts.get(len(values), ()):
            row = _row(names, row_id, values)
            if is_sound(table, row):
                row = row if WHOSE in row or WHOSE not in table.columns else {**row, WHOSE: FIRST}
                key = tuple(row[name] for name in KEYS[table.name])
                result.of(table.name)[key] = row
    return result


def _row(names: Sequence[str], row_id: int, values: tuple[Value, ...]) -> Row:
    row = dict(zip(names, values, strict=True))
    # A whole number that is the key of a table is not written twice.
    return {
        name: row_id if value is None and name == "id" else value for name, value in row.items()
    }


def _lost(found: _Found, table: str) -> int | None:
    noted = found.noted(ROWS + table)
    return None if noted is None else max(0, int(noted) - len(found.of(table)))


def _enter(session: Session, found: _Found) -> tuple[dict[str, int], list[tuple[str, Row]]]:
    """Write what was found into a fresh register; return how much of each table came, and what has
    no place any more."""
    came, placeless = dict.fromkeys(counted(), 0), list[tuple[str, Row]]()
    _enter_people(session, found)
    came["person"] = len(found.of("person"))
    revisions = found.of("revision")
    jobs = {job_id for job_id, _ in revisions}
    for job_id in jobs - {own for (own,) in found.of("job")}:
        # When it was entered is not known any more; its first revision is.
        first = min(number for own, number in revisions if own == job_id)
        said = {"id": job_id, "created_at": revisions[job_id, first]["saved_at"], DIGEST: ""}
        whose = {WHOSE: revisions[job_id, first][WHOSE], "archived_at": None}
        session.add(_made(Base.metadata.tables["job"], {**said, **whose}))
    sittings = {row["id"] for row in found.of("sitting").values() if row["job_id"] in jobs}
    whole = {
        "job": jobs,
        "sitting": sittings,
        "class_set": {own for (own,) in found.of("class_set")},
    }
    for table in kept():
        enters = table.name in came and table.name != "person"
        for row in found.of(table.name).values() if enters else ():
            if _has_place(table, row, whole):
                session.add(_made(table, row))
                came[table.name] += 1
            else:
                placeless.append((table.name, row))
        session.flush()
    for job in session.query(Job).all():
        newest = max(number for own, number in revisions if own == job.id)
        there = session.query(Revision).filter_by(job_id=job.id, number=newest).one()
        put_summary(session, job, there, None)
    return came, placeless


def _enter_people(session: Session, found: _Found) -> None:
    """Write people first: others refer to them. Of whom nothing is left but a number, that stands
    for the initials."""
    person = Base.metadata.tables["person"]
    for row in found.of("person").values():
        session.merge(_made(person, row))
    named = {own for (own,) in found.of("person")} | {FIRST}
    referred = {
        row[WHOSE] for rows in found.rows.values() for row in rows.values() if row.get(WHOSE)
    }
    now = datetime.now(UTC)
    for number in sorted(referred - named):
        made = PersonRow(
            id=number,
            name="",
            initials=f"no. {number}",
            sign="circle",
            role="draws",
            secret="",
            joined_at=now,
            left_at=now,
        )
        session.add(made)
    session.flush()


def _has_place(table: Table, row: Row, whole: Mapping[str, set[int]]) -> bool:
    """Tell whether what a row belongs to came as well; `whole` has, by table, what is there."""
    match table.name:
        case "job":
            return row["id"] in whole["job"]
        case "job_order" | "sitting" | "signature":
            return row["job_id"] in whole["job"]
        case "sitting_event":
            return row["sitting_id"] in whole["sitting"]
        case "class_mark":
            return row["set_id"] in whole["class_set"]
    return True


def _made(table: Table, row: Row) -> Base:
    model = next(each.class_ for each in Base.registry.mappers if each.local_table is table)
    values = {name: as_python(table.columns[name], value) for name, value in row.items()}
    if table.name in ("revision", "sitting_event", "practice_answer", "signature"):
        values.pop("id", None)
    made: Base = model(**values)
    return made


def _report(
    path: Path, saved: Salvaged, found: _Found, placeless: list[tuple[str, Row]]
) -> Iterator[str]:
    yield f"{path.name} was damaged and was set aside as {saved.aside.name}, unchanged."
    yield "Salvaged, each exactly as it was saved, and missing:"
    for name, count in saved.came.items():
        lost = saved.lost[name]
        words = "nobody can tell how many are missing" if lost is None else f"{lost} missing"
        yield f"  {NAMES[name]}: {count}, {words}"
    yield saved.told()
    if saved.lost["revision"] != 0:
        yield from _gaps(found)
    if placeless:
        yield "Read, and without a place any more:"
        yield from (f"  {name} {json.dumps(dict(row), default=str)}" for name, row in placeless)


def _gaps(found: _Found) -> Iterator[str]:
    """Yield the revisions that stood between others, and the jobs without any."""
    numbers: dict[int, set[int]] = {}
    for job_id, number in found.of("revision"):
        numbers.setdefault(job_id, set()).add(number)
    for job_id, own in sorted(numbers.items()):
        based = {found.of("revision")[job_id, number]["based_on"] for number in own} - {None, 0}
        for number in sorted(based - own):
            yield f"  job {job_id}, revision {number}: others are based on it"
    for (job_id,) in sorted(found.of("job").keys()):
        if job_id not in numbers:
            yield f"  job {job_id}: all its revisions"
