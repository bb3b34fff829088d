"""Worksheets of cams and gears over the API: drawings that turn, tables, files, briefs."""

import csv
import io
import math

import pytest
from flask.testing import FlaskClient
from pypdf import PdfReader

from entrick.core.rules.brief import read_brief
from entrick.demo import sample_plans

CAM = sample_plans()["OY-072-paddle-lift-cam.entrick"]
GEAR = sample_plans()["OY-073-rack-pinion.entrick"]


def line_of(text: str, start: str) -> int:
    return next(number for number, row in enumerate(text.splitlines(), 1) if row.startswith(start))


def post(client: FlaskClient, path: str, **body: object) -> dict:  # type: ignore[type-arg]
    answer = client.post(path, json=body)
    assert answer.status_code == 200, answer.text
    return answer.json  # type: ignore[return-value]


def test_a_cam_turns_beside_its_diagram(client: FlaskClient) -> None:
    line = line_of(CAM, "lifter")
    still = post(client, "/api/worksheet", text=CAM, line=line)
    turned = post(client, "/api/worksheet", text=CAM, line=line, turn=60.0)
    assert still["display"]["width"] == turned["display"]["width"], (
        "the page stands still while the cam turns"
    )
    assert still["told"].startswith("at 0° the lift is 0, the follower stands")
    assert turned["told"].startswith("at 60° the lift is 14, the follower rises")
    dots = [
        [m for m in sheet["display"]["marks"] if m["kind"] == "dot"][-1]
        for sheet in (still, turned)
    ]
    assert dots[1]["y"] > dots[0]["y"]
    words = {m["text"] for m in still["display"]["marks"] if m["kind"] == "text"}
    assert {
        "DISPLACEMENT DIAGRAM",
        "LIFT, 1:1",
        "CAM ANGLE, 30° = 12",
        "0",
        "23",
        "120°",
        "360°",
    } <= words
    assert any(word.startswith("VELOCITY") for word in words)
    assert any(word.startswith("ACCELERATION") for word in words)
    assert {"arrow", "run", "arc"} <= {m["kind"] for m in still["display"]["marks"]}
    assert "guarding are for a qualified person" in still["caution"]


def test_the_stations_are_a_table_and_a_file(client: FlaskClient) -> None:
    line = line_of(CAM, "lifter")
    sheet = post(client, "/api/worksheet", text=CAM, line=line)
    stations = next(table for table in sheet["tables"] if table["title"] == "Stations")
    assert len(stations["rows"]) == 24
    assert stations["note"] == "numbered clockwise, against the rotation"
    index = [table["title"] for table in sheet["tables"]].index("Stations")
    answer = client.post("/api/worksheet/csv", json={"text": CAM, "line": line, "table": index})
    assert "OY-072-lifter-worksheet.csv" in answer.headers["Content-Disposition"]
    head, *rows = csv.reader(io.StringIO(answer.text))
    assert head[:3] == ["station", "angle", "lift"]
    assert [row[0] for row in rows] == [str(number) for number in range(24)]
    for row in rows:
        # In the sample the follower is offset by 8 and its roller's middle at least 46 + 9 out (definition).
        rest = math.sqrt(55**2 - 8**2)
        assert float(row[3]) == pytest.approx(math.hypot(8, rest + float(row[2])), abs=2e-4)


@pytest.mark.parametrize(
    ("text", "start", "words"),
    [
        (CAM, "lifter", ["DISPLACEMENT DIAGRAM", "OY-072 Paddle-lift cam: lifter"]),
        (GEAR, "pinion", ["line of action", "OY-073 Rack pinion: pinion"]),
    ],
)
def test_a_worksheet_prints_on_one_page(
    client: FlaskClient, text: str, start: str, words: list[str]
) -> None:
    answer = client.post(
        "/api/worksheet/pdf", json={"text": text, "line": line_of(text, start), "turn": 10}
    )
    reader = PdfReader(io.BytesIO(answer.data))
    assert len(reader.pages) == 1
    page = reader.pages[0]
    assert float(page.mediabox.width) / 72 * 25.4 == pytest.approx(297, abs=0.1)
    assert all(word in page.extract_text() for word in [*words, "Layout geometry only"])
    svg = client.post("/api/worksheet/svg", json={"text": text, "line": line_of(text, start)})
    assert svg.text.lstrip().startswith("<svg") or "<svg" in svg.text[:200]


def test_a_gear_and_its_mate_turn_together_and_are_measured(client: FlaskClient) -> None:
    line = line_of(GEAR, "pinion")
    sheet = post(client, "/api/worksheet", text=GEAR, line=line, turn=30)
    assert sheet["told"] == "turned 30°, the mate 9.0° the other way"
    tables = {
        table["title"]: {row[0]: row[1] for row in table["rows"]} for table in sheet["tables"]
    }
    assert tables["With a mate of 60 teeth"]["centre distance"] == "156"
    assert tables["Measures for inspection"]["working depth"] == "8"
    assert tables["Measures for inspection"]["clearance"] == "1"
    listed = tables["Radii of two arcs by number of teeth"]
    assert set(map(str, range(10, 25))) <= listed.keys()
    assert listed["rack"] == "straight"
    compared = next(table for table in sheet["tables"] if table["title"] == "Flanks compared")
    assert [row[0] for row in compared["rows"]] == ["true involute", "two arcs", "one arc"]
    departs = [float(row[3]) for row in compared["rows"]]
    assert 0 == departs[0] < departs[1] < departs[2]


def test_only_what_has_a_worksheet_offers_one(client: FlaskClient) -> None:
    work = post(client, "/api/work", text=CAM)
    assert {e["name"] for e in work["entries"] if e["worksheet"]} == {"lifter"}
    for line in (1, 999, line_of(CAM, "rim")):
        answer = client.post("/api/worksheet", json={"text": CAM, "line": line})
        assert answer.status_code == 409
        assert "has no worksheet" in answer.json["detail"]  # type: ignore[index]
    assert (
        client.post("/api/worksheet", json={"text": CAM, "line": 9, "turn": 1e9}).status_code == 422
    )
    assert (
        client.post(
            "/api/worksheet/csv", json={"text": CAM, "line": line_of(CAM, "lifter"), "table": 50}
        ).status_code
        == 409
    )
    assert (
        client.post(
            "/api/worksheet/exe", json={"text": CAM, "line": line_of(CAM, "lifter")}
        ).status_code
        == 422
    )


def test_a_brief_in_sentences_becomes_the_events_of_the_cam(client: FlaskClient) -> None:
    line = line_of(CAM, "lifter")
    brief = "The follower rises 1 1/2 in. in 90 degrees at uniform velocity; dwells for 30°\nreturns 38.1 mm in 240° with S.H.M."
    found = post(client, "/api/brief", text=CAM, line=line, brief=brief.replace("in. in", "in in"))
    assert found["misread"] == []
    assert (
        "rise 90° by 1 1/2 in uniform, dwell 30°, fall 240° by 38.1 mm harmonic"
        in found["statement"]
    )
    assert "roller radius R, offset e right" in found["statement"], (
        "what the brief does not speak of stays"
    )
    edit = {"op": "line", "line": line, "text": found["statement"]}
    work = post(client, "/api/work", text=CAM, edit=edit)
    assert next(e for e in work["entries"] if e["name"] == "lifter")["error"] is None


def test_stations_from_a_file_become_measured_lifts(client: FlaskClient) -> None:
    line = line_of(CAM, "lifter")
    rows = "angle,lift\n" + "".join(
        f"{a},{6 - 6 * math.cos(math.radians(a)):.3f}\n" for a in range(0, 361, 30)
    )
    found = post(client, "/api/brief", text=CAM, line=line, brief=rows)
    assert found["misread"] == []
    edit = {"op": "line", "line": line, "text": found["statement"]}
    entry = next(
        e
        for e in post(client, "/api/work", text=CAM, edit=edit)["entries"]
        if e["name"] == "lifter"
    )
    assert entry["error"] is None
    assert sum(clause["key"] == "lift" for clause in entry["clauses"]) == 12


@pytest.mark.parametrize(
    ("brief", "row", "words"),
    [
        ("rise 20 mm with SHM", 1, "says no angle"),
        ("turn 90° about 20", 1, "rises, falls or dwells"),
        ("dwell 30°; rise 90°", 2, "says no lift"),
        ("rise 20 or 30 in 90°", 1, "several lifts"),
        ("0,0\n30,4\nsixty,9", 1, "rises, falls or dwells"),
        ("0,0\n30,4,9\n60,2", 2, "an angle and a lift"),
        ("0,0\n90,4\n180,9\n360,5", 4, "does not return"),
    ],
)
def test_a_brief_that_cannot_be_read_says_where_and_changes_nothing(
    client: FlaskClient, brief: str, row: int, words: str
) -> None:
    found = post(client, "/api/brief", text=CAM, line=line_of(CAM, "lifter"), brief=brief)
    assert found["statement"] == ""
    assert any(m["row"] == row and words in m["message"] for m in found["misread"]), found[
        "misread"
    ]


def test_a_brief_is_for_a_cam(client: FlaskClient) -> None:
    answer = client.post(
        "/api/brief", json={"text": GEAR, "line": line_of(GEAR, "pinion"), "brief": "dwell 30°"}
    )
    assert answer.status_code == 409
    assert (
        client.post("/api/brief", json={"text": CAM, "line": 9, "brief": "x" * 30_000}).status_code
        == 422
    )


@pytest.mark.parametrize(
    ("sentence", "clause"),
    [
        (
            "Rise of 12.5 mm over 60° with uniform acceleration and retardation",
            "rise 60° by 12.5 mm parabolic",
        ),
        (
            "follower lowers 3/4 in through 45 deg by cycloidal motion",
            "fall 45° by 3/4 in cycloidal",
        ),
        ("stationary for 20°", "dwell 20°"),
        ("lifts 8 during 100°, 3-4-5 polynomial", "rise 100° by 8 polynomial"),
        ("drops 20 mm at constant velocity, ends rounded, in 90°", "fall 90° by 20 mm rounded"),
        ("no movement for the next 15 degrees", "dwell 15°"),
    ],
)
def test_sentences_a_brief_is_written_in(sentence: str, clause: str) -> None:
    assert read_brief(sentence).clauses == (clause,)


def test_the_radii_by_number_of_teeth_print_as_a_table(client: FlaskClient) -> None:
    line = line_of(GEAR, "pinion")
    sheet = post(client, "/api/worksheet", text=GEAR, line=line)
    index = [table["title"] for table in sheet["tables"]].index(
        "Radii of two arcs by number of teeth"
    )
    answer = client.post("/api/worksheet/pdf", json={"text": GEAR, "line": line, "table": index})
    page = PdfReader(io.BytesIO(answer.data)).pages[0]
    assert float(page.mediabox.height) / 72 * 25.4 == pytest.approx(297, abs=0.1)
    words = page.extract_text()
    assert all(
        word in words
        for word in ("Radii of two arcs", "rack", "straight", "OY-073 Rack pinion: pinion")
    )


@pytest.mark.parametrize(
    ("clauses", "words"),
    [
        ("every 15°", "360° ÷ 24 = 15° a part"),
        ("every 30°", "360° ÷ 12 = 30° a part"),
        ("36 parts", "360° ÷ 36 = 10° a part"),
    ],
)
def test_a_cam_is_divided_by_parts_or_by_a_step(
    client: FlaskClient, clauses: str, words: str
) -> None:
    text = f"units mm\nO = datum\nc = cam, about O, least 30, rise 180° by 9, fall 180° by 9, {clauses}\n"
    assert words in " ".join(post(client, "/api/work", text=text)["entries"][-1]["working"])
    bad = post(client, "/api/work", text=text.replace(clauses, "every 50°"))["entries"][-1]
    assert "goes into 360° without a rest" in bad["error"]["message"]


def test_velocity_and_acceleration_stand_under_the_diagram_when_they_are_asked_for(
    client: FlaskClient,
) -> None:
    rows = "units mm\nsheet A2\nO = datum\nG = point, 90 right of O\nc = cam, about O, least 30, rise 180° by 9, fall 180° by 9 uniform, diagram from G"
    for asked, words in (
        ("", set()),
        (", with velocity", {"VELOCITY"}),
        (", with velocity, with acceleration", {"VELOCITY", "ACCELERATION"}),
    ):
        layers = post(client, "/api/work", text=f"{rows}{asked}\n")["sheet_drawing"]["layers"]
        marks = [mark for layer in layers for mark in layer["marks"]]
        assert {m["text"].split(",")[0] for m in marks if m["kind"] == "text"} & {
            "VELOCITY",
            "ACCELERATION",
        } == words
    told = next(
        m["text"] for m in marks if m["kind"] == "text" and m["text"].startswith("ACCELERATION")
    )
    assert told.endswith("without limit at 180°, 0°")
