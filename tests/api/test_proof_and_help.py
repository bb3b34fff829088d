"""What the desk finds, suggests, opens up and refuses, over the API."""

import io

import ezdxf
import pytest
from flask.testing import FlaskClient

from entrick.demo import sample_plans

FRAME = (
    'plan "Cover"\ndrawing OY-902\nunits mm\nsheet A3 landscape, scale 1:1, border 10\nO = datum\nframe = box, 80 by 50, centred on O\n'
    "c = circle, centre O, radius 9\n"
)
RIM = "rim = line in, frame.bottom > frame.right > frame.top > frame.left\nbore = line in, c\n"


def post(client: FlaskClient, path: str, **body: object) -> dict:  # type: ignore[type-arg]
    answer = client.post(path, json=body)
    assert answer.status_code == 200, answer.text
    return answer.json  # type: ignore[return-value]


def test_the_proof_carries_findings_mends_junctions_and_measures(client: FlaskClient) -> None:
    proof = post(client, "/api/proof", text=FRAME + RIM)
    assert proof["cut"] == ""
    assert [(m["outline"], m["kind"]) for m in proof["measures"]] == [
        ("rim", "material"),
        ("bore", "hole"),
    ]
    assert proof["measures"][0]["size"] == "80 by 50"
    assert proof["measures"][0]["area"] == "4000"
    assert [j["how"] for j in proof["junctions"]] == ["a corner of 90°"] * 4
    mends = [f["mend"] for f in proof["findings"] if f["mend"]]
    assert {m["told"] for m in mends} == {"Say so", "Draw them"}
    edit = {"op": "insert", "after": mends[0]["line"], "text": mends[0]["text"]}
    assert mends[0]["text"] in post(client, "/api/work", text=FRAME + RIM, edit=edit)["text"]


def test_dimensions_are_suggested_and_then_nothing_more(client: FlaskClient) -> None:
    first = post(client, "/api/suggest", text=FRAME + RIM)
    assert len(first["statements"]) == 3
    assert first["left_open"] == []
    assert post(client, "/api/suggest", text=first["text"])["statements"] == []


def test_regions_pointed_at_on_paper_come_back_as_statements(client: FlaskClient) -> None:
    work = post(client, "/api/work", text=FRAME)
    x, y = work["sheet_drawing"]["origin"]
    found = post(client, "/api/regions", text=FRAME, spots=[[x + 30, y + 20]])
    assert [row.split(" = ")[0] for row in found["statements"]] == ["rim", "hole"]
    assert {m["kind"] for m in found["marks"]} == {"line", "circle"}
    hidden = post(client, "/api/regions", text=FRAME, spots=[[x, y]], kind="hidden")
    assert hidden["statements"] == ["rim = hidden, c"]
    refused = client.post("/api/regions", json={"text": FRAME, "spots": [[5.0, 5.0]]})
    assert refused.status_code == 404
    assert "nothing closes around this spot" in refused.json["detail"]  # type: ignore[index]


@pytest.mark.parametrize("spots", [[], [[1e9, 0]], [["a", 0]], [[0, 0]] * 201])
def test_places_that_make_no_sense_are_refused(client: FlaskClient, spots: list[object]) -> None:
    assert client.post("/api/regions", json={"text": FRAME, "spots": spots}).status_code == 422


def test_a_step_opens_up_and_what_is_not_there_opens_into_nothing(client: FlaskClient) -> None:
    text = FRAME + "l = line, through O, at 30°\n"
    steps = post(client, "/api/work", text=text)["steps"]
    step = next(s for s in steps if s["name"] == "l")
    assert step["opens"]
    found = post(client, "/api/opened", text=text, step=step["number"])
    assert [s["number"] for s in found["steps"]] == list(range(1, len(found["steps"]) + 1))
    assert "equal-sided triangle" in " ".join(f"{s['text']} {s['check']}" for s in found["steps"])
    assert {m["step"] for m in found["marks"]} <= {s["number"] for s in found["steps"]}
    assert post(client, "/api/opened", text=text, step=999) == {"steps": [], "marks": []}


def test_the_sheet_may_be_any_paper_and_the_largest_scale_that_fits_is_named(
    client: FlaskClient,
) -> None:
    text = sample_plans()["OY-036-hand-wheel.entrick"]
    found = post(client, "/api/sheet-choices", text=text)
    assert found["recommended"] == "1:2"
    assert [c["name"] for c in found["scales"] if c["chosen"]] == ["1:2"]
    assert [c["fits"] for c in found["scales"][:5]] == [False, False, False, False, True]
    for choice in (*found["papers"], *found["borders"]):
        said = choice["said"] if choice in found["papers"] else f"A3 landscape, {choice['said']}"
        work = post(
            client, "/api/work", text=text, edit={"op": "head", "key": "sheet", "text": said}
        )
        assert work["sheet"]["errors"] == []


def test_a_cutter_gets_the_outlines_alone_and_is_refused_what_is_open(client: FlaskClient) -> None:
    answer = client.post("/api/export/cutter", json={"text": FRAME + RIM})
    assert answer.status_code == 200
    assert answer.headers["Content-Disposition"].endswith('Cover-outlines.dxf"')
    drawing = ezdxf.read(io.StringIO(answer.text))
    assert sorted(e.dxftype() for e in drawing.modelspace()) == ["CIRCLE", "LWPOLYLINE"]
    opened = FRAME + "rim = line in, frame.bottom > frame.right, open\n"
    refused = client.post("/api/export/cutter", json={"text": opened})
    assert refused.status_code == 409
    assert "open run" in refused.json["detail"]  # type: ignore[index]
    insisted = client.post("/api/export/cutter", json={"text": opened, "insist": True})
    assert insisted.status_code == 200
    (run,) = ezdxf.read(io.StringIO(insisted.text)).modelspace()
    assert not run.closed
    doubled = client.post("/api/export/cutter", json={"text": FRAME + RIM + "again = line in, c\n"})
    assert "cut twice" in doubled.json["detail"]  # type: ignore[index]


def test_a_template_is_pictured_by_its_hole(client: FlaskClient) -> None:
    picture = client.get(
        "/api/pictures/setting.svg?tool=circle+template&value=18&unit=mm&graduation=1/2"
    )
    assert picture.status_code == 200
    assert "<circle" in picture.text


def test_methods_are_compared_by_what_they_take_and_how_close_they_come(
    client: FlaskClient,
) -> None:
    text = "units mm\nO = datum\ne = ellipse, centred on O, axes 90 and 56, at 20, by foci\np = polygon, 7 sides, centred on O, side 30\nc = circle, centre O, radius 9\n"
    found = post(client, "/api/methods", text=text, line=3)
    said = {m["said"]: m for m in found["methods"]}
    assert list(said) == ["by circles", "by trammel", "by rectangle", "by foci", "by four centres"]
    assert [m["said"] for m in found["methods"] if m["chosen"]] == ["by foci"]
    assert said["by four centres"]["told"].startswith("it departs")
    assert all(m["settings"] > 0 and m["instruments"] and m["marks"] for m in found["methods"])
    assert found["box"][2] > 80
    chosen = post(
        client,
        "/api/work",
        text=text,
        edit={"op": "line", "line": 3, "text": said["by trammel"]["row"]},
    )
    assert "e = ellipse, centred on O, axes 90 and 56, at 20, by trammel\n" in chosen["text"]
    sevens = post(client, "/api/methods", text=text, line=4)["methods"]
    assert [m["said"] for m in sevens] == ["the usual way", "by semicircle"]
    assert "takes up" in sevens[1]["told"]
    assert post(client, "/api/methods", text=text, line=5)["methods"] == []
    assert post(client, "/api/methods", text=text, line=99)["methods"] == []


@pytest.mark.parametrize(
    ("before", "said", "after"),
    [
        (
            "sheet A4 landscape, scale 1:1, border 10",
            "A3 portrait",
            "A3 portrait, scale 1:1, border 10",
        ),
        (
            "sheet A4 landscape, scale 1:1, border 10",
            "11 in by 8 1/2 in",
            "11 in by 8 1/2 in, scale 1:1, border 10",
        ),
        (
            "sheet scale 1:2, A4 landscape",
            "border filing",
            "A4 landscape, scale 1:2, border filing",
        ),
        ("sheet A4 landscape, border filing", "border 10 mm", "A4 landscape, border 10 mm"),
        (
            "sheet A4 landscape",
            "dimensions unidirectional",
            "A4 landscape, dimensions unidirectional",
        ),
        ("", "scale 2:1", "scale 2:1"),
    ],
)
def test_one_thing_is_said_of_the_sheet_in_the_place_of_the_one_before(
    client: FlaskClient, before: str, said: str, after: str
) -> None:
    text = f"units mm\n{before}\nO = datum\nc = circle, centre O, radius 9\n".replace("\n\n", "\n")
    work = post(client, "/api/work", text=text, edit={"op": "sheet", "text": said})
    assert work["sheet"]["said"] == after
    assert work["sheet"]["errors"] == []
    found = post(client, "/api/sheet-choices", text=work["text"])
    for group in ("papers", "borders", "letterings"):
        assert sum(choice["chosen"] for choice in found[group]) <= 1
    chosen = {
        c["said"]
        for group in ("papers", "borders", "scales", "letterings")
        for c in found[group]
        if c["chosen"]
    }
    assert said in chosen


def test_what_cannot_be_said_of_a_sheet_is_kept_and_told(client: FlaskClient) -> None:
    text = "units mm\nsheet A4 landscape, scale 1:1\nO = datum\n"
    work = post(client, "/api/work", text=text, edit={"op": "sheet", "text": "scale 1:banana"})
    assert "1:banana" in work["text"], "nothing typed is lost"


LINK = sample_plans()["OY-014-paddle-pawl-link.entrick"]


def test_every_order_of_work_is_counted_and_any_may_be_had(client: FlaskClient) -> None:
    text = f"{LINK}k = circle, centre O, radius 33\nm = circle, centre A, radius 22\n"
    counted = post(client, "/api/schedules", text=text)["schedules"]
    assert [each["schedule"] for each in counted] == ["written", "settings", "clean"]
    assert counted[1]["minutes"] <= counted[0]["minutes"]
    written, other = (
        post(client, "/api/work", text=text, schedule=how)["steps"]
        for how in ("written", "settings")
    )
    assert sorted(step["text"] for step in written) == sorted(step["text"] for step in other)
    assert [step["number"] for step in other] == list(range(1, len(other) + 1))
    assert any(step["why"] for step in other)
    assert not any(step["why"] for step in written)
    kept = [step for step in other if step["setting"] and step["setting"]["kept"]]
    assert all(step["setting"]["reading"] for step in kept)
    rows = client.post("/api/export/csv", json={"text": LINK, "schedule": "clean"})
    assert rows.status_code == 200
    assert client.post("/api/work", json={"text": LINK, "schedule": "by luck"}).status_code == 422


def test_a_rehearsal_tells_misses_shares_and_what_would_help(client: FlaskClient) -> None:
    found = post(client, "/api/rehearsal", text=LINK)
    assert found["hands"] == 500
    assert [(j["first"], j["second"]) for j in found["joins"]] == [
        ("eyeA", "top"),
        ("top", "eyeB"),
        ("eyeB", "low"),
        ("low", "eyeA"),
    ]
    for join in found["joins"]:
        assert 0 < join["miss"]["half"] < join["miss"]["nine"]
        assert join["shares"]
        assert len(join["cloud"]) == 60
        assert all(way["gain"] > 0 for way in join["instead"])
    assert {size["way"] for size in found["sizes"]} == {"level", "plumb", "place"}
    assert post(client, "/api/rehearsal", text="units mm\nO = datum\n")["joins"] == []
