"""Jobs and revisions: nothing saved is lost, nothing stale overwrites."""

import sqlite3
import threading
from pathlib import Path

import pytest
from flask.testing import FlaskClient
from sqlalchemy import text as sql
from sqlalchemy.exc import IntegrityError

from entrick.core.summarize import summarize
from entrick.demo import sample_plans
from entrick.demo.jobs import load
from entrick.store import StaleSave, Store, add_job, list_jobs, one_job, open_store, save_revision
from entrick.store.models import Revision


def test_the_register_lists_the_samples_with_what_stands_in_their_plans(
    client: FlaskClient,
) -> None:
    jobs = client.get("/api/jobs").json["jobs"]  # type: ignore[index]
    assert {(j["drawing"], j["title"], j["unit"], j["scale"], j["revision"]) for j in jobs} >= {
        ("OY-014", "Paddle pawl link", "mm", "1:2", 1),
        ("OY-027", "Latch plate", "in", "1:1", 1),
        ("OY-044", "Pump gasket", "in", "1:1", 1),
    }
    assert len(jobs) == len(sample_plans())
    assert all(j["mistakes"] == 0 and j["outlines"] >= 1 for j in jobs)


def test_thumbnails_show_the_outline(client: FlaskClient) -> None:
    answer = client.get("/api/jobs/1/thumbnail.svg")
    assert answer.mimetype == "image/svg+xml"
    assert (
        answer.text.count("<path") + answer.text.count("<circle") + answer.text.count("<line") >= 6
    )


def test_new_copied_opened_and_archived(client: FlaskClient) -> None:
    blank = client.post("/api/jobs", json={})
    assert blank.status_code == 201
    assert blank.json["title"] == "Untitled"  # type: ignore[index]
    copy = client.post("/api/jobs", json={"copy_of": 1}).json
    original = client.get("/api/jobs/1").json["newest"]["text"]  # type: ignore[index]
    copied = client.get(f"/api/jobs/{copy['id']}").json["newest"]["text"]  # type: ignore[index]
    assert copied == original.replace("drawing OY-075", f"drawing {copy['drawing']}")
    assert (copy["drawing"], copy["double"]) == ("OY-077", False)
    opened = client.post(
        "/api/jobs", json={"text": 'plan "From disk"\nO=datum\n', "note": "opened from a file"}
    ).json
    assert (
        client.get(f"/api/jobs/{opened['id']}").json["newest"]["text"]
        == 'plan "From disk"\nO = datum\n'
    )  # type: ignore[index]
    assert client.patch(f"/api/jobs/{opened['id']}", json={"archived": True}).json["archived"]  # type: ignore[index]
    ids = {j["id"] for j in client.get("/api/jobs").json["jobs"]}  # type: ignore[index]
    assert opened["id"] not in ids
    assert [j["id"] for j in client.get("/api/jobs?archived=true").json["jobs"]] == [opened["id"]]  # type: ignore[index]
    client.patch(f"/api/jobs/{opened['id']}", json={"archived": False})
    assert client.get("/api/jobs?archived=true").json["jobs"] == []  # type: ignore[index]


def test_saving_makes_revisions_and_a_stale_save_is_refused_with_both_versions(
    client: FlaskClient,
) -> None:
    first = client.get("/api/jobs/1").json["newest"]  # type: ignore[index]
    mine, theirs = first["text"] + "# mine\n", first["text"] + "# theirs\n"
    saved = client.post(
        "/api/jobs/1/revisions", json={"text": theirs, "based_on": 1, "note": "first"}
    )
    assert saved.status_code == 201
    assert saved.json["number"] == 2  # type: ignore[index]
    refused = client.post("/api/jobs/1/revisions", json={"text": mine, "based_on": 1})
    assert refused.status_code == 409
    assert refused.mimetype == "application/problem+json"
    assert refused.json["newest"]["text"] == theirs  # type: ignore[index]
    assert (
        client.post("/api/jobs/1/revisions", json={"text": mine, "based_on": 2}).json["number"] == 3
    )  # type: ignore[index]
    history = client.get("/api/jobs/1/revisions").json["revisions"]  # type: ignore[index]
    assert [(r["number"], r["based_on"]) for r in history] == [(3, 2), (2, 1), (1, None)]
    assert client.get("/api/jobs/1/revisions/1").json["text"] == first["text"]  # type: ignore[index]


def test_what_is_not_there_is_said(client: FlaskClient) -> None:
    for answer in (
        client.get("/api/jobs/99"),
        client.get("/api/jobs/99/revisions"),
        client.get("/api/jobs/1/revisions/9"),
        client.patch("/api/jobs/99", json={"archived": True}),
        client.post("/api/jobs", json={"copy_of": 99}),
        client.post("/api/jobs/99/revisions", json={"text": "", "based_on": 1}),
        client.get("/api/nothing"),
    ):
        assert answer.status_code == 404
        assert answer.mimetype == "application/problem+json"
        assert answer.json["title"]  # type: ignore[index]


def test_saved_work_outlives_the_server(tmp_path: Path) -> None:
    path = tmp_path / "deep" / "register.db"
    with open_store(path).writing() as session:
        job = add_job(session, "O = datum\n")
        save_revision(session, job.id, "O = datum\n# second\n", 1)
    again = open_store(path)
    with again.reading() as session:
        assert one_job(session, job.id).newest.number == 2
    assert load(again, summarize) == 0, "a register with work in it gets no samples"


def test_a_failed_save_leaves_nothing_behind(store: Store) -> None:
    with store.writing() as session:
        job = add_job(session, "O = datum\n")

    def fail_half_way() -> None:
        with store.writing() as session:
            save_revision(session, job.id, "half done", 1)
            raise RuntimeError("the power fails")

    with pytest.raises(RuntimeError):
        fail_half_way()
    with store.reading() as session:
        assert one_job(session, job.id).newest.number == 1


def test_of_many_saves_at_once_on_one_revision_exactly_one_is_taken(store: Store) -> None:
    with store.writing() as session:
        job = add_job(session, "O = datum\n")
    outcomes: list[str] = []
    gate = threading.Barrier(6)

    def save(number: int) -> None:
        gate.wait()
        try:
            with store.writing() as session:
                save_revision(session, job.id, f"# {number}\n", 1)
            outcomes.append("saved")
        except StaleSave:
            outcomes.append("stale")

    threads = [threading.Thread(target=save, args=(n,)) for n in range(6)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert sorted(outcomes) == ["saved"] + ["stale"] * 5


@pytest.mark.file_only
def test_the_database_keeps_its_own_rules(store: Store, tmp_path: Path) -> None:
    with store.reading() as session:
        assert session.scalar(sql("PRAGMA journal_mode")) == "wal"
        assert session.scalar(sql("PRAGMA foreign_keys")) == 1
        assert session.scalar(sql("SELECT version_num FROM alembic_version")) == "0009"
    with pytest.raises(IntegrityError), store.writing() as session:
        session.execute(
            sql(
                "INSERT INTO revision (job_id, number, text, note, saved_at) VALUES (77, 1, '', '', '2026-01-01')"
            )
        )
    with store.writing() as session:
        add_job(session, "O = datum\n")
    with pytest.raises(IntegrityError), store.writing() as session:
        session.execute(
            Revision.__table__.insert().values(job_id=1, number=1, text="", note="", saved_at=None)
        )
    assert sqlite3.connect(tmp_path / "register.db").execute(
        "PRAGMA integrity_check"
    ).fetchone() == ("ok",)


def test_samples_come_in_by_the_same_door_as_a_users_plan(store: Store) -> None:
    assert load(store, summarize) == len(sample_plans()) >= 10
    with store.reading() as session:
        found = [one_job(session, job.id).newest for job in list_jobs(session, size=200).jobs]
        assert {newest.text for newest in found} == set(sample_plans().values())
        assert all(newest.note.startswith("opened from") for newest in found)
