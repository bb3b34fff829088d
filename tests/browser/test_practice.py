"""Practice in the browser: a round by keys, an instrument that opens to the answer, a set for a class."""

import csv
import io
import json
import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from entrick.store import Store, list_answers
from pages import go, sound


def answered(page: Page) -> None:
    """Answer whatever is asked, by keys where one can."""
    if page.locator("#answer").count():
        page.locator("#answer").fill("77")
        # Sent twice before the desk has answered, it is one answer.
        page.locator("#answer").evaluate(
            "field => { field.form.requestSubmit(); field.form.requestSubmit(); }"
        )
    elif page.get_by_label("The pointer").count():
        page.get_by_label("The pointer").press("Enter")
    elif page.get_by_text("Touch the steps").count():
        for step in page.locator("section[aria-label='The question'] ul button").all():
            step.click()
        page.get_by_role("button", name="That is the order").click()
    else:
        page.keyboard.press("1")
    expect(page.get_by_test_id("came")).to_be_visible()


@pytest.mark.parametrize("size", [(1280, 800), (390, 844)])
def test_a_round_of_ten_is_gone_through_and_kept(
    page: Page, desk: str, store: Store, quiet: None, size: tuple[int, int]
) -> None:
    page.set_viewport_size({"width": size[0], "height": size[1]})
    page.goto(f"{desk}/jobs/20/practice")
    page.get_by_role("button", name="Begin a round").click()
    for number in range(1, 11):
        expect(page.get_by_text(re.compile(f"^{number} of 10"))).to_be_visible()
        if number == 1:
            sound(page)
        if number == 2:
            page.get_by_role("button", name=re.compile("A hint")).click()
        answered(page)
        if number == 1:
            sound(page)
            assert page.evaluate("document.documentElement.scrollWidth") <= size[0]
        page.keyboard.press("Enter")
    expect(page.get_by_test_id("score")).to_contain_text("of 10 right")
    with store.reading() as session:
        assert len(list_answers(session)) == 10
    go(page, "Logbook")
    expect(page.get_by_role("heading", name="Practice")).to_be_visible()
    sound(page)


def test_the_compass_opens_to_what_is_typed(page: Page, desk: str, quiet: None) -> None:
    page.goto(f"{desk}/jobs/20/practice")
    # By lot, of the part as it is: every rule has its turn.
    page.get_by_role("checkbox", name="with new givens").uncheck()
    page.get_by_role("checkbox", name=re.compile("was wrong comes back")).uncheck()
    page.get_by_role("button", name="Begin a round").click()
    page.get_by_test_id("question").wait_for()
    while "compass set to" not in page.get_by_test_id("question").inner_text():
        answered(page)
        page.get_by_role("button", name="On", exact=True).click()
        expect(page.get_by_test_id("came")).to_be_hidden()
        if page.get_by_test_id("score").count():
            page.get_by_role("button", name="Another round").click()
            page.get_by_test_id("question").wait_for()
    page.locator("#answer").fill("33")
    expect(page.get_by_role("img", name="compass set to 33")).to_be_visible()
    # What was wrong is shown on the sheet as it comes out.
    page.locator("#answer").fill("7")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("wrong")).to_be_visible()


def test_a_class_is_given_papers_and_marked_on_the_page(
    page: Page, desk: str, quiet: None, tmp_path: Path
) -> None:
    page.goto(desk)
    page.get_by_role("link", name="For a class").click()
    page.get_by_role("checkbox", name=re.compile("OY-014")).check()
    for nonsense in ("0", "−3", "2.5", "NaN"):
        page.get_by_label("Students").fill(nonsense)
        expect(page.get_by_role("alert")).to_have_text("✗ Students: a whole number from 1 to 2000")
        expect(page.get_by_role("button", name="Make the set")).to_be_disabled()
    page.get_by_label("Students").fill("3")
    page.get_by_label("Questions").fill("5")
    page.get_by_role("button", name="Make the set").click()
    expect(page.get_by_test_id("class-told")).to_have_text(
        "The set has 3 papers of 5 questions, and is kept in the register."
    )
    # A set lives in the register: a reload loses nothing.
    page.reload()
    with page.expect_download() as kept:
        page.get_by_role("button", name="The set, JSON").click()
    made = json.loads(Path(kept.value.path()).read_text("utf-8"))
    assert [paper["student"] for paper in made["papers"]] == ["1", "2", "3"]
    for button in ("Papers, PDF", "Key, PDF"):
        with page.expect_download() as file:
            page.get_by_role("button", name=button).click()
        assert Path(file.value.path()).read_bytes().startswith(b"%PDF")
    answers = tmp_path / "answers.csv"
    slip = next(q["slips"][0]["answer"] for q in made["papers"][0]["questions"] if q["slips"])
    place = next(n for n, q in enumerate(made["papers"][0]["questions"], 1) if q["slips"])
    other = 1 if place > 1 else 2
    answers.write_text(f"student;{place};{other}\n1;{slip};a blot\n", "utf-8")
    page.get_by_label("Answers, CSV").set_input_files(answers)
    expect(page.get_by_test_id("class-told")).to_have_text("1 papers marked.")
    with page.expect_download() as blank:
        page.get_by_role("button", name="Blank answers, CSV").click()
    assert Path(blank.value.path()).read_text("utf-8").startswith("student,name,1,2,3,4,5")
    expect(page.get_by_role("heading", name="Slips of the class")).to_be_visible()
    with page.expect_download() as file:
        page.get_by_role("button", name="Marks, CSV").click()
    (row,) = csv.DictReader(io.StringIO(Path(file.value.path()).read_text("utf-8")))
    assert row["student"] == "1"
    assert row["slips"]
    assert row[str(other)] == "?", "what cannot be read is no mark"
    expect(page.get_by_role("cell", name=f"question {other}")).to_be_visible()
    sound(page)
    # What could not be read is decided, and the marks are there when the page is opened again.
    page.get_by_role("button", name=f"right: student 1, question {other}").click()
    expect(page.get_by_role("cell", name=f"question {other}")).to_be_hidden()
    page.reload()
    expect(page.get_by_role("table", name="Marks of the set")).to_contain_text("1")
    expect(page.get_by_role("heading", name="The class over weeks")).to_be_visible()
    with page.expect_download() as record:
        page.get_by_role("button", name="The record, CSV").click()
    assert "class,all" in Path(record.value.path()).read_text("utf-8")
    page.get_by_role("button", name="Put away Setting out").click()
    page.get_by_role("button", name="Put back Setting out").click()
    expect(page.get_by_role("button", name="Put away Setting out")).to_be_visible()


def test_a_named_class_gets_new_parts_at_a_grade(page: Page, desk: str, quiet: None) -> None:
    page.goto(f"{desk}/class")
    # What comes later moves what stands below it.
    expect(page.get_by_role("checkbox", name="Gasket", exact=True)).to_be_visible()
    page.get_by_text("A class list").click()
    page.get_by_label("Names, a row each").fill("Ada Wren\nBen Ash\nAda Wren")
    page.get_by_role("button", name="Take these names").click()
    expect(page.get_by_test_id("class-told")).to_contain_text("stands in the class list twice")
    page.get_by_label("Names, a row each").fill("Ada Wren\nBen Ash")
    page.get_by_role("button", name="Take these names").click()
    expect(page.get_by_text("2 by name")).to_be_visible()
    page.get_by_label("Grade").select_option("2")
    page.get_by_role("checkbox", name="Gasket", exact=True).check()
    page.get_by_label("Questions").fill("4")
    page.get_by_role("button", name="Make the set").click()
    expect(page.get_by_test_id("class-told")).to_contain_text("The set has 2 papers of 4 questions")
    with page.expect_download() as kept:
        page.get_by_role("button", name="The set, JSON").click()
    made = json.loads(Path(kept.value.path()).read_text("utf-8"))
    assert [paper["name"] for paper in made["papers"]] == ["Ada Wren", "Ben Ash"]
    assert "scale 1:2" in made["plans"][0]
    sound(page)


def test_the_rule_is_read_against_the_clock(page: Page, desk: str, quiet: None) -> None:
    page.goto(f"{desk}/jobs/20/practice")
    page.get_by_role("button", name="Read the rule, against the clock").click()
    seen = set()
    while len(seen) < 2:
        page.get_by_test_id("question").wait_for()
        pointer = page.get_by_label("The pointer")
        seen.add(pointer.count())
        if pointer.count():
            pointer.press("ArrowRight")
            pointer.press("Enter")
        else:
            page.locator("#answer").fill("1")
            page.keyboard.press("Enter")
        expect(page.get_by_test_id("came")).to_be_visible()
        if len(seen) == 2:
            sound(page)
        page.get_by_role("button", name="On", exact=True).click()
        expect(page.get_by_test_id("came")).to_be_hidden()
    expect(page.get_by_text(re.compile(r"seconds left · \d+ of \d+ right"))).to_be_visible()
