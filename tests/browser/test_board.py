"""At the board: through the steps by keys and touch, with the desk away, and what the logbook makes of it."""

import re
import shutil
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Locator, Page, expect

from entrick.core.summarize import summarize
from entrick.demo.jobs import load
from entrick.store import Store, list_sittings, save_revision
from entrick.web.http.app import create_app
from entrick.web.http.pairing import local_address
from pages import sound
from processes import on_the_network
from serving import Serving


def begin(page: Page, desk: str, job: int = 1) -> None:
    page.goto(f"{desk}/jobs/{job}/board")
    page.get_by_role("button", name="Begin a sitting").click()
    expect(page.get_by_text(re.compile("^1 of "))).to_be_visible()
    page.keyboard.press("Space")
    expect(page.get_by_text("Keys and foot switch are awake")).to_be_visible()


def at(page: Page, number: int) -> None:
    expect(page.get_by_text(re.compile(f"^{number} of "))).to_be_visible()


def on_until(page: Page, sign: Locator) -> None:
    """Go on step by step until the one at hand shows something."""
    while not sign.is_visible():
        number = int(page.get_by_text(re.compile(r"^\d+ of ")).inner_text().split()[0])
        page.keyboard.press("Space")
        at(page, number + 1)


def test_steps_are_gone_through_by_keys_and_the_sitting_goes_on_where_it_was(
    page: Page, desk: str, store: Store, quiet: None
) -> None:
    begin(page, desk)
    for key in (
        "Space",
        "ArrowRight",
        "PageDown",
        "ArrowLeft",
        "Space",
        "Space",
        "Space",
        "Space",
        "Space",
    ):
        page.keyboard.press(key)
    at(page, 8)
    expect(page.get_by_test_id("current-step")).to_be_attached()
    expect(page.get_by_role("status").filter(has_text="all is in the logbook")).to_be_visible()
    page.reload()
    at(page, 8)
    with store.reading() as session:
        (sitting,) = list_sittings(session)
    assert [event.kind for event in sitting.events].count("done") == 8
    assert [event.number for event in sitting.events] == list(range(1, 10))
    assert all(event.seconds >= 0 for event in sitting.events)


@pytest.mark.parametrize("reloaded", [False, True], ids=["page left open", "page reloaded"])
def test_with_the_desk_stopped_nothing_is_lost_and_everything_is_sent_once_in_order(
    page: Page, store: Store, reloaded: bool
) -> None:
    load(store, summarize)
    desk = Served(store)
    begin(page, desk.address)
    expect(page.get_by_text("Kept here for when the desk is away")).to_be_visible()
    page.keyboard.press("Space")
    at(page, 2)
    expect(page.get_by_role("status").filter(has_text="all is in the logbook")).to_be_visible()
    desk.stop()
    if reloaded:
        page.reload()
        at(page, 2)
    for _ in range(5):
        page.keyboard.press("Space")
    at(page, 7)
    page.get_by_label("Note").fill("lead was blunt")
    page.get_by_role("button", name="Keep").click()
    expect(page.get_by_role("status").filter(has_text="6 kept here")).to_be_visible()
    if reloaded:
        page.reload()
        at(page, 7)
        # On to a step with a setting: its picture is there too.
        on_until(page, page.locator("img[src*='setting.svg']"))
        assert (
            page.locator("img[src*='setting.svg']").evaluate(
                "i => i.decode().then(() => i.naturalWidth)"
            )
            > 0
        )
    desk.start()
    expect(page.get_by_role("status").filter(has_text="all is in the logbook")).to_be_visible()
    with store.reading() as session:
        (sitting,) = list_sittings(session)
    numbers = [event.number for event in sitting.events]
    assert numbers == list(range(1, len(numbers) + 1))
    assert len(numbers) >= 7
    assert [event.text for event in sitting.events if event.kind == "note"] == ["lead was blunt"]
    desk.stop()


class Served:
    """A desk that can be stopped and started again at its address."""

    def __init__(self, store: Store) -> None:
        self.store, self.port = store, 0
        self.start()

    def start(self) -> None:
        self.serving = Serving(create_app(self.store), self.port)
        self.port = self.serving.port

    def stop(self) -> None:
        self.serving.stop()

    @property
    def address(self) -> str:
        return f"http://127.0.0.1:{self.port}"


def on(page: Page, count: int) -> None:
    for _ in range(count):
        number = int(page.get_by_text(re.compile(r"^\d+ of ")).inner_text().split()[0])
        page.keyboard.press("Space")
        at(page, number + 1)


def in_logbook(page: Page) -> None:
    expect(page.get_by_role("status").filter(has_text="all is in the logbook")).to_be_visible()


def done_in(store: Store) -> list[int]:
    """Return the steps done in the one sitting there is, once each event is numbered once."""
    with store.reading() as session:
        (sitting,) = list_sittings(session)
    numbers = [event.number for event in sitting.events]
    assert numbers == list(range(1, len(numbers) + 1))
    return [event.step for event in sitting.events if event.kind == "done"]


def test_two_pages_of_one_job_go_on_with_one_sitting(
    page: Page, desk: str, store: Store, quiet: None
) -> None:
    begin(page, desk)
    other = page.context.new_page()
    other.goto(f"{desk}/jobs/1/board")
    at(other, 1)
    other.keyboard.press("Space")
    expect(other.get_by_text("Keys and foot switch are awake")).to_be_visible()
    on(page, 2)
    at(other, 3)
    on(other, 2)
    at(page, 5)
    on(page, 1)
    in_logbook(page)
    in_logbook(other)
    assert done_in(store) == [0, 1, 2, 3, 4]


def test_another_device_goes_on_where_the_first_was_and_the_first_follows(
    page: Page, browser: Browser, desk: str, store: Store, quiet: None
) -> None:
    begin(page, desk)
    on(page, 3)
    in_logbook(page)
    tablet = browser.new_context().new_page()
    tablet.goto(f"{desk}/jobs/1/board")
    tablet.get_by_role("button", name="Go on with step 4").click()
    at(tablet, 4)
    on(tablet, 2)
    in_logbook(tablet)
    # The first device has not heard of it yet, or has: either way nothing is lost.
    page.get_by_label("Note").fill("from the first")
    page.get_by_role("button", name="Keep", exact=True).click()
    at(page, 6)
    in_logbook(page)
    assert done_in(store) == [0, 1, 2, 3, 4]
    tablet.context.close()


def test_what_is_measured_with_the_desk_away_is_kept_and_compared_when_it_answers(
    page: Page, store: Store
) -> None:
    load(store, summarize)
    desk = Served(store)
    begin(page, desk.address)
    on_until(page, page.get_by_text(re.compile("compass$")))
    size = float(re.findall(r"[\d.]+", page.get_by_test_id("board-setting").inner_text())[0])
    desk.stop()
    page.get_by_label("Measured across").fill(f"{2 * size:g}")
    page.get_by_role("button", name="Compare").click()
    expect(page.get_by_text("it is compared when the desk answers")).to_be_visible()
    desk.start()
    in_logbook(page)
    with store.reading() as session:
        (sitting,) = list_sittings(session)
    assert [event.text for event in sitting.events if event.kind == "measured"] == [f"{2 * size:g}"]
    desk.stop()


def test_before_one_begins_the_first_acts_the_time_and_the_kit_are_shown(
    page: Page, desk: str
) -> None:
    page.goto(f"{desk}/jobs/1/board")
    expect(
        page.get_by_role("heading", name=re.compile(r"\d+ steps, about \d+ minutes, with"))
    ).to_be_visible()
    expect(page.get_by_role("listitem")).to_have_count(3)


def test_the_picture_comes_to_the_act_with_a_small_map(page: Page, desk: str) -> None:
    begin(page, desk)
    on_until(page, page.get_by_text(re.compile("compass$")))
    expect(page.get_by_test_id("map")).to_be_visible()
    act = page.get_by_test_id("current-step").bounding_box()
    assert act is not None
    assert max(act["width"], act["height"]) > 100, "it is seen from where one draws"


def test_a_key_does_what_the_page_says_whatever_was_touched_last(page: Page, desk: str) -> None:
    """The first stray key marks nothing; after Back, Pause and a touch on the sheet the space bar still is Done."""
    begin(page, desk)
    at(page, 1)
    for number in (2, 3):
        page.keyboard.press("Space")
        at(page, number)
    page.get_by_role("button", name="Back", exact=True).click()
    at(page, 2)
    page.keyboard.press("Space")
    at(page, 3)
    page.get_by_role("button", name="Pause").click()
    page.keyboard.press("Space")
    at(page, 4)
    page.mouse.click(900, 400)  # on the sheet
    page.keyboard.press("ArrowRight")
    at(page, 5)
    # Gone to by keys, a button is pressed by them.
    page.get_by_role("button", name="Back", exact=True).focus()
    page.keyboard.press("Tab")
    page.keyboard.press("Shift+Tab")
    page.keyboard.press("Space")
    at(page, 4)


def test_a_step_left_lying_pauses_by_itself(page: Page, desk: str) -> None:
    page.clock.install()
    begin(page, desk)
    page.clock.run_for(11 * 60_000)
    expect(page.get_by_role("button", name="Go on")).to_be_visible()
    page.get_by_role("button", name="Go on").click()
    expect(page.get_by_role("button", name="Pause")).to_be_visible()


def test_a_measured_slip_is_named_and_noted_in_two_touches_and_comes_into_the_logbook(
    page: Page, desk: str
) -> None:
    begin(page, desk)
    # On to the first circle: before it the sheet is made ready, and places are measured.
    on_until(page, page.get_by_text(re.compile("compass$")))
    reading = page.get_by_test_id("board-setting").inner_text()
    size = float(re.findall(r"[\d.]+", reading)[0])
    page.get_by_label("Measured across").fill(f"{4 * size:g}")
    page.get_by_role("button", name="Compare").click()
    expect(page.get_by_test_id("verdict")).to_contain_text("a slip")
    page.get_by_role("button", name=re.compile("the diameter was set for the radius")).click()
    page.get_by_label("Measured across").fill(f"{2 * size:g}")
    page.get_by_role("button", name="Compare").click()
    expect(page.get_by_test_id("verdict")).to_contain_text("within the line")
    page.get_by_role("button", name="Done", exact=True).click()
    expect(page.get_by_role("status").filter(has_text="all is in the logbook")).to_be_visible()
    page.get_by_role("link", name="Logbook").click()
    expect(page.get_by_role("cell", name="the diameter was set for the radius")).to_be_visible()
    page.get_by_role("button", name="Take out").click()
    expect(page.get_by_role("cell", name="the diameter was set for the radius")).to_have_count(0)
    page.get_by_role("button", name="Put back").click()
    expect(page.get_by_role("cell", name="the diameter was set for the radius")).to_be_visible()


def test_a_revision_saved_meanwhile_is_said_and_one_goes_on_with_the_old_one(
    page: Page, desk: str, store: Store
) -> None:
    begin(page, desk)
    page.keyboard.press("Space")
    at(page, 2)
    expect(page.get_by_role("status").filter(has_text="all is in the logbook")).to_be_visible()
    with store.writing() as session:
        save_revision(session, 1, "units mm\nO = datum\n", 1)
    page.reload()
    expect(page.get_by_role("alert")).to_contain_text("this sitting goes on with revision 1")
    at(page, 2)
    page.get_by_role("button", name="Begin anew with 2").click()
    at(page, 1)


@pytest.mark.parametrize("size", [(1280, 800), (800, 1200), (390, 844)])
def test_the_step_at_hand_needs_no_scrolling_and_breaks_no_rule_of_access(
    page: Page, desk: str, size: tuple[int, int]
) -> None:
    page.set_viewport_size({"width": size[0], "height": size[1]})
    begin(page, desk)
    for _ in range(12):
        page.keyboard.press("Space")
    at(page, 13)
    done = page.get_by_role("button", name="Done", exact=True).bounding_box()
    assert done is not None
    assert done["y"] + done["height"] <= size[1]
    assert done["height"] >= 56
    assert page.evaluate("document.documentElement.scrollWidth") <= size[0]
    sound(page)


def test_a_kit_is_changed_shows_what_it_lacks_and_becomes_the_usual_one(
    page: Page, desk: str, quiet: None
) -> None:
    page.goto(f"{desk}/jobs/1")
    page.get_by_role("heading", name="Order of work").wait_for()
    page.get_by_role("link", name="Kits").click()
    page.get_by_role("navigation", name="Every kit").get_by_role("button", name="bare").click()
    lacks = page.get_by_role("region", name="What it lacks")
    expect(lacks).to_contain_text("no set squares")
    page.get_by_label("Set squares, 45° and 30/60").check()
    expect(lacks).not_to_contain_text("no set squares")
    page.get_by_label("Rule, finest graduation, mm").fill("wide")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_role("status")).to_contain_text("graduation: wide is no size")
    page.get_by_label("Rule, finest graduation, mm").fill("1")
    page.get_by_role("button", name="Keep as the usual kit").click()
    expect(page.get_by_role("button", name="my bare · usual")).to_be_visible()
    sound(page)


def test_a_phone_comes_in_by_the_code_and_goes_on_with_the_desk_stopped(
    page: Page, tmp_path: Path, sample_register: Path
) -> None:
    """Over this machine's own address in its network, where it has one: there a browser gives no service worker."""
    try:
        host = local_address()
    except ValueError:
        host = "127.0.0.2"
    register = Path(shutil.copy(sample_register, tmp_path / "r.db"))
    with on_the_network(register, host) as desk:
        page.set_viewport_size({"width": 390, "height": 844})
        page.goto(f"http://{host}:{desk.port}/jobs/1/board")
        page.get_by_label("The code of six figures the desk shows").fill(
            "000000" if desk.code != "000000" else "1"
        )
        page.get_by_role("button", name="Come in").click()
        expect(page.get_by_role("alert")).to_contain_text("not the code")
        sound(page)
        page.get_by_label("The code of six figures the desk shows").fill(desk.code)
        page.get_by_role("button", name="Come in").click()
        page.get_by_text("Bearing cap").wait_for()
        page.goto(f"http://{host}:{desk.port}/jobs/1/board")
        page.get_by_role("button", name="Begin a sitting").click()
        at(page, 1)
        words = "keeps what is recorded, but not the page" if host != "127.0.0.2" else "Kept here"
        expect(page.get_by_text(words)).to_be_visible()
        page.keyboard.press("Space")
        page.keyboard.press("Space")
        expect(page.get_by_role("status").filter(has_text="all is in the logbook")).to_be_visible()
        desk.process.terminate()
        desk.process.wait(30)
        for _ in range(3):
            page.get_by_role("button", name="Done", exact=True).click()
        at(page, 5)
        expect(page.get_by_role("status").filter(has_text="3 kept here")).to_be_visible()


def test_a_sitting_is_put_right_in_the_logbook_and_that_undone(
    page: Page, desk: str, quiet: None
) -> None:
    begin(page, desk)
    for _ in range(3):
        page.keyboard.press("Space")
    expect(page.get_by_role("status").filter(has_text="all is in the logbook")).to_be_visible()
    page.get_by_role("link", name="Logbook").click()
    page.get_by_role("button", name=re.compile("what happened in the sitting")).click()
    page.get_by_role("button", name="Correct event 2").click()
    page.get_by_label("Seconds of event 2").fill("300")
    page.get_by_role("button", name="Keep").click()
    # The seconds of each instrument are put right as well: the event's own row is meant.
    event = page.get_by_role("row").filter(has=page.get_by_role("button", name="Correct event 2"))
    expect(event.get_by_role("cell", name="300", exact=True)).to_be_visible()
    expect(
        page.get_by_role("row", name=re.compile("Bearing cap")).get_by_role(
            "cell", name="5", exact=True
        )
    ).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("cell", name="300", exact=True)).to_have_count(0)
    page.get_by_role("button", name="Take out event 3").click()
    expect(page.get_by_role("button", name="Correct event 3")).to_have_count(0)
    sound(page)
