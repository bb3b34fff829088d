"""An office of several people, driven: who works here, the foreman's check, the teacher's week."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from entrick.store import open_store, take_out
from entrick.web.http.app import create_app
from office import DRAWS, office
from serving import Serving

pytestmark = pytest.mark.own_context


@pytest.fixture
def shared_desk(tmp_path: Path) -> Iterator[str]:
    serving = Serving(create_app(office(tmp_path / "office.db")))
    yield serving.address
    serving.stop()


def works(page: Page, name: str) -> None:
    page.get_by_role("list", name="People").get_by_role("button", name=name).click()
    expect(page.get_by_role("button", name=f"{name} works here; change over")).to_be_visible()


def test_a_desk_used_alone_becomes_an_office_and_is_asked_nothing_before(
    page: Page, desk: str, quiet: None
) -> None:
    page.goto(desk)
    expect(page.get_by_role("heading", name="Jobs at work")).to_be_visible()
    expect(page.get_by_role("button", name="works here")).to_have_count(0)
    expect(page.get_by_label("Whose")).to_have_count(0)
    page.get_by_role("link", name="Several people at this desk…").click()
    page.get_by_label("Name").fill("Ostler")
    page.get_by_label("Initials, as in the title block").fill("OS")
    page.get_by_role("button", name="Keep").click()
    page.get_by_label("Name of whoever comes").fill("Brindle")
    page.get_by_label("Their initials").fill("BR")
    page.get_by_role("button", name="Let them work here").click()
    expect(page.get_by_label("Role of Brindle")).to_be_visible()
    page.get_by_role("button", name="Change over to Brindle").click()
    expect(page.get_by_role("button", name="Brindle works here; change over")).to_be_visible()
    expect(page.get_by_role("link", name="For a class")).to_have_count(0)


def test_the_foreman_checks_in_few_presses_and_the_sheet_says_who(
    page: Page, shared_desk: str, quiet: None
) -> None:
    desk = shared_desk
    page.goto(f"{desk}/?only=unchecked")
    works(page, "Tarn")
    page.get_by_role("link", name="Lever 2").click()
    page.get_by_role("button", name="Sign as checked").click()
    expect(page.get_by_role("button", name="Sign as approved")).to_be_visible()
    page.get_by_role("tab", name="Revisions").click()
    expect(page.get_by_text("checked by Tarn")).to_be_visible()
    page.get_by_role("button", name="Issue…").click()
    with page.expect_download() as issued:
        page.get_by_role("button", name="SVG", exact=True).click()
    written = Path(issued.value.path()).read_text("utf-8")
    assert "CHECKED" in written
    page.goto(f"{desk}/?only=unchecked")
    expect(page.get_by_role("link", name="Lever 1")).to_be_visible()
    expect(page.get_by_role("link", name="Lever 2")).to_have_count(0)


def test_the_teacher_sees_a_logbook_in_three_presses_and_who_draws_sees_their_own(
    page: Page, shared_desk: str, quiet: None
) -> None:
    desk = shared_desk
    page.goto(desk)
    works(page, "Ostler")
    page.get_by_role("link", name="Office", exact=True).click()
    page.get_by_role("row", name="Brindle").get_by_role(
        "link", name="Logbook and practice of Brindle"
    ).click()
    expect(page.get_by_text("The logbook and the practice of Brindle")).to_be_visible()
    expect(page.get_by_role("row", name="Lever 2")).to_be_visible()
    page.get_by_role("button", name="Ostler works here; change over").click()
    works(page, "Brindle")
    page.goto(f"{desk}/logbook?person=1")
    expect(page.get_by_role("alert")).to_contain_text("may not see a logbook of others")
    page.goto(f"{desk}/jobs/1")
    page.get_by_role("tab", name="Revisions").click()
    expect(
        page.get_by_text("You may look at it and copy it; saving is for Ostler.")
    ).to_be_visible()


def test_whoever_is_taken_out_is_asked_who_works_here(
    page: Page, tmp_path: Path, shared_desk: str, quiet: None
) -> None:
    page.goto(shared_desk)
    works(page, "Brindle")
    with open_store(tmp_path / "office.db").writing() as session:
        take_out(session, DRAWS)
    page.get_by_role("link", name="Logbook").click()
    expect(page.get_by_role("heading", name="Who works here?")).to_be_visible()
    expect(page.get_by_role("button", name="Brindle")).to_have_count(0)
