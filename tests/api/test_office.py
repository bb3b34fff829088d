"""Who may see and do what: every operation of the register as every role, as nobody, and as somebody taken out."""

import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient
from sqlalchemy import text as sql

from entrick.core.office import DEEDS, EVERYBODY, NOBODY, may
from entrick.store import (
    Folder,
    Store,
    everybody,
    export_register,
    import_register,
    list_jobs,
    list_kits,
    list_sittings,
    open_store,
    salvage,
    set_secret,
    sign,
    signatures,
    take_out,
)
from entrick.store.doors import TRIES
from entrick.web import operations as worked_out
from entrick.web import register
from entrick.web.http.app import create_app
from entrick.web.http.pairing import COOKIE, Pairing
from entrick.web.http.proxy import Proxy
from entrick.web.operation import Operation
from entrick.web.secrets import hashed
from office import (
    ANYBODYS,
    CHECKS,
    DRAWS,
    OTHER,
    PLAN,
    ROLES,
    RUNS,
    at_the_desk,
    browser_at,
    office,
    uid,
)
from registers import fresh_store

KEY = "0" * 32
TEXT = PLAN.format(who=7)
JOB_OF = {RUNS: 1, DRAWS: 2, CHECKS: 3, OTHER: 4, EVERYBODY: 5}

SENT: dict[str, tuple[dict[str, str], Any]] = {
    "list_jobs": ({}, None),
    "enter_job": ({}, {"text": TEXT}),
    "next_number": ({}, None),
    "open_job": ({"job_id": "job"}, None),
    "set_kit": ({"job_id": "job"}, {"kit": ""}),
    "set_schedule": ({"job_id": "job"}, {"schedule": "clean"}),
    "archive_job": ({"job_id": "job"}, {"archived": True}),
    "hand_over": ({"job_id": "job"}, {"person": RUNS}),
    "list_revisions": ({"job_id": "job"}, None),
    "one_revision": ({"job_id": "job", "number": "1"}, None),
    "save_revision": ({"job_id": "job"}, {"text": TEXT, "based_on": 1}),
    "sign_revision": ({"job_id": "job", "number": "1"}, {"signed_as": "checked"}),
    "thumbnail": ({"job_id": "job"}, None),
    "open_logbook": ({"?person": "person"}, None),
    "logbook_csv": ({"?person": "person"}, None),
    "open_sitting": ({"uid": "uid"}, None),
    "begin_sitting": ({}, {"uid": "ffffffff", "job": 1, "revision": 1}),
    "add_events": ({"uid": "uid"}, {"events": []}),
    "amend_sitting": ({"uid": "uid"}, {"of": 1, "kind": "undone"}),
    "remove_sitting": ({"uid": "uid"}, {"removed": True}),
    "practice_record": ({"?person": "person"}, None),
    "forget_practice": ({}, None),
    "list_kits": ({}, None),
    "put_kit": ({"name": "mine"}, {"text": ""}),
    "remove_kit": ({"name": "mine"}, None),
    "list_sets": ({}, None),
    "keep_set": ({}, {"set": "{}"}),
    "open_set": ({"set_id": "set"}, None),
    "put_set_away": ({"set_id": "set"}, {"removed": True}),
    "kept_marks": ({"set_id": "set"}, None),
    "decide_mark": ({"set_id": "set"}, {"student": "a", "question": 1, "share": 1}),
    "class_weeks": ({}, None),
    "pairing": ({}, None),
    "renew_code": ({}, None),
    "send_away": ({"key": KEY}, None),
    "pairing_picture": ({}, None),
    "notice": ({}, None),
    "export_register": ({}, None),
    "import_register": ({}, None),
    "who_works_here": ({}, None),
    "say_who_works_here": ({}, {"person": RUNS}),
    "nobody_works_here": ({}, None),
    "add_person": ({}, {"name": "New", "initials": "NE"}),
    "office_devices": ({}, None),
    "week_of_all": ({}, None),
    "send_device_away": ({"key": KEY}, None),
    "change_person": ({"person_id": "person"}, {"sign": "cross"}),
    "give_role": ({"person_id": "person"}, {"role": "runs"}),
    "set_secret": ({"person_id": "person"}, {"secret": "482913"}),
    "take_person_out": ({"person_id": "person"}, None),
    "export_person": ({"person_id": "person"}, None),
}
"""What is sent to each operation: parts of its address, with `?` in front what stands behind it, and its body."""

EVERY = {operation.name: operation for operation in register.operations()}
PEOPLES = ("job", "uid", "set", "person")


def asked(
    client: FlaskClient, operation: Operation, whose: int, more: dict[str, str] | None = None
) -> int:
    """Ask for an operation on what belongs to somebody, and return the status; with something more in the query."""
    parts, body = SENT[operation.name]
    own = {"job": str(JOB_OF[whose]), "uid": uid(whose), "set": str(whose), "person": str(whose)}
    address, query = operation.address, dict(more or {})
    for name, said in parts.items():
        value = own.get(said, said)
        if name.startswith("?"):
            query[name[1:]] = value
        else:
            address = address.replace(f"<{name}>", value)
    sent: dict[str, Any] = {} if body is None else {"json": body}
    if operation.sends:
        sent = {"data": b"no zip", "content_type": operation.sends}
    answer = client.open(address, method=operation.method, query_string=query, **sent)
    answer.get_data()
    return answer.status_code


def names_somebody(operation: Operation) -> bool:
    return any(said in PEOPLES for said in SENT[operation.name][0].values())


def whose_of(operation: Operation, who: int) -> list[int]:
    """Return of whom an operation can be asked about: oneself, another, everybody's."""
    if not names_somebody(operation):
        return [who]
    others = [OTHER if who != OTHER else DRAWS]
    shared = [EVERYBODY] if "job" in SENT[operation.name][0].values() else []
    return [who, *others, *shared]


def test_every_operation_is_tried_and_every_deed_is_one_of_the_table() -> None:
    assert set(SENT) == set(EVERY)
    assert {operation.deed for operation in EVERY.values()} <= set(DEEDS)
    assert set(DEEDS) - {operation.deed for operation in EVERY.values()} == {"work things out"}


@pytest.fixture(scope="module")
def made(tmp_path_factory: pytest.TempPathFactory) -> Path:
    path = tmp_path_factory.mktemp("office") / "office.db"
    office(path).close()
    return path


@pytest.fixture
def register_of_office(made: Path, tmp_path: Path) -> Iterator[Store]:
    shutil.copy(made, tmp_path / "office.db")
    store = open_store(tmp_path / "office.db")
    yield store
    store.close()


CELLS = [(deed, who) for deed in DEEDS for who in (*ROLES, NOBODY) if who != OTHER]


@pytest.mark.parametrize(("deed", "who"), CELLS)
def test_a_cell_of_the_table_holds_over_the_api(
    made: Path, register_of_office: Store, deed: str, who: int
) -> None:
    """What may be done is not refused for who asks; what may not be is, and nothing is changed by it."""
    store, app = register_of_office, create_app(register_of_office)
    for operation in [each for each in EVERY.values() if each.deed == deed]:
        for whose in whose_of(operation, who or DRAWS):
            as_it_was(made, store)
            client, before = browser_at(app, who or None), everything(store)
            status = asked(client, operation, whose)
            allowed = may(deed, ROLES.get(who), who, whose)
            told = f"{operation.method} {operation.address} of {whose}: {status}"
            assert (status not in (401, 403)) == allowed, told
            if not allowed:
                assert status == (401 if who == NOBODY else 403)
                assert everything(store) == before, told


def as_it_was(made: Path, store: Store) -> None:
    """Put a register back as it was made."""
    with closing(sqlite3.connect(made)) as true, closing(sqlite3.connect(store.path)) as ours:
        true.backup(ours)


def everything(store: Store) -> list[tuple[Any, ...]]:
    """Return every row of the register but those of devices, who come and go."""
    with store.reading() as session:
        names = session.scalars(
            sql("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT IN ('device')")
        )
        return [
            tuple(row)
            for name in sorted(names.all())
            for row in session.execute(sql(f'SELECT * FROM "{name}"'))
        ]


def test_nobody_and_whoever_was_taken_out_come_to_nothing_at_all(register_of_office: Store) -> None:
    """Every address of the API, what is worked out as well: as nobody, and with the cookie of somebody taken out."""
    store = register_of_office
    open_to_all = {each.name for each in EVERY.values() if each.deed == "see who works here"}
    worked = list(worked_out.operations())
    with at_the_desk(store, None) as nobody, at_the_desk(store, OTHER) as gone:
        assert gone.get("/api/jobs").status_code == 200
        with store.writing() as session:
            take_out(session, OTHER)
        for client in (nobody, gone):
            for operation in EVERY.values():
                if operation.name not in open_to_all:
                    assert asked(client, operation, DRAWS) == 401, operation.address
            for each in worked:
                answer = client.open(
                    each.address.replace("<", "").replace(">", ""), method=each.method, json={}
                )
                assert answer.status_code in (401, 405, 415), each.address
        assert gone.post("/api/people/here", json={"person": OTHER}).status_code == 404


def test_nobody_gets_further_by_another_number_or_a_made_up_one(register_of_office: Store) -> None:
    with at_the_desk(register_of_office, DRAWS) as client:
        for person in (OTHER, RUNS):
            assert client.get(f"/api/logbook?person={person}").status_code == 403
            assert client.get(f"/api/practice?person={person}").status_code == 403
        for path in (
            "/api/people/77/export.zip",
            "/api/people/0/export.zip",
            f"/api/people/{2**60}/export.zip",
        ):
            assert client.get(path).status_code in (403, 404, 422)
        assert client.get("/api/logbook?person=-1").status_code == 422
        assert client.get("/api/logbook?person=2&person=4").status_code in (200, 403, 422)
        own = client.get("/api/logbook").get_json()
        assert [each["uid"] for each in own["sittings"]] == [uid(DRAWS)]
        rules = client.get("/api/practice").get_json()["standings"]
        assert [each["rule"] for each in rules] == [f"rule {DRAWS}"]
        kits = client.get("/api/kits").get_json()["kits"]
        assert [each["name"] for each in kits if not each["starter"]] == [f"of {DRAWS}"]
        taken = {"uid": uid(OTHER), "job": 1, "revision": 1}
        assert client.post("/api/sittings", json=taken).status_code == 409, "the name is another's"
    with at_the_desk(register_of_office, RUNS) as client:
        seen = client.get(f"/api/logbook?person={OTHER}").get_json()
        assert [each["uid"] for each in seen["sittings"]] == [uid(OTHER)]


def test_a_desk_used_alone_asks_and_says_nothing_of_people(tmp_path: Path) -> None:
    with at_the_desk(fresh_store(tmp_path / "alone.db"), None) as client:
        here = client.get("/api/people/here").get_json()
        assert (here["alone"], here["asks"], here["you"]) == (True, False, RUNS)
        job = client.post("/api/jobs", json={"text": TEXT}).get_json()
        assert (job["whose"], job["yours"], job["signed"]) == ("", True, "")
        newest = client.get(f"/api/jobs/{job['id']}").get_json()["newest"]
        assert (newest["name"], newest["initials"], newest["signatures"]) == ("", "", [])
        assert client.post("/api/people", json={"name": "B", "initials": "B"}).status_code == 409, (
            "who are you?"
        )
        client.patch(f"/api/people/{RUNS}", json={"name": "Ostler", "initials": "OS"})
        assert (
            client.post("/api/people", json={"name": "Brindle", "initials": "BR"}).status_code
            == 201
        )
        assert client.get("/api/people/here").get_json()["you"] == RUNS, (
            "who added another is known here"
        )
        assert client.application.test_client().get("/api/jobs").status_code == 401, (
            "at another browser nobody is"
        )


def test_drawn_checked_and_approved_come_from_who_did_it(register_of_office: Store) -> None:
    store = register_of_office

    def sign(who: int, what: str, number: int = 1) -> int:
        with at_the_desk(store, who) as client:
            address = f"/api/jobs/{JOB_OF[DRAWS]}/revisions/{number}/signatures"
            return client.post(address, json={"signed_as": what}).status_code

    assert sign(DRAWS, "checked") == 403
    assert sign(CHECKS, "approved") == 409, "not before it is checked"
    assert sign(CHECKS, "checked") == 201
    assert sign(CHECKS, "checked") == 409
    assert sign(RUNS, "approved") == 201
    with at_the_desk(store, DRAWS) as client:
        job = client.get(f"/api/jobs/{JOB_OF[DRAWS]}").get_json()
        newest = job["newest"]
        assert (newest["name"], newest["initials"], job["job"]["signed"]) == (
            "Brindle",
            "BR",
            "approved",
        )
        assert [(each["signed_as"], each["initials"]) for each in newest["signatures"]] == [
            ("checked", "TA"),
            ("approved", "OS"),
        ]
        saved = client.post(
            f"/api/jobs/{JOB_OF[DRAWS]}/revisions", json={"text": TEXT, "based_on": 1}
        )
        assert saved.get_json()["signatures"] == []
        assert client.get(f"/api/jobs/{JOB_OF[DRAWS]}").get_json()["job"]["signed"] == "", (
            "edited, it is unchecked"
        )
    assert sign(CHECKS, "checked", 1) == 409, "what is signed is the newest"
    with at_the_desk(store, CHECKS) as client:
        own = f"/api/jobs/{JOB_OF[CHECKS]}/revisions/1/signatures"
        assert client.post(own, json={"signed_as": "checked"}).status_code == 409, (
            "nobody checks their own"
        )
        waiting = client.get("/api/jobs?only=unchecked").get_json()["jobs"]
        assert {each["id"] for each in waiting} == {1, 2, 4, 5}
        stale = client.post(
            f"/api/jobs/{JOB_OF[DRAWS]}/revisions", json={"text": TEXT, "based_on": 1}
        )
        assert stale.get_json()["newest"]["name"] == "Brindle", (
            "whose the save is that was in the way"
        )


def test_who_leaves_leaves_jobs_and_initials_and_nothing_else(register_of_office: Store) -> None:
    store = register_of_office
    with at_the_desk(store, RUNS) as client:
        away = client.get(f"/api/people/{OTHER}/export.zip")
        assert away.status_code == 200
        after = client.delete(f"/api/people/{OTHER}").get_json()
        assert OTHER not in [each["id"] for each in after["people"]]
        job = client.get(f"/api/jobs/{JOB_OF[OTHER]}").get_json()
        assert (job["newest"]["name"], job["newest"]["initials"], job["job"]["whose"]) == (
            "WI",
            "WI",
            "",
        )
        assert client.get(f"/api/logbook?person={OTHER}").get_json()["sittings"] == []
        assert client.delete(f"/api/people/{RUNS}").status_code == 409, (
            "somebody has to run the office"
        )
        assert client.put(f"/api/people/{RUNS}/role", json={"role": "draws"}).status_code == 409
    store.close()
    with open_store(store.path).reading() as session:
        assert OTHER in [each.id for each in everybody(session, left=True)]


def test_a_new_pin_asks_everywhere_anew(register_of_office: Store) -> None:
    with at_the_desk(register_of_office, DRAWS) as client:
        with register_of_office.writing() as session:
            set_secret(session, DRAWS, "")
        assert client.get("/api/jobs").status_code == 401


def test_the_job_of_everybody_is_saved_in_by_all(register_of_office: Store) -> None:
    assert ANYBODYS not in ROLES
    for number, who in enumerate((DRAWS, OTHER, CHECKS), 1):
        with at_the_desk(register_of_office, who) as client:
            body = {"text": TEXT + f"d = circle, centre O, radius {number}\n", "based_on": number}
            assert client.post("/api/jobs/5/revisions", json=body).status_code == 201


def test_signing_in_gives_another_cookie_and_the_last_one_is_nobodys(
    register_of_office: Store,
) -> None:
    """Whoever knew a cookie before somebody signed in by it knows nothing after."""
    with at_the_desk(register_of_office, DRAWS) as client:
        planted = client.get_cookie(COOKIE, domain="127.0.0.1")
        assert planted is not None
        assert client.post("/api/people/here", json={"person": RUNS}).status_code == 200
        client.set_cookie(COOKIE, planted.value, domain="127.0.0.1")
        assert client.get("/api/jobs").status_code == 401


def test_from_the_network_it_takes_a_pin_and_wrong_ones_are_counted(
    register_of_office: Store,
) -> None:
    store, host = register_of_office, "192.168.7.5:8400"
    pairing = Pairing("192.168.7.5", 8400, False)
    client = create_app(store, pairing=pairing).test_client()
    there = {"base_url": f"http://{host}", "environ_base": {"REMOTE_ADDR": "192.168.7.9"}}

    def come(person: int, secret: str) -> int:
        return client.post(
            "/api/people/here", json={"person": person, "secret": secret}, **there
        ).status_code

    assert come(DRAWS, "482913") == 401, "the code comes first"
    assert client.post("/pair", data={"code": pairing.code}, **there).status_code == 303
    assert client.get("/api/jobs", **there).status_code == 401
    assert come(DRAWS, "") == 403, "who has no PIN comes in at the desk alone"
    with store.writing() as session:
        set_secret(session, DRAWS, hashed("482913"))
        set_secret(session, OTHER, hashed("a long passphrase"))
    assert come(DRAWS, "482914") == 403
    assert come(DRAWS, "482913") == 200
    assert client.get("/api/jobs", **there).status_code == 200
    assert come(OTHER, "a long passphrase") == 200
    for _ in range(TRIES):
        assert come(DRAWS, "000000") == 403
    assert come(DRAWS, "482913") == 429, "nor the right one now"
    assert come(OTHER, "a long passphrase") == 429, "nor at this device anybody"
    with at_the_desk(store, DRAWS) as desk:
        assert desk.get("/api/jobs").status_code == 200, "the desk itself is kept out by nobody"


@pytest.mark.parametrize("secret", ["12345", "1234567", "abcdef", "short one", " " * 12])
def test_what_is_too_short_is_no_pin(register_of_office: Store, secret: str) -> None:
    with at_the_desk(register_of_office, DRAWS) as client:
        assert client.put(f"/api/people/{DRAWS}/secret", json={"secret": secret}).status_code == 409


def test_behind_a_proxy_nobody_is_told_who_works_there(register_of_office: Store) -> None:
    store = register_of_office
    with store.writing() as session:
        set_secret(session, DRAWS, hashed("482913"))
    client = create_app(store, proxy=Proxy("10.0.0.1", "desk.test")).test_client()
    through = {
        "base_url": "https://desk.test",
        "environ_base": {"REMOTE_ADDR": "10.0.0.1"},
        "headers": {
            "X-Forwarded-For": "10.9.9.9",
            "X-Forwarded-Host": "desk.test",
            "X-Forwarded-Proto": "https",
        },
    }
    assert client.get("/api/people/here", **through).get_json()["people"] == []
    for called, secret, status in (
        ("Nobody", "482913", 403),
        ("br", "000000", 403),
        ("br", "482913", 200),
    ):
        sent = {"called": called, "secret": secret}
        answer = client.post("/api/people/here", json=sent, **through)
        assert answer.status_code == status
        if status == 403:
            assert (
                answer.get_json()["detail"] == "That is not the PIN or passphrase of this person."
            )
    assert "Secure" in answer.headers["Set-Cookie"]
    assert len(client.get("/api/people/here", **through).get_json()["people"]) == len(ROLES)
    beside = {**through, "environ_base": {"REMOTE_ADDR": "10.0.0.7"}}
    assert client.get("/api/people/here", **beside).status_code == 403


def test_an_office_is_carried_away_and_back_with_whose_everything_is(
    register_of_office: Store, tmp_path: Path
) -> None:
    store = register_of_office
    with store.writing() as session:
        sign(session, JOB_OF[DRAWS], 1, "checked", CHECKS)
    export_register(store, Folder(tmp_path / "files"))
    other = fresh_store(tmp_path / "other.db")
    import_register(other, Folder(tmp_path / "files"))

    def told(register: Store) -> list[object]:
        with register.reading() as session:
            people = {
                each.id: (each.name, each.initials, each.role, each.left)
                for each in everybody(session, left=True)
            }
            return [
                sorted(people.values()),
                [
                    (each.id, people.get(each.whose), each.signed)
                    for each in list_jobs(session, order="entered").jobs
                ],
                sorted((each.uid, people[each.whose]) for each in list_sittings(session)),
                sorted(
                    (kit.name, people[who]) for who in people for kit in list_kits(session, who)
                ),
                [(each.signed_as, people[each.who]) for each in signatures(session, JOB_OF[DRAWS])],
            ]

    assert told(other) == told(store)


def test_an_office_is_salvaged_with_whose_everything_is(register_of_office: Store) -> None:
    store = register_of_office
    with store.writing() as session:
        sign(session, JOB_OF[DRAWS], 1, "checked", CHECKS)
    store.close()
    data = bytearray(store.path.read_bytes())
    data[100:108] = b"\xff" * 8
    store.path.write_bytes(data)
    fresh, saved = salvage(store.path)
    assert saved.is_whole
    with fresh.reading() as session:
        assert [each.initials for each in everybody(session)] == ["OS", "BR", "TA", "WI"]
        assert [each.who for each in signatures(session, JOB_OF[DRAWS])] == [CHECKS]
        assert [each.whose for each in reversed(list_sittings(session))] == sorted(ROLES)
    fresh.close()


def test_whoever_runs_the_office_sees_the_week_of_everybody(register_of_office: Store) -> None:
    with at_the_desk(register_of_office, RUNS) as client:
        told = {
            each["person"]: each for each in client.get("/api/people/week").get_json()["people"]
        }
        assert set(told) == set(ROLES)
        # Answers of the office are of an older day; each entered a job, and began a sitting today.
        own = {"sittings": 1, "answers": 0, "share": 0.0, "saved": 1, "unchecked": 1}
        assert told[DRAWS] == {"person": DRAWS, **own}
        assert told[RUNS]["saved"] == told[RUNS]["unchecked"] == 2


def test_nobody_is_let_to_anything_by_what_else_they_say(register_of_office: Store) -> None:
    """Whose a thing is says its address, and nothing that is said besides: oneself in the query changes nothing."""
    store = register_of_office
    with at_the_desk(store, DRAWS) as client:
        before = everything(store)
        for operation in EVERY.values():
            parts = SENT[operation.name][0]
            if names_somebody(operation) and not any(name.startswith("?") for name in parts):
                refused = not may(operation.deed, "draws", DRAWS, OTHER)
                for more in (
                    {"person": str(DRAWS)},
                    {"person_id": str(DRAWS)},
                    {"job_id": str(JOB_OF[DRAWS])},
                ):
                    if refused:
                        assert asked(client, operation, OTHER, more) == 403, (
                            operation.address,
                            more,
                        )
        assert everything(store) == before


@pytest.mark.parametrize("written", ["+{}", "{}.0", "%20{}", "0{}", "{}%20"])
def test_nobody_is_let_to_anything_by_how_a_number_is_written(
    register_of_office: Store, written: str
) -> None:
    """A number of another, written so that it might be read as it by one and not by the other."""
    with at_the_desk(register_of_office, DRAWS) as client:
        before = everything(register_of_office)
        job, person = written.format(JOB_OF[OTHER]), written.format(OTHER)
        saved = client.post(f"/api/jobs/{job}/revisions", json={"text": TEXT, "based_on": 1})
        asked_for = [
            saved,
            client.patch(f"/api/jobs/{job}", json={"archived": True}),
            client.put(f"/api/people/{person}/secret", json={"secret": "482913"}),
            client.get(f"/api/logbook?person={person.replace('+', '%2B')}"),
            client.get(f"/api/practice?person={person.replace('+', '%2B')}"),
        ]
        assert all(each.status_code in (403, 404, 422) for each in asked_for)
        assert everything(register_of_office) == before
