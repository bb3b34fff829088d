"""The whole register as open files: every revision of every job as text, with what is known of it
as JSON beside it.

::

    register.json                      what this is, how many jobs, the people and the kits
    jobs/000012/job.json               when it was entered and archived; its revisions, oldest first
    jobs/000012/revision-0001.entrick  the plan as it was saved
"""

from __future__ import annotations

import json
import struct
import uuid
import zipfile
import zlib
from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import AbstractContextManager
from dataclasses import asdict, dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import Annotated, Any, Protocol, TypeVar

from pydantic import BaseModel, ConfigDict, Field, ValidationError, model_validator
from sqlalchemy import func, or_, select
from sqlalchemy.orm import Session

from ..core.logbook.sitting import Event
from ..core.office import EVERYBODY, Role, SignedAs
from ..core.plan.document import MOST_CHARACTERS
from ..records import (
    LARGEST_TAKEN,
    MOST_EVENTS,
    EventRecord,
    JobNumber,
    KitRecord,
    Note,
    OrderRecord,
    SittingRecord,
)
from .class_marks import marks_of
from .class_sets import list_sets, set_text
from .database import Store
from .jobs import add_revision
from .kits import MOST_KITS, list_kits, put_kit
from .listing import put_summary
from .models import FIRST, Job, Revision, SittingRow
from .people import MOST_PEOPLE, Person, change_person, come_in, everybody, one_person
from .practice import list_answers
from .signatures import Signature, keep_signatures, signatures
from .sittings import append, begin, list_sittings, order_of, set_order

T = TypeVar("T", bound=BaseModel)
D = TypeVar("D", datetime, datetime | None)

VERSION = 2
READ = (1, 2)
"""Versions that are taken in: the first one knew of no people."""

LARGEST_JSON = 16 * 2**20
MOST_JOBS = 100_000
MOST_BYTES = 2**30
"""Text of all revisions together that is taken in at once."""

DAMAGED = (
    zipfile.BadZipFile,
    zlib.error,
    struct.error,
    EOFError,
    NotImplementedError,
    OverflowError,
    ValueError,
)
"""What the library comes upon in a zip that is damaged."""

Told = Callable[[int, int], None]
"""Hears how many jobs of how many are done."""


class ArchiveError(ValueError):
    """Files that are no register, or not a whole one."""


class _File(BaseModel):
    """What a file says. How it is read is worked out when the first one is; a field nobody knows is
    a mistake."""

    model_config = ConfigDict(extra="forbid", defer_build=True)


_PersonNumber = Annotated[int, Field(ge=1, le=MOST_PEOPLE)]


class _PersonFile(_File):
    id: _PersonNumber
    name: Annotated[str, Field(max_length=80)]
    initials: Annotated[str, Field(max_length=12)]
    role: Role
    left: bool = False


class _SignatureFile(_File):
    signed_as: SignedAs
    by: _PersonNumber
    at: datetime


class _KitFile(KitRecord):
    whose: _PersonNumber = FIRST


class _RevisionFile(_File):
    number: JobNumber
    based_on: Annotated[int, Field(ge=0, le=LARGEST_TAKEN)] | None
    note: Note
    saved_at: datetime
    file: Annotated[str, Field(pattern=r"^revision-\d{1,12}\.entrick$")]
    by: _PersonNumber = FIRST
    signatures: Annotated[list[_SignatureFile], Field(max_length=2)] = []


class _SittingFile(SittingRecord):
    whose: _PersonNumber = FIRST
    events: Annotated[list[EventRecord], Field(max_length=MOST_EVENTS)]

    @model_validator(mode="after")
    def _once_each(self) -> _SittingFile:
        if len({event.number for event in self.events}) < len(self.events):
            raise ValueError("a number of an event stands there twice")
        return self


class _JobFile(OrderRecord):
    id: JobNumber
    created_at: datetime
    archived_at: datetime | None
    revisions: Annotated[list[_RevisionFile], Field(min_length=1)]
    sittings: Annotated[list[_SittingFile], Field(default_factory=list)]
    whose: Annotated[int, Field(ge=0, le=MOST_PEOPLE)] = FIRST

    @model_validator(mode="after")
    def _fits_together(self) -> _JobFile:
        numbers = [revision.number for revision in self.revisions]
        if numbers != sorted(set(numbers)):
            raise ValueError("revisions rise by number, each once")
        for sitting in self.sittings:
            if sitting.revision not in numbers:
                raise ValueError(f"a sitting drew revision {sitting.revision}, which is not there")
        return self


_JobFolder = Annotated[str, Field(pattern=r"^jobs/\d{1,12}$")]


class _RegisterFile(BaseModel):
    model_config = ConfigDict(defer_build=True)

    entrick: int
    jobs: Annotated[
        list[Annotated[str, Field(pattern=r"^jobs/\d{1,12}$")]], Field(max_length=MOST_JOBS)
    ]
    kits: Annotated[list[_KitFile], Field(max_length=MOST_KITS * 20)] = []
    people: Annotated[list[_PersonFile], Field(max_length=MOST_PEOPLE)] = []


class Files(Protocol):
    """Files by name: a folder, or a zip."""

    def write(self, name: str, data: bytes) -> None:
        """Write a file."""

    def read(self, name: str) -> bytes:
        """Read a file; `KeyError` where there is none."""


@dataclass(frozen=True, slots=True)
class Folder:
    """Files in a folder of the disk, for their owner alone."""

    root: Path

    def write(self, name: str, data: bytes) -> None:
        """Write a file, and the folder it is in."""
        path = self.root / name
        path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
        path.write_bytes(data)
        path.chmod(0o600)

    def read(self, name: str) -> bytes:
        """Read a file."""
        path = self.root / name
        try:
            if path.stat().st_size > LARGEST_JSON:
                raise ArchiveError(f"{name} is too large to belong to a register")
            return path.read_bytes()
        except OSError as error:
            raise KeyError(name) from error


@dataclass(frozen=True, slots=True)
class Zip:
    """Files in a zip."""

    file: zipfile.ZipFile

    def write(self, name: str, data: bytes) -> None:
        """Write a file."""
        self.file.writestr(name, data)

    def read(self, name: str) -> bytes:
        """Read a file, as far as it is not larger than anything of a register is: what it says of
        its own size is not believed."""
        try:
            with self.file.open(name) as stream:
                data = stream.read(LARGEST_JSON + 1)
        except (*DAMAGED, OSError) as error:
            raise ArchiveError(f"{name} is damaged: {error}") from error
        except RuntimeError as error:
            raise ArchiveError(f"{name} is locked with a password") from error
        if len(data) > LARGEST_JSON:
            raise ArchiveError(f"{name} is too large to belong to a register")
        return data


def _never(_: int, __: int) -> None:
    return None


def export_register(store: Store, files: Files, told: Told = _never) -> int:
    """Write every job with its history; return how many."""
    with store.reading() as session:
        jobs = session.scalars(select(Job).order_by(Job.id)).all()
        for done, job in enumerate(jobs, 1):
            _export(job, session, files)
            told(done, len(jobs))
        _export_head(session, files, jobs, everybody(session, left=True))
        return len(jobs)


def export_person(store: Store, files: Files, person_id: int) -> None:
    """Write what is somebody's own: their jobs, what they drew at the board, kits, answers of
    practice, sets for a class. All but the answers and the sets is taken in again as a register.

    Raises
    ------
    UnknownPerson
    """
    with store.reading() as session:
        person = one_person(session, person_id)
        drawn = select(SittingRow.job_id).where(SittingRow.person_id == person_id)
        own = select(Job).where(or_(Job.person_id == person_id, Job.id.in_(drawn)))
        jobs = session.scalars(own.order_by(Job.id)).all()
        for job in jobs:
            _export(job, session, files, person_id)
        _export_head(session, files, jobs, everybody(session, left=True), person_id)
        answers = [
            {**asdict(answer), "at": answer.at.isoformat()}
            for answer in list_answers(session, person_id)
        ]
        files.write("practice.json", _json({"person": person.told, "answers": answers}))
        for each in list_sets(session, person_id):
            files.write(f"sets/{each.id:06}.json", set_text(session, each.id).encode())
            marks = [
                {
                    "student": mark.student,
                    "name": mark.name,
                    "marked_at": mark.marked_at.isoformat(),
                    "answers": list(mark.answers),
                }
                for mark in marks_of(session, each.id)
            ]
            files.write(f"sets/{each.id:06}-marks.json", _json(marks))


def _export_head(
    session: Session,
    files: Files,
    jobs: Sequence[Job],
    people: Sequence[Person],
    only: int | None = None,
) -> None:
    kits = [
        asdict(kit) | {"whose": person.id}
        for person in people
        if only in (None, person.id)
        for kit in list_kits(session, person.id)
    ]
    said = {
        "entrick": VERSION,
        "jobs": [_folder(job.id) for job in jobs],
        "kits": kits,
        "people": [
            {
                "id": person.id,
                "name": person.name,
                "initials": person.initials,
                "role": person.role,
                "left": person.left,
            }
            for person in people
        ],
    }
    files.write("register.json", _json(said))


def _folder(job_id: int) -> str:
    return f"jobs/{job_id:06}"


def _export(job: Job, session: Session, files: Files, only: int | None = None) -> None:
    revisions = session.scalars(
        select(Revision).where(Revision.job_id == job.id).order_by(Revision.number)
    ).all()
    signed = signatures(session, job.id)
    said: dict[str, Any] = {
        "id": job.id,
        "whose": job.person_id or EVERYBODY,
        "created_at": job.created_at.isoformat(),
        "archived_at": job.archived_at.isoformat() if job.archived_at else None,
        "revisions": [
            {
                "number": revision.number,
                "based_on": revision.based_on,
                "note": revision.note,
                "saved_at": revision.saved_at.isoformat(),
                "file": f"revision-{revision.number:04}.entrick",
                "by": revision.person_id,
                "signatures": [
                    {"signed_as": each.signed_as, "by": each.who, "at": each.at.isoformat()}
                    for each in signed
                    if each.number == revision.number
                ],
            }
            for revision in revisions
        ],
        **order_of(session, job.id).model_dump(),
        "sittings": [
            {
                "uid": sitting.uid,
                "whose": sitting.whose,
                "revision": sitting.revision,
                "schedule": sitting.schedule,
                "kit": sitting.kit,
                "started_at": sitting.started_at.isoformat(),
                "rehearsed": sitting.rehearsed,
                "events": [asdict(event) for event in sitting.events],
            }
            for sitting in reversed(list_sittings(session, job.id, whose=only))
        ],
    }
    for revision in revisions:
        files.write(
            f"{_folder(job.id)}/revision-{revision.number:04}.entrick", revision.text.encode()
        )
    files.write(f"{_folder(job.id)}/job.json", _json(said))


def _json(said: object) -> bytes:
    return (json.dumps(said, ensure_ascii=False, indent=1) + "\n").encode()


@dataclass(frozen=True, slots=True)
class Imported:
    """How many jobs came in, and how many were there already."""

    jobs: int
    known: int


def import_register(store: Store, files: Files, told: Told = _never, by: int = FIRST) -> Imported:
    """Enter every job of an exported register, all or none.

    A job keeps its number where that is free; one that is there already, revision for revision, is
    left alone; one whose number belongs to another job gets a new number. People are known by name
    and initials; whoever is not there yet comes in without a PIN. Where nobody is named, all
    belongs to whoever takes it in.

    Raises
    ------
    ArchiveError
        For files that are no register; nothing is entered then.
    """
    head = _read(files, "register.json", _RegisterFile)
    if head.entrick not in READ:
        raise ArchiveError(
            f"register.json is of version {head.entrick}; this desk reads version {VERSION}"
        )
    entered = known = size = 0
    with store.writing() as session:
        people = _people(session, head.people, by)
        for done, folder in enumerate(head.jobs, 1):
            job = _read(files, f"{folder}/job.json", _JobFile)
            texts = list(_texts(files, folder, job))
            size += sum(map(len, texts))
            if size > MOST_BYTES:
                raise ArchiveError("this register is larger than can be taken in at once")
            if _is_known(session, job, texts):
                known += 1
            else:
                _enter(session, job, texts, people)
                entered += 1
            told(done, len(head.jobs))
        own = {who: {kit.name for kit in list_kits(session, who)} for who in people.values()}
        for kit in head.kits:
            whose = people[kit.whose]
            # A kit that is here already under that name stays as it is, and so does the usual one.
            if kit.name not in own[whose]:
                put_kit(session, kit.name, kit.text, kit.usual and not own[whose], whose)
    return Imported(entered, known)


class _Known(dict[int, int]):
    """Numbers of people here by their numbers there; of whom nothing is said it is whoever takes
    them in."""

    def __init__(self, by: int) -> None:
        super().__init__({by: by})
        self.by = by

    def __missing__(self, _: int) -> int:
        return self.by


def _people(session: Session, came: Sequence[_PersonFile], by: int) -> dict[int, int]:
    """Return the number of everybody who came, and let in whoever is not there yet."""
    known = _Known(by)
    there = everybody(session, left=True)
    first = one_person(session, by)
    for each in came:
        alike = [p for p in there if (p.name, p.initials) == (each.name, each.initials)]
        if not each.name and not each.left:
            known[each.id] = by
        elif alike:
            known[each.id] = alike[0].id
        elif not first.name and not each.left and each.role == "runs":
            # A desk that nobody has named anybody at is the one it is moved to.
            first = change_person(session, by, each.name, each.initials)
            known[each.id] = by
        else:
            known[each.id] = come_in(session, each.name, each.initials, each.role, each.left).id
    return known


def _read(files: Files, name: str, model: type[T]) -> T:
    try:
        return model.model_validate_json(files.read(name))
    except KeyError as error:
        raise ArchiveError(
            f"there is no {name}: this is no register, or not a whole one"
        ) from error
    except ValidationError as error:
        first = error.errors()[0]
        raise ArchiveError(f"{name}: {'.'.join(map(str, first['loc']))}: {first['msg']}") from error


def _texts(files: Files, folder: str, job: _JobFile) -> Iterator[str]:
    for revision in job.revisions:
        name = f"{folder}/{revision.file}"
        try:
            text = files.read(name).decode("utf-8")
        except KeyError as error:
            raise ArchiveError(f"there is no {name}: this register is not whole") from error
        except UnicodeDecodeError as error:
            raise ArchiveError(f"{name} is not UTF-8 text") from error
        if len(text) > MOST_CHARACTERS:
            raise ArchiveError(f"{name} is longer than a plan may be")
        yield text


def _is_known(session: Session, job: _JobFile, texts: list[str]) -> bool:
    rows = session.scalars(
        select(Revision).where(Revision.job_id == job.id).order_by(Revision.number)
    ).all()
    there = [(row.number, row.text, row.saved_at) for row in rows]
    return there == [
        (r.number, text, r.saved_at) for r, text in zip(job.revisions, texts, strict=True)
    ]


def _enter(session: Session, job: _JobFile, texts: list[str], people: Mapping[int, int]) -> None:
    taken = session.get(Job, job.id) is not None
    number = (session.scalar(select(func.max(Job.id))) or 0) + 1 if taken else job.id
    row = Job(
        id=number,
        created_at=_utc(job.created_at),
        archived_at=_utc(job.archived_at),
        person_id=people[job.whose] if job.whose else None,
    )
    session.add(row)
    session.flush()
    newest = None
    for revision, text in zip(job.revisions, texts, strict=True):
        newest = add_revision(
            session,
            number,
            revision.number,
            revision.based_on,
            text,
            revision.note,
            _utc(revision.saved_at),
            people[revision.by],
        )
        given = [
            Signature(revision.number, each.signed_as, people[each.by], _utc(each.at))
            for each in revision.signatures
        ]
        keep_signatures(session, number, given)
    assert newest is not None
    put_summary(session, row, newest, None)
    if job.schedule != "written" or job.kit:
        set_order(session, number, schedule=job.schedule, kit=job.kit)
    uids = [sitting.uid for sitting in job.sittings]
    known = set(session.scalars(select(SittingRow.uid).where(SittingRow.uid.in_(uids))))
    for sitting in job.sittings:
        # Its own in the job it comes with, whatever another job has under that name.
        uid = uuid.uuid4().hex if sitting.uid in known else sitting.uid
        begin(
            session,
            uid,
            number,
            sitting.revision,
            sitting.schedule,
            _utc(sitting.started_at),
            sitting.rehearsed,
            sitting.kit,
            people[sitting.whose],
        )
        append(session, uid, [Event(**event.model_dump()) for event in sitting.events])


def _utc(moment: D) -> D:
    if moment is None or moment.tzinfo is None:
        return moment
    return moment.astimezone(UTC)


def opened_zip(file: Any) -> AbstractContextManager[zipfile.ZipFile]:
    """Open a zip for reading.

    Raises
    ------
    ArchiveError
        Where it is none.
    """
    try:
        return zipfile.ZipFile(file)
    except DAMAGED as error:
        raise ArchiveError("this file is no zip") from error
