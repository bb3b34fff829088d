"""Sittings through the API: begun, appended once, removed and put back; measured values; carried in the register."""

import csv
import io
import re
import zipfile
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient
from hypothesis import given
from hypothesis import strategies as st

from entrick.core.board.kits import STARTERS, as_said, write_kit
from entrick.core.logbook.learning import learn
from entrick.core.logbook.sitting import Sitting
from entrick.core.measure import Unit
from entrick.core.summarize import summarize
from entrick.demo.jobs import load
from entrick.demo.sittings import BIAS, SITTINGS, load_sittings
from entrick.store import (
    Folder,
    Store,
    Zip,
    add_job,
    export_register,
    import_register,
    list_kits,
    list_sittings,
    order_of,
)
from entrick.store import begin as begin_sitting
from registers import fresh_store

UID = "0123456789abcdef"
PLAN = "units mm\nsheet A3, scale 1:2\nO = datum\nc = circle, centre O, radius 44\n"


@pytest.fixture
def job(client: FlaskClient) -> int:
    answer = client.post("/api/jobs", json={"text": PLAN})
    assert answer.json is not None
    return int(answer.json["id"])


def begin(client: FlaskClient, job: int, uid: str = UID) -> None:
    answer = client.post("/api/sittings", json={"uid": uid, "job": job, "revision": 1})
    assert answer.status_code == 201, answer.text


def done(number: int, step: int = 0, seconds: float = 30.0) -> dict[str, object]:
    return {"number": number, "kind": "done", "step": step, "tool": "compass", "seconds": seconds}


def test_events_are_taken_once_however_often_they_are_sent(client: FlaskClient, job: int) -> None:
    begin(client, job)
    begin(client, job)
    for events in ([done(1)], [done(1), done(2, 1)], [done(2, 1)]):
        answer = client.post(f"/api/sittings/{UID}/events", json={"events": events})
        assert answer.status_code == 200
    assert answer.json is not None
    assert [event["number"] for event in answer.json["events"]] == [1, 2]
    book = client.get("/api/logbook").json
    assert book is not None
    assert len(book["sittings"]) == 1
    assert book["pace"] == [{"tool": "compass", "seconds": 30.0, "count": 2}]


def moments(told: object) -> Iterator[str]:
    """Return every time in an answer."""
    if isinstance(told, dict):
        for key, value in told.items():
            if key.endswith("_at") or key == "due":
                yield value
            else:
                yield from moments(value)
    elif isinstance(told, list):
        for each in told:
            yield from moments(each)


def test_every_time_says_its_zone_or_whoever_is_elsewhere_reads_another_hour(
    client: FlaskClient, job: int
) -> None:
    before = datetime.now(UTC)
    begun = client.post("/api/sittings", json={"uid": UID, "job": job, "revision": 1}).json
    addresses = ("/api/logbook", "/api/jobs", f"/api/jobs/{job}", f"/api/jobs/{job}/revisions")
    for answer in (begun, *(client.get(address).json for address in addresses)):
        told = list(moments(answer))
        assert told
        assert all(datetime.fromisoformat(each).utcoffset() == timedelta(0) for each in told)
    assert before <= datetime.fromisoformat(begun["started_at"]) <= datetime.now(UTC)  # type: ignore[index]


@given(st.datetimes(datetime(1990, 1, 1), datetime(2090, 1, 1), timezones=st.timezones()))
def test_a_time_of_any_zone_is_kept_as_the_same_moment(store: Store, when: datetime) -> None:
    with store.writing() as session:
        job = add_job(session, PLAN)
        begin_sitting(session, f"{job.id:08}", job.id, 1, "written", when)
    with store.reading() as session:
        (kept,) = list_sittings(session, job.id)
    assert kept.started_at.utcoffset() == timedelta(0)
    assert kept.started_at == when.astimezone(UTC)


def test_another_event_under_a_number_that_is_taken_is_refused_and_both_stay(
    client: FlaskClient, job: int
) -> None:
    begin(client, job)
    client.post(f"/api/sittings/{UID}/events", json={"events": [done(1)]})
    answer = client.post(f"/api/sittings/{UID}/events", json={"events": [done(1, 5), done(2)]})
    assert answer.status_code == 409
    assert answer.json is not None
    assert "another device" in answer.json["detail"]
    book = client.get("/api/logbook").json
    assert book is not None
    assert [event["step"] for event in book["sittings"][0]["events"]] == [0], (
        "nothing of it is taken"
    )


@given(st.lists(st.lists(st.integers(1, 12), max_size=6), max_size=8))
def test_whatever_is_sent_again_and_out_of_order_comes_to_the_same(
    client: FlaskClient, batches: list[list[int]]
) -> None:
    job = client.post("/api/jobs", json={"text": PLAN}).json["id"]  # type: ignore[index]
    uid = f"{job:016x}"
    begin(client, job, uid)
    for batch in batches:
        client.post(f"/api/sittings/{uid}/events", json={"events": [done(n, n) for n in batch]})
    found = next(s for s in client.get("/api/logbook").json["sittings"] if s["uid"] == uid)  # type: ignore[index]
    assert [event["number"] for event in found["events"]] == sorted(
        {n for batch in batches for n in batch}
    )


def test_a_sitting_is_taken_out_and_put_back(client: FlaskClient, job: int) -> None:
    begin(client, job)
    client.post(f"/api/sittings/{UID}/events", json={"events": [done(1)]})
    for removed, count in ((True, 0), (False, 1)):
        assert client.patch(f"/api/sittings/{UID}", json={"removed": removed}).status_code == 200
        book = client.get("/api/logbook").json
        assert book is not None
        assert len(book["pace"]) == count
        assert book["sittings"][0]["removed"] == removed


@pytest.mark.parametrize(
    ("value", "judged", "words"),
    [
        ("44", "line", "within the line"),
        ("44 mm", "line", "within"),
        ("22", "line", "that is the radius, and right"),
        ("88", "slip", "the diameter was set"),
        ("3 15/32 in", "slip", "the diameter was set"),
    ],
)
def test_a_value_is_judged_as_a_drafter_writes_it(
    client: FlaskClient, value: str, judged: str, words: str
) -> None:
    step = next(
        s for s in client.post("/api/work", json={"text": PLAN}).json["steps"] if s["name"] == "c"
    )  # type: ignore[index]
    answer = client.post(
        "/api/measured", json={"text": PLAN, "step": step["number"], "value": value}
    )
    assert answer.status_code == 200, answer.text
    assert answer.json is not None
    assert answer.json["judged"] == judged
    assert words in " ".join([answer.json["told"], *answer.json["slips"]])


@pytest.mark.parametrize("value", ["", "wide", "3 1/", '2 "note"', "1; DROP"])
def test_what_is_no_value_is_refused_in_words(client: FlaskClient, value: str) -> None:
    answer = client.post("/api/measured", json={"text": PLAN, "step": 5, "value": value})
    assert answer.status_code == 409
    assert answer.json is not None
    assert answer.json["detail"]


def test_the_order_of_the_steps_is_kept_with_the_job(client: FlaskClient, job: int) -> None:
    assert client.get(f"/api/jobs/{job}").json["schedule"] == "written"  # type: ignore[index]
    assert client.put(f"/api/jobs/{job}/schedule", json={"schedule": "clean"}).status_code == 200
    assert client.get(f"/api/jobs/{job}").json["schedule"] == "clean"  # type: ignore[index]
    assert client.put(f"/api/jobs/{job}/schedule", json={"schedule": "fast"}).status_code == 422
    assert client.put("/api/jobs/999/schedule", json={"schedule": "clean"}).status_code == 404


def test_sittings_and_orders_are_part_of_the_register_taken_away_and_in(
    client: FlaskClient, job: int, store: Store, tmp_path
) -> None:  # type: ignore[no-untyped-def]
    begin(client, job)
    client.post(
        f"/api/sittings/{UID}/events",
        json={"events": [done(1), {"number": 2, "kind": "note", "text": "blunt"}]},
    )
    client.put(f"/api/jobs/{job}/schedule", json={"schedule": "settings"})
    kept = io.BytesIO()
    with zipfile.ZipFile(kept, "w") as file:
        export_register(store, Zip(file))
    other = fresh_store(tmp_path / "other.db")
    with zipfile.ZipFile(kept) as file:
        import_register(other, Zip(file))
    with store.reading() as here, other.reading() as there:
        assert [s.events for s in list_sittings(here)] == [s.events for s in list_sittings(there)]
        assert order_of(there, job).schedule == "settings"
    other.close()


def test_the_run_sheet_has_a_row_for_every_step_and_sums_the_settings_up(
    client: FlaskClient,
) -> None:
    from pypdf import PdfReader

    for paper, tall in (("A4", 842), ("letter", 792)):
        answer = client.post("/api/export/run-sheet", json={"text": PLAN, "paper": paper})
        assert answer.status_code == 200
        pages = PdfReader(io.BytesIO(answer.data)).pages
        assert round(float(pages[0].mediabox.height)) == tall
        told = " ".join(page.extract_text() for page in pages)
        assert "What is set, instrument by instrument" in told
        assert "Needle points and knives cut" in told
        around = client.post("/api/around", json={"text": PLAN}).json
        steps = client.post("/api/work", json={"text": PLAN}).json["steps"]  # type: ignore[index]
        assert around is not None
        assert str(len(around["ready"]) + len(steps) + len(around["finish"])) in told


def test_the_logbook_goes_out_as_csv_without_what_was_taken_back(
    client: FlaskClient, job: int
) -> None:
    begin(client, job)
    events = [
        done(1),
        {"number": 2, "kind": "slip", "text": '=cmd, "wide"'},
        {"number": 3, "kind": "undone", "of": 1},
    ]
    client.post(f"/api/sittings/{UID}/events", json={"events": events})
    rows = list(csv.DictReader(io.StringIO(client.get("/api/logbook.csv").text)))
    assert [(row["number"], row["text"]) for row in rows] == [("2", '\'=cmd, "wide"')]


def test_the_made_up_sittings_say_so_and_teach_the_bias_they_were_made_with(store: Store) -> None:
    load(store, summarize)
    assert load_sittings(store) == SITTINGS
    assert load_sittings(store) == 0
    with store.reading() as session:
        found = list_sittings(session)
    assert all(sitting.rehearsed for sitting in found)
    learnt = learn(Sitting(s.job, s.revision, s.events, s.rehearsed) for s in found)
    compass = next(spread for spread in learnt.spreads if spread.tool == "compass")
    assert abs(compass.bias - BIAS["compass"]) <= 2 * compass.bias_off
    assert "set a hair under" in compass.hint(Unit.MM)
    assert learnt.slips


def test_an_event_is_corrected_taken_out_and_that_undone(client: FlaskClient, job: int) -> None:
    begin(client, job)
    events = [done(1), done(2, 1), {"number": 3, "kind": "closed", "off": 0.4}]
    assert client.post(f"/api/sittings/{UID}/events", json={"events": events}).status_code == 200

    def amended(**said: object) -> dict[str, Any]:
        answer = client.post(f"/api/sittings/{UID}/amendments", json=said)
        assert answer.status_code == 200, answer.text
        return answer.json or {}

    found = amended(of=1, kind="corrected", seconds=90.0)
    assert [event["seconds"] for event in found["standing"]] == [90.0, 30.0, 0.0]
    assert (found["minutes"], found["gap"]) == (2.0, 0.4)
    assert [event["seconds"] for event in found["events"]][:2] == [30.0, 30.0], (
        "what was recorded stays"
    )
    found = amended(of=2, kind="undone")
    assert [event["number"] for event in found["standing"]] == [1, 3]
    found = amended(of=5, kind="undone")
    assert [event["number"] for event in found["standing"]] == [1, 2, 3]
    assert (
        client.post(
            f"/api/sittings/{UID}/amendments", json={"of": 99, "kind": "undone"}
        ).status_code
        == 404
    )
    assert (
        client.post(
            "/api/sittings/ffffffffffff/amendments", json={"of": 1, "kind": "undone"}
        ).status_code
        == 404
    )


def test_what_the_logbook_knows_changes_minutes_and_hand_and_is_said(
    client: FlaskClient, job: int
) -> None:
    def told() -> tuple[str, str, float]:
        orders, hands = (
            client.post(f"/api/{what}", json={"text": PLAN}).json
            for what in ("schedules", "rehearsal")
        )
        assert orders is not None
        assert hands is not None
        return orders["told"], hands["whose"], orders["schedules"][0]["minutes"]

    guess = told()
    assert guess[0] == "minutes are guesses"
    assert guess[1] == "The errors of the hand are common practice, no source."
    begin(client, job)
    events = [done(n, n, 600.0) for n in range(1, 9)]
    events += [
        {"number": n, "kind": "measured", "tool": "compass", "off": 0.1 * (n % 4)}
        for n in range(9, 20)
    ]
    assert client.post(f"/api/sittings/{UID}/events", json={"events": events}).status_code == 200
    own = told()
    assert own[0] == "minutes by 8 steps of the logbook"
    assert "compass (11 values)" in own[1]
    assert own[2] > guess[2] + 8
    client.patch(f"/api/sittings/{UID}", json={"removed": True})
    assert told() == guess


def test_a_job_names_its_kit_and_takes_it_along(
    client: FlaskClient, job: int, store: Store, tmp_path: Path
) -> None:
    bare = write_kit(STARTERS["bare"])
    assert client.put("/api/kits/the yard", json={"text": bare, "usual": True}).status_code == 200
    assert client.put(f"/api/jobs/{job}/kit", json={"kit": "nobody's"}).status_code == 409
    assert client.put(f"/api/jobs/{job}/kit", json={"kit": "the yard"}).status_code == 200
    assert client.put(f"/api/jobs/{job}/schedule", json={"schedule": "clean"}).status_code == 200
    shown = client.get(f"/api/jobs/{job}").json
    assert shown is not None
    assert (shown["kit"], shown["schedule"]) == ("the yard", "clean")
    client.post("/api/sittings", json={"uid": UID, "job": job, "revision": 1, "kit": "the yard"})
    export_register(store, Folder(tmp_path / "out"))
    other = fresh_store(tmp_path / "other.db")
    import_register(other, Folder(tmp_path / "out"))
    with other.reading() as session:
        assert order_of(session, job).kit == "the yard"
        assert [sitting.kit for sitting in list_sittings(session)] == ["the yard"]
        assert [(kit.name, kit.text, kit.usual) for kit in list_kits(session)] == [
            ("the yard", bare, True)
        ]
    assert client.put(f"/api/jobs/{job}/kit", json={"kit": ""}).status_code == 200


def test_every_item_of_a_kit_has_its_picture(client: FlaskClient) -> None:
    answer = client.get("/api/kits").json
    assert answer is not None
    for item in answer["items"]:
        picture = client.get(item["picture"])
        assert picture.status_code == 200
        assert "<svg" in picture.text
        assert len(re.findall(r"[ML]-?\d|<line|<circle", picture.text)) > 5, item["key"]
    assert client.get("/api/pictures/instrument.svg?item=anvil").status_code == 404
    assert {item["key"] for item in answer["items"]} == set(as_said(STARTERS["bare"]))
