"""Whatever is sent, the desk answers in its own words and never falls over."""

import string

from flask.testing import FlaskClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from entrick.demo import sample_plans

SAMPLE = sample_plans()["OY-014-paddle-pawl-link.entrick"]
rows = st.one_of(
    st.text(alphabet=string.printable + "Ø°½×−", max_size=60),
    st.sampled_from(
        ["", "x", "x = ", "x = arc, ", "x = arc, radius ", "x = line in, eyeA > ", "given ", "x = circle, centre A, r"]
    ),
)
lines = st.integers(-2, 40)
edits = st.one_of(
    st.fixed_dictionaries({"op": st.just("given"), "line": lines, "value": rows}),
    st.fixed_dictionaries({"op": st.just("clause"), "line": lines, "clause": st.integers(-1, 6), "text": rows}),
    st.fixed_dictionaries({"op": st.just("line"), "line": lines, "text": rows}),
    st.fixed_dictionaries({"op": st.just("insert"), "after": lines, "text": rows}),
    st.fixed_dictionaries({"op": st.just("delete"), "line": lines}),
    st.fixed_dictionaries({"op": st.just("move"), "line": lines, "to": lines}),
    st.fixed_dictionaries(
        {"op": st.just("head"), "key": st.sampled_from(["plan", "drawing", "units", "sheet"]), "text": rows}
    ),
    st.fixed_dictionaries({"op": st.just("choose"), "line": lines, "letter": st.sampled_from("ABCH")}),
)
same_client = settings(max_examples=60, suppress_health_check=[HealthCheck.function_scoped_fixture])


@same_client
@given(edit=edits)
def test_any_edit_is_made_or_refused(client: FlaskClient, edit: dict[str, object]) -> None:
    answer = client.post("/api/work", json={"text": SAMPLE, "edit": edit})
    assert answer.status_code in (200, 400, 422), answer.text
    assert answer.json is not None
    if answer.status_code == 200:
        again = client.post("/api/work", json={"text": answer.json["text"]})
        assert again.json is not None
        assert again.json["text"] == answer.json["text"], "a plan once written is written the same again"
        changed = abs(len(answer.json["text"].splitlines()) - len(SAMPLE.splitlines()))
        assert changed <= 1, "an edit touches one line"
    else:
        assert answer.json["title"]


@same_client
@given(after=lines, row=rows)
def test_any_half_written_row_can_be_completed(client: FlaskClient, after: int, row: str) -> None:
    answer = client.post("/api/complete", json={"text": SAMPLE, "after": after, "row": row})
    assert answer.status_code == 200
    assert answer.json is not None
    assert len(answer.json["completions"]) <= 60


@same_client
@given(body=st.recursive(st.none() | st.booleans() | st.integers() | st.text(max_size=9), lambda i: st.lists(i, max_size=3) | st.dictionaries(st.sampled_from(["text", "edit", "op", "based_on", "after", "row"]), i, max_size=4), max_leaves=6),
       path=st.sampled_from(["/api/work", "/api/complete", "/api/jobs", "/api/jobs/1/revisions", "/api/export/pdf", "/api/export/cutter", "/api/proof",
       "/api/suggest", "/api/regions", "/api/opened", "/api/methods", "/api/sheet-choices"]))  # fmt: skip
def test_any_body_is_answered_in_words(client: FlaskClient, body: object, path: str) -> None:
    answer = client.post(path, json=body)
    assert answer.status_code < 500, answer.text
    if answer.status_code >= 400:
        assert answer.mimetype == "application/problem+json"
