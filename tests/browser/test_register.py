"""The Register, and what every view owes to those who do not use a mouse."""

import re
from collections.abc import Callable
from pathlib import Path

import pytest
from playwright.sync_api import Page, Route, expect

from entrick.core.summary import Summary
from entrick.store import Store, add_job
from pages import sound


def test_jobs_are_listed_opened_copied_and_archived(page: Page, desk: str, quiet: None) -> None:
    page.goto(desk)
    expect(page.get_by_role("article", name="OY-014 Paddle pawl link")).to_be_visible()
    # Every job shows its outline.
    drawn = (
        "[...document.querySelectorAll('article img')].every(i => i.complete && i.naturalWidth > 0)"
    )
    page.wait_for_function(f"() => {drawn}")
    page.get_by_role("button", name="Copy Latch plate").click()
    # A copy is another drawing, and takes the next number.
    expect(page.get_by_role("heading", name="OY-076 Latch plate")).to_be_visible()
    page.get_by_role("link", name="Register", exact=True).click()
    expect(page.get_by_role("button", name="Copy Latch plate")).to_have_count(2)
    # What is archived stays where it was until the page is left: a slip is put back in place.
    page.get_by_role("button", name="Archive Latch plate").first.click()
    expect(page.get_by_role("button", name="Put back Latch plate")).to_be_focused()
    expect(page.get_by_text("OY-076 Latch plate is archived.")).to_be_visible()
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Archive Latch plate").first.click()
    expect(page.get_by_role("button", name="Put back Latch plate")).to_be_visible()
    page.get_by_role("button", name="Show archived jobs").click()
    page.get_by_role("button", name="Take back Latch plate").click()
    page.get_by_role("button", name="Back to the jobs at work").click()
    expect(page.get_by_role("button", name="Archive Latch plate")).to_have_count(2)


def test_back_gives_the_register_as_it_was_left(page: Page, desk: str, quiet: None) -> None:
    page.goto(desk)
    page.set_viewport_size({"width": 900, "height": 500})
    page.get_by_label("Find").fill("e")
    page.get_by_label("Order").select_option("by number")
    expect(page).to_have_url(re.compile("find=e&order=drawing"))
    # The list as it was before stands until the one that is asked for has come.
    page.wait_for_function(
        """() => {
            const names = [...document.querySelectorAll('article')].map((each) => each.ariaLabel);
            return names.length > 9 && names.every((name, i) => !i || names[i - 1] <= name);
        }"""
    )
    # What comes late, a notice over the list or a picture in it, moves what is in view.
    page.wait_for_load_state("networkidle")
    # What has the focus stands in view: going there scrolls no further.
    page.get_by_role("article", name=re.compile("OY-074")).get_by_role("link").last.focus()
    page.wait_for_function("() => document.querySelector('main').scrollTop > 100")
    at = page.evaluate("document.querySelector('main').scrollTop")
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Order of work").wait_for()
    page.go_back()
    expect(page.get_by_label("Find")).to_have_value("e")
    page.wait_for_function(f"() => Math.abs(document.querySelector('main').scrollTop - {at}) < 2")


def test_a_job_is_begun_with_its_heading_and_a_letter_is_no_job(
    page: Page, desk: str, tmp_path: Path, quiet: None
) -> None:
    letter = tmp_path / "letter.txt"
    letter.write_text("Dear Sir,\n\nplease find our offer.\n", "utf-8")
    page.goto(desk)
    page.get_by_label("Open a plan from disk").set_input_files(letter)
    expect(page.get_by_role("alert")).to_contain_text("letter.txt: Not a plan")
    page.get_by_role("button", name="New job").click()
    expect(page.get_by_label("Drawing number")).to_have_value("OY-076")
    page.get_by_label("Title", exact=True).fill("Sluice key")
    page.get_by_label("Drawing number").fill("OY-014")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="OY-014 Sluice key")).to_be_visible()
    page.get_by_role("link", name="Register", exact=True).click()
    expect(page.get_by_text("another job has this number")).to_have_count(2)


def test_a_plan_is_opened_from_disk(page: Page, desk: str, tmp_path: Path, quiet: None) -> None:
    plan = tmp_path / "gate.entrick"
    plan.write_text(
        'plan "Gate paddle"\nO = datum\nc = circle, centre O, radius 30\nrim = line in, c\n',
        "utf-8",
    )
    page.goto(desk)
    page.get_by_label("Open a plan from disk").set_input_files(plan)
    expect(page.get_by_role("heading", name="Gate paddle")).to_be_visible()
    expect(page.locator("circle.mark-outline")).to_have_count(1)


def test_what_is_not_a_plan_is_refused_in_words(page: Page, desk: str, tmp_path: Path) -> None:
    junk = tmp_path / "photo.entrick"
    junk.write_bytes(b"\xff\xd8\xff\xe0" + bytes(range(256)))
    page.goto(desk)
    page.get_by_label("Open a plan from disk").set_input_files(junk)
    expect(page.get_by_role("alert")).to_contain_text("a plan is text, and this is not")


def test_no_page_at_all_breaks_no_rule_of_access_either(page: Page, desk: str) -> None:
    page.goto(f"{desk}/no/such/page")
    page.locator("main a").first.wait_for()
    sound(page)


def test_no_part_of_the_bench_breaks_a_rule_of_access(page: Page, desk: str) -> None:
    page.add_init_script("localStorage.setItem('entrick.lesson', '2')")
    page.goto(f"{desk}/jobs/2")
    page.locator("svg.sheet").first.wait_for()
    sound(page, "working, with the first job")
    for tab in ("Sheet", "Findings", "Text", "Revisions", "Working"):
        page.get_by_role("tab", name=re.compile(tab)).click()
        sound(page, tab, within="[role=tabpanel][data-state=active]")
    page.locator("li[data-line] > button").nth(7).click()
    page.get_by_role("article").first.wait_for()
    sound(page, "card", within="article")
    page.get_by_role("button", name="Line in by region").click()
    sound(page, "region")
    page.keyboard.press("Escape")
    box = page.get_by_role("combobox", name="The next statement")
    box.fill("ci")
    page.get_by_role("listbox").wait_for()
    sound(page, "row", within="form:has([role=combobox]), [role=listbox]")
    box.fill("arc9 = arc, radius 9, touching wheel.pitch, touching wheel.outside")
    box.press("Enter")
    page.get_by_role("alert").first.wait_for()
    sound(page, "candidates")
    page.get_by_role("button", name="Issue…").click()
    page.get_by_text("Check scale and units").wait_for()
    sound(page, "issue", within="[role=dialog]")


def test_the_whole_first_job_can_be_done_from_the_keyboard(
    page: Page, desk: str, quiet: None
) -> None:
    page.goto(desk)
    page.get_by_role("button", name="New job").focus()
    page.keyboard.press("Enter")
    page.keyboard.type("Keeper plate")
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Order of work").wait_for()
    for row in ("O = datum", "c = circle, centre O, radius 40", "rim = line in, c"):
        page.keyboard.press("n")
        page.keyboard.type(row)
        page.keyboard.press("Enter")
        expect(page.get_by_role("combobox", name="The next statement")).to_have_value("")
        page.keyboard.press("Shift+Tab")
        page.locator("svg.sheet").focus()
    expect(page.locator("circle.mark-outline")).to_have_count(1)
    page.keyboard.press("+")
    page.keyboard.press("ArrowLeft")
    page.keyboard.press("0")
    page.keyboard.press("[")
    expect(page.get_by_test_id("step-text")).to_contain_text("of")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("Control+s")
    expect(page.get_by_text("Revision 2 saved.")).to_be_visible()


def test_where_the_spread_does_not_fit_the_sheet_lies_above_the_notebook(
    page: Page, desk: str
) -> None:
    """640 by 400 is 1280 by 800 at a zoom of 200 %. Nothing scrolls sideways, however long the title."""
    page.goto(f"{desk}/jobs/2")
    page.get_by_role("tab", name="Sheet").click()
    page.get_by_label("Title", exact=True).fill("Clock wheel of the upper gate " * 4)
    page.get_by_label("Title", exact=True).press("Enter")
    expect(page.get_by_role("heading", name="Clock wheel of the upper gate")).to_be_attached()
    for width, height in ((800, 1200), (390, 844), (900, 700)):
        page.set_viewport_size({"width": width, "height": height})
        page.wait_for_function("""() => {
            const [sheet, tabs] = ["svg.sheet", "[role=tablist]"].map((each) =>
                document.querySelector(each).getBoundingClientRect());
            return sheet.y < tabs.y && sheet.x < 50
        }""")
        assert page.evaluate("document.documentElement.scrollWidth") <= width
    # Where there is no room for both they take turns, each with most of the window.
    page.set_viewport_size({"width": 640, "height": 400})
    page.get_by_role("tab", name="Working").click()
    expect(page.locator("svg.sheet")).to_have_count(0)
    assert (page.get_by_role("tabpanel").bounding_box() or {})["height"] > 250
    page.get_by_role("tab", name="Drawing").click()
    assert (page.locator("svg.sheet").bounding_box() or {})["height"] > 200
    assert page.evaluate("document.documentElement.scrollWidth") <= 640


def test_a_place_has_an_address_that_can_be_reloaded_and_left_with_back(
    page: Page, desk: str
) -> None:
    page.goto(f"{desk}/jobs/2")
    page.get_by_role("tab", name="Findings").click()
    expect(page).to_have_title(re.compile("^Findings of Clock wheel"))
    page.get_by_role("tab", name="Working").click()
    page.locator("li[data-line] button").nth(1).click()
    expect(page).to_have_url(re.compile(r"entry=wheel"))
    page.get_by_role("button", name="[ back").click()
    expect(page).to_have_url(re.compile(r"step=\d+"))
    page.reload()
    expect(page.get_by_role("article", name="Setting card of wheel")).to_be_visible()
    page.go_back()
    expect(page.get_by_role("article")).to_have_count(0)
    page.go_back()
    expect(page.get_by_role("tab", name="Findings")).to_have_attribute("aria-selected", "true")
    page.goto(f"{desk}/jobs/2/proof")
    expect(page).to_have_title(re.compile("^Proof of Clock wheel"))
    page.get_by_role("link", name="Register", exact=True).click()
    expect(page).to_have_title(re.compile("^Register"))
    page.goto(f"{desk}/nowhere/at/all")
    expect(page.get_by_role("link", name="To the register", exact=True)).to_be_visible()


@pytest.mark.own_context
def test_links_stay_where_they_are_when_the_job_comes(page: Page, desk: str) -> None:
    """Who is about to press one does not press another."""
    worked = list[Route]()
    page.route("**/api/work", lambda route: worked.append(route))
    with page.expect_request("**/api/work"):
        page.goto(f"{desk}/jobs/20")
    link = page.get_by_role("link", name="On the sheet")
    before = link.bounding_box()
    worked.pop().continue_()
    expect(page.get_by_role("heading", name="Paddle pawl link")).to_be_visible()
    page.wait_for_function("document.querySelector('li[data-line]')")
    assert link.bounding_box() == before


@pytest.mark.own_context
def test_whoever_leaves_the_bench_before_it_is_there_is_not_called_back(
    page: Page, desk: str
) -> None:
    """The page one goes to comes last of all: the bench says where it is meanwhile."""
    worked, looking = list[Route](), list[Route]()
    page.route("**/api/work", lambda route: worked.append(route))
    page.route("**/assets/jobs._jobId.look-*.js", lambda route: looking.append(route))
    with page.expect_request("**/api/work"):
        page.goto(f"{desk}/jobs/20?entry=gone")
    with page.expect_request("**/assets/jobs._jobId.look-*.js"):
        page.get_by_role("link", name="On the sheet").click()
    with page.expect_response("**/api/work"):
        worked.pop().continue_()
    page.wait_for_function("document.querySelector('li[data-line]')")
    looking.pop().continue_()
    expect(page.get_by_label("Choose a picture of the sheet")).to_be_attached()
    assert page.url.endswith("/jobs/20/look")


def test_a_plan_is_dropped_on_the_register_and_what_is_none_is_told_what_it_is(
    page: Page, desk: str
) -> None:
    def drop(name: str, text: str) -> None:
        data = page.evaluate_handle(
            "([name, text]) => { const d = new DataTransfer(); d.items.add(new File([text], name)); return d }",
            [name, text],
        )
        page.get_by_role("main").dispatch_event("drop", {"dataTransfer": data})

    page.goto(desk)
    page.get_by_role("article").first.wait_for()
    drop("gate.pdf.txt", "%PDF-1.7")
    expect(page.get_by_role("alert")).to_contain_text("not a plan")
    drop("gate.dxf", "0\nSECTION\n2\nHEADER\n")
    expect(page.get_by_role("alert")).to_contain_text("no line, arc or circle")
    page.goto(desk)
    page.get_by_role("article").first.wait_for()
    drop("gate.entrick", 'plan "Dropped gate"\nunits mm\nO = datum\n')
    expect(page.get_by_role("heading", name="Dropped gate")).to_be_visible()


def test_a_bare_profile_dropped_on_the_register_becomes_a_job(page: Page, desk: str) -> None:
    page.goto(desk)
    page.get_by_role("article").first.wait_for()
    data = page.evaluate_handle(
        "() => { const d = new DataTransfer(); d.items.add(new File(['x,y\\n0,0\\n60,0\\n60,40\\n0,40\\n'], 'lid.csv'));"
        " return d }"
    )
    page.get_by_role("main").dispatch_event("drop", {"dataTransfer": data})
    expect(page.get_by_label("The plan that was read back")).to_have_value(
        re.compile("box, 60 by 40")
    )
    page.get_by_role("button", name="Enter it in the register").click()
    expect(page.get_by_role("heading", name="lid")).to_be_visible()
    page.get_by_role("tab", name="Revisions").click()
    expect(page.get_by_text(re.compile("read back from lid.csv"))).to_be_visible()


def test_another_tab_is_told_when_a_revision_is_saved_and_shown_what_differs(
    page: Page, desk: str
) -> None:
    page.goto(f"{desk}/jobs/2")
    other = page.context.new_page()
    other.goto(f"{desk}/jobs/2")
    for tab in (page, other):
        tab.get_by_role("heading", name="Order of work").wait_for()
    for tab, bore in ((page, "Ø1 1/4"), (other, "Ø1 3/8")):
        tab.get_by_label("b", exact=True).fill(bore)
        tab.get_by_label("b", exact=True).press("Enter")
        expect(tab.get_by_role("status").filter(has_text="unsaved")).to_be_visible()
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("Revision 2 saved.")).to_be_visible()
    expect(other.get_by_role("alert")).to_contain_text("was saved in another tab")
    other.get_by_role("button", name="Compare the two").click()
    differs = other.get_by_role("list", name="What differs")
    expect(differs.get_by_text("only in yours")).to_have_count(1)
    expect(differs).to_contain_text("1 3/8")
    expect(differs).to_contain_text("1 1/4")
    other.close()


def test_the_first_job_is_gone_through_task_by_task_on_the_bench(
    page: Page, desk: str, store: Store
) -> None:
    page.goto(desk)
    page.get_by_label("Find").fill("no such job at all")
    expect(page.get_by_text("No job has")).to_be_visible()
    for job in range(1, 21):
        page.request.patch(
            f"{desk}/api/jobs/{job}", data={"archived": True}, headers={"Origin": desk}
        )
    page.goto(desk)
    page.get_by_role("button", name="Set out a first job, in two minutes").click()
    lesson = page.get_by_role("region", name="Lesson: A link")
    for task in range(1, 8):
        expect(lesson).to_contain_text(f"task {task} of 7")
        lesson.get_by_role("button", name="Write it for me").click()
    expect(lesson).to_contain_text("lined in")
    # A lesson ends with its job saved, and says what comes next.
    expect(page.get_by_text("Revision 2 saved.")).to_be_visible()
    lesson.get_by_role("button", name="The next lesson").click()
    lesson = page.get_by_role("region", name="Lesson: A cam")
    expect(lesson).to_contain_text("task 1 of 4")
    # Own names are no dead end.
    for row in ("mid = datum", "lobe = cam, about mid, least 38, rise 180° by 20, fall 180° by 20"):
        page.keyboard.press("n")
        page.keyboard.type(row)
        page.keyboard.press("Enter")
        expect(page.get_by_role("combobox", name="The next statement")).to_have_value("")
        page.locator("svg.sheet").focus()
    lesson.get_by_role("button", name="Write it for me: rim = line in, lobe").click()
    expect(lesson).to_contain_text("task 4 of 4")
    page.go_back()
    expect(page.locator(".mark-outline")).not_to_have_count(0)
    page.get_by_role("tab", name="Findings").click()
    page.get_by_text(re.compile("^In order")).click()
    expect(page.get_by_text("rim is closed").first).to_be_visible()


def test_a_job_that_is_not_there_is_said(page: Page, desk: str) -> None:
    page.goto(f"{desk}/jobs/999")
    expect(page.get_by_role("status")).to_contain_text("there is no job 999")


def test_what_the_desk_cannot_reach_is_said_and_kept(
    page: Page, desk: str, bench: Callable[[str], int]
) -> None:
    bench("O = datum\n")
    page.route("**/api/jobs/*/revisions", lambda route: route.abort())
    box = page.get_by_role("combobox", name="The next statement")
    box.fill("c = circle, centre O, radius 8")
    box.press("Enter")
    expect(page.locator("circle.mark-construction")).to_have_count(1)
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("status").filter(has_text="does not answer")).to_be_visible()
    page.unroute("**/api/jobs/*/revisions")
    page.reload()
    expect(page.locator("circle.mark-construction")).to_have_count(1)


def test_of_many_jobs_those_wanted_are_found_a_page_at_a_time(
    page: Page, desk: str, store: Store, quiet: None
) -> None:
    with store.writing() as session:
        for number in range(120):
            add_job(
                session, "", made=Summary(title=f"Stud {number:03}", drawing=f"OY-{900 - number}")
            )
        add_job(
            session,
            "z = run, from O\n",
            made=Summary(title="Odd run", mistakes=1, trouble="line 1: O is nowhere"),
        )
    page.goto(desk)
    expect(page.get_by_text("page 1 of 3")).to_be_visible()
    expect(page.get_by_role("article", name="Odd run")).to_contain_text("line 1: O is nowhere")
    page.get_by_role("button", name="Next page").click()
    expect(page.get_by_text("page 2 of 3")).to_be_visible()
    page.get_by_label("Find").fill("stud 00")  # ten titles, and one number
    expect(page.get_by_role("article", name="Stud")).to_have_count(11)
    expect(page.get_by_role("status").first).to_have_text("11 jobs")
    page.get_by_label("Order").select_option("by number")
    expect(page.get_by_role("article", name="Stud").first).to_contain_text("OY-800")
    page.get_by_label("Find").fill("nothing of the sort")
    expect(page.get_by_text("No job has “nothing of the sort”")).to_be_visible()


def test_the_register_is_taken_away_and_taken_in(
    page: Page, desk: str, tmp_path: Path, quiet: None
) -> None:
    page.goto(desk)
    with page.expect_download() as caught:
        page.get_by_role("button", name="Take away…").click()
    kept = tmp_path / "register.zip"
    caught.value.save_as(kept)
    page.get_by_label("Take in a register from disk").set_input_files(kept)
    expect(page.get_by_text("0 jobs entered, 20 were there already.")).to_be_visible()
    (tmp_path / "bad.zip").write_bytes(b"PK nothing")
    page.get_by_label("Take in a register from disk").set_input_files(tmp_path / "bad.zip")
    expect(page.get_by_text("this file is no zip")).to_be_visible()


def test_a_plan_that_asks_for_too_much_opens_on_its_text(
    page: Page, desk: str, quiet: None
) -> None:
    def weary(route: Route) -> None:
        answer = route.fetch()
        route.fulfill(
            response=answer,
            json={**answer.json(), "entries": [], "trouble": "this asks for too much"},
        )

    page.route("**/api/work", weary)
    page.goto(f"{desk}/jobs/2")
    expect(page.get_by_role("alert")).to_contain_text("this asks for too much")
    expect(page.get_by_role("tab", name="Text")).to_have_attribute("aria-selected", "true")
    expect(page.get_by_role("textbox", name="Plan")).to_contain_text("O = datum")


def test_a_busy_desk_is_asked_again_and_what_was_typed_is_kept(
    page: Page, bench: Callable[[str], int], quiet: None
) -> None:
    bench("O = datum\n")
    turns: list[int] = []

    def busy(route: Route) -> None:
        turns.append(1)
        if len(turns) <= 2:
            route.fulfill(
                status=503, headers={"Retry-After": "1"}, json={"title": "The desk is busy"}
            )
        else:
            route.fallback()

    page.route("**/api/work", busy)
    box = page.get_by_role("combobox", name="The next statement")
    box.fill("c = circle, centre O, radius 8")
    box.press("Enter")
    expect(page.locator("circle.mark-construction")).to_have_count(1)
    assert len(turns) >= 3


def test_the_proof_can_be_loaded_by_its_address(page: Page, desk: str, quiet: None) -> None:
    page.goto(f"{desk}/jobs/2/proof")
    expect(page.get_by_role("heading", name="Proof of OY-074 Clock wheel")).to_be_visible()


@pytest.mark.parametrize("view", ["", "jobs/2", "jobs/2/proof"])
def test_a_view_prints_as_a_page_without_buttons_or_cut_offs(
    page: Page, desk: str, view: str
) -> None:
    page.goto(f"{desk}/{view}")
    page.locator("article img, svg.sheet").first.wait_for()
    page.emulate_media(media="print")
    assert page.evaluate(
        "[...document.querySelectorAll('.act')].every(b => b.getClientRects().length === 0)"
    )
    cut = "[...document.querySelectorAll('main, .page')].filter(e => e.scrollHeight > e.clientHeight + 2).length"
    assert page.evaluate(cut) == 0
    assert page.pdf().startswith(b"%PDF")


def test_every_value_entered_is_undone_by_itself(page: Page, desk: str) -> None:
    page.goto(f"{desk}/jobs/2")
    bore = page.get_by_label("b", exact=True)
    before = bore.input_value()
    for value in ("Ø1 1/4", "Ø1 3/8"):
        bore.fill(value)
        bore.press("Enter")
        expect(page.get_by_role("status").filter(has_text="unsaved")).to_be_visible()
    for value in ("Ø1 1/4", before):
        page.get_by_role("button", name="Undo").click()
        expect(bore).to_have_value(value)
    expect(page.get_by_role("button", name="Undo")).to_be_focused()
