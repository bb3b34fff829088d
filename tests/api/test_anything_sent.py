"""Whatever is sent, the desk answers in its own words and never falls over."""

import string

from flask.testing import FlaskClient
from hypothesis import given
from hypothesis import strategies as st

from entrick.core.moves import kinds
from entrick.demo import sample_plans

SAMPLE = sample_plans()["OY-014-paddle-pawl-link.entrick"]
rows = st.one_of(
    st.text(alphabet=string.printable + "Ø°½×−", max_size=60),
    st.sampled_from(
        [
            "",
            "x",
            "x = ",
            "x = arc, ",
            "x = arc, radius ",
            "x = line in, eyeA > ",
            "given ",
            "x = circle, centre A, r",
        ]
    ),
)
lines = st.integers(-2, 40)
edits = st.one_of(
    st.fixed_dictionaries({"op": st.just("given"), "line": lines, "value": rows}),
    st.fixed_dictionaries(
        {"op": st.just("clause"), "line": lines, "clause": st.integers(-1, 6), "text": rows}
    ),
    st.fixed_dictionaries({"op": st.just("line"), "line": lines, "text": rows}),
    st.fixed_dictionaries({"op": st.just("insert"), "after": lines, "text": rows}),
    st.fixed_dictionaries({"op": st.just("delete"), "line": lines}),
    st.fixed_dictionaries({"op": st.just("move"), "line": lines, "to": lines}),
    st.fixed_dictionaries(
        {
            "op": st.just("head"),
            "key": st.sampled_from(["plan", "drawing", "units", "sheet"]),
            "text": rows,
        }
    ),
    st.fixed_dictionaries(
        {"op": st.just("choose"), "line": lines, "letter": st.sampled_from("ABCH")}
    ),
)


@given(edit=edits)
def test_any_edit_is_made_or_refused(client: FlaskClient, edit: dict[str, object]) -> None:
    answer = client.post("/api/work", json={"text": SAMPLE, "edit": edit})
    assert answer.status_code in (200, 409, 422), answer.text
    assert answer.json is not None
    if answer.status_code == 200:
        again = client.post("/api/work", json={"text": answer.json["text"]})
        assert again.json is not None
        assert again.json["text"] == answer.json["text"], (
            "a plan once written is written the same again"
        )
        changed = abs(len(answer.json["text"].splitlines()) - len(SAMPLE.splitlines()))
        assert changed <= 1, "an edit touches one line"
    else:
        assert answer.json["title"]


@given(after=lines, row=rows)
def test_any_half_written_row_can_be_completed(client: FlaskClient, after: int, row: str) -> None:
    answer = client.post("/api/complete", json={"text": SAMPLE, "after": after, "row": row})
    assert answer.status_code == 200
    assert answer.json is not None
    assert len(answer.json["completions"]) <= len(kinds()) + 10


@given(
    body=st.recursive(
        st.none() | st.booleans() | st.integers() | st.text(max_size=9),
        lambda i: (
            st.lists(i, max_size=3)
            | st.dictionaries(
                st.sampled_from(
                    [
                        "text",
                        "edit",
                        "op",
                        "based_on",
                        "after",
                        "row",
                        "line",
                        "turn",
                        "table",
                        "brief",
                    ]
                ),
                i,
                max_size=4,
            )
        ),
        max_leaves=6,
    ),
    path=st.sampled_from(
        [
            "/api/work",
            "/api/complete",
            "/api/jobs",
            "/api/jobs/1/revisions",
            "/api/export/pdf",
            "/api/export/cutter",
            "/api/proof",
            "/api/suggest",
            "/api/regions",
            "/api/opened",
            "/api/methods",
            "/api/sheet-choices",
            "/api/worksheet",
            "/api/worksheet/csv",
            "/api/worksheet/pdf",
            "/api/brief",
        ]
    ),
)
def test_any_body_is_answered_in_words(client: FlaskClient, body: object, path: str) -> None:
    answer = client.post(path, json=body)
    assert answer.status_code < 500, answer.text
    if answer.status_code >= 400:
        assert answer.mimetype == "application/problem+json"


words = st.sampled_from(
    [
        "rise",
        "fall",
        "dwell",
        "by",
        "20",
        "1/2",
        "90°",
        "360°",
        "mm",
        "in",
        "SHM",
        ";",
        "\n",
        ",",
        "0",
        "1/0",
        "°",
        "then",
        ".",
    ]
)


@given(brief=st.one_of(st.text(max_size=80), st.lists(words, max_size=14).map(" ".join)))
def test_any_brief_is_read_or_told_where_it_cannot_be(client: FlaskClient, brief: str) -> None:
    cam = sample_plans()["OY-071-bell-striker-cam.entrick"]
    line = next(
        number for number, row in enumerate(cam.splitlines(), 1) if row.startswith("striker")
    )
    answer = client.post("/api/brief", json={"text": cam, "line": line, "brief": brief})
    assert answer.status_code == 200, answer.text
    assert answer.json is not None
    if answer.json["statement"]:
        edit = {"op": "line", "line": line, "text": answer.json["statement"]}
        assert client.post("/api/work", json={"text": cam, "edit": edit}).status_code == 200
    else:
        assert all(row["row"] >= 1 and row["message"] for row in answer.json["misread"])
        assert answer.json["misread"]


numbers = st.sampled_from(
    ["0", "1", "7", "12", "24", "120", "-3", "1/2", "2.5", "0.0001", "90°", "400°", "361"]
)
cam_words = st.sampled_from(
    [
        "least {}",
        "rise {} by {}",
        "fall {} by {} uniform",
        "dwell {}",
        "roller radius {}",
        "flat",
        "ccw",
        "offset {} left",
        "{} parts",
        "every {}",
        "lift {} at {}",
        "diagram from O",
        "shaft diameter {}",
        "with velocity",
        "lift scale 2:1",
        "{} is {}",
    ]
)
gear_words = st.sampled_from(
    [
        "{} teeth",
        "module {}",
        "diametral pitch {}",
        "pitch diameter {}",
        "pressure {}",
        "proportions stub",
        "addendum {}",
        "dedendum {}",
        "backlash {}",
        "fillet radius {}",
        "bore diameter {}",
        "keyway {} by {}",
        "shown three",
        "by arcs",
        "mating {}",
    ]
)


@given(st.sampled_from(["cam", "gear"]), st.data())
def test_any_cam_or_gear_is_made_or_refused_and_its_worksheet_drawn(
    client: FlaskClient, kind: str, data: st.DataObject
) -> None:
    usual = {"cam": "least 30, rise 180° by 12, fall 180° by 12", "gear": "18 teeth, module 2"}[
        kind
    ]
    clauses = data.draw(st.lists(cam_words if kind == "cam" else gear_words, max_size=4))
    said = ", ".join(
        clause.replace("{}", data.draw(numbers), 1).replace("{}", data.draw(numbers))
        for clause in clauses
    )
    text = f"units mm\nO = datum\nc = {kind}, about O, {usual}{', ' if said else ''}{said}\n"
    answer = client.post("/api/work", json={"text": text})
    assert answer.status_code == 200, answer.text
    entry = answer.json["entries"][-1]  # type: ignore[index]
    if entry["error"] is None:
        sheet = client.post("/api/worksheet", json={"text": text, "line": 3, "turn": 33})
        assert sheet.status_code == 200, sheet.text
        proof = client.post("/api/proof", json={"text": text})
        assert proof.status_code == 200, proof.text
    else:
        assert entry["error"]["message"]
