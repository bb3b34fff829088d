"""Registers of every version open, with everything in them, and all of it belongs to the first person."""

from contextlib import closing
from pathlib import Path

import pytest

from entrick.store import (
    list_answers,
    list_jobs,
    list_kits,
    list_sets,
    list_sittings,
    one_job,
    open_store,
    salvage,
)
from entrick.store.models import FIRST
from entrick.store.people import everybody
from entrick.store.soundness import examine, known_versions
from older_register import TEXT, older_register


@pytest.mark.parametrize("version", known_versions()[:-1])
def test_a_register_of_an_older_version_opens_with_everything_and_belongs_to_the_first(
    tmp_path: Path, version: str
) -> None:
    path = tmp_path / "register.db"
    older_register(path, version)
    assert examine(path) == version
    with closing(open_store(path)) as store, store.reading() as session:
        assert [job.pending for job in list_jobs(session).jobs] == [True]
        job = one_job(session, 4)
        assert (job.newest.text, job.whose, job.newest.saved_by) == (TEXT, FIRST, FIRST)
        assert [(person.id, person.name, person.role) for person in everybody(session)] == [
            (FIRST, "", "runs")
        ]
        assert [each.whose for each in list_sittings(session)] == [FIRST] * (version >= "0004")
        assert [each.whose for each in list_answers(session)] == [FIRST] * (version >= "0005")
        assert [each.name for each in list_kits(session)] == ["own"] * (version >= "0003")
        assert [each.whose for each in list_sets(session)] == [FIRST] * (version >= "0007")
    assert examine(path) == known_versions()[-1]
    open_store(path).close()


def test_a_damaged_register_of_the_version_before_people_is_salvaged(tmp_path: Path) -> None:
    path = tmp_path / "register.db"
    older_register(path, "0008")
    data = bytearray(path.read_bytes())
    data[100:108] = b"\xff" * 8  # what holds the tables together
    path.write_bytes(data)
    store, saved = salvage(path)
    with closing(store), store.reading() as session:
        assert one_job(session, 4).newest.text == TEXT
        assert [each.whose for each in list_sittings(session)] == [FIRST]
        assert [each.name for each in list_kits(session)] == ["own"]
    assert saved.came["practice_answer"] == saved.came["class_set"] == 1
