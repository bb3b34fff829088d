"""Takes the pictures of docs/screenshots from the demo data: ``make screenshots``; of some views
alone, ``python -m bench.screenshots FOLDER proof office``.

A picture in which nothing has changed stays as it is: the repository keeps every one that is
written anew."""

from __future__ import annotations

import argparse
import io
import math
import re
from collections.abc import Callable, Collection
from pathlib import Path
from tempfile import TemporaryDirectory

from PIL import Image, ImageChops
from playwright.sync_api import Page, expect

from entrick.core.compare import Laid
from entrick.core.desk import work_out
from entrick.core.formats import write_cutter_dxf
from entrick.core.geometry import Point
from entrick.demo import sample_plans

from .browser import demo_page, open_sample


def main(folder: Path, wanted: Collection[str]) -> None:
    """Take one picture of each main view, or of those that are wanted."""
    folder.mkdir(parents=True, exist_ok=True)
    with demo_page() as (page, address):
        # Nothing is marked as just changed, and nothing moves.
        page.emulate_media(reduced_motion="reduce")
        for name, show in VIEWS.items():
            if not wanted or name in wanted:
                show(page, address)
                page.wait_for_load_state("networkidle")
                page.evaluate("() => document.fonts.ready")
                put(folder / f"{name}.png", page.screenshot(animations="disabled"))


def _register(page: Page, address: str) -> None:
    page.goto(address)
    page.wait_for_selector("article img")


def _bench(page: Page, address: str) -> None:
    open_sample(page, address, "OY-014")
    page.get_by_test_id("takes").wait_for()


def _setting_card(page: Page, address: str) -> None:
    _bench(page, address)
    page.locator("li[data-line] > button").nth(7).click()
    page.get_by_role("button", name="Needle on B, swing for the centre").click()
    page.mouse.move(900, 740)


def _kinds(page: Page, address: str) -> None:
    _bench(page, address)
    page.get_by_role("button", name="Choose a kind").click()
    page.wait_for_function(
        "() => [...document.querySelectorAll('[role=option] img')].slice(0, 20)"
        ".every((each) => each.complete)"
    )


def _handbook(page: Page, address: str) -> None:
    page.goto(f"{address}/handbook")
    page.get_by_label("Find in the handbook").fill("blend")
    page.get_by_role("region", name="Found").get_by_role("link").first.click()
    page.get_by_role("heading", name="Usual mistake").wait_for()


def _proof(page: Page, address: str) -> None:
    open_sample(page, address, "OY-031")
    page.get_by_role("link", name="Proof").click()
    page.get_by_role("row", name=re.compile("bore")).first.wait_for()
    page.mouse.move(900, 790)


def _cam(page: Page, address: str) -> None:
    open_sample(page, address, "OY-072")
    page.locator("li[data-line] > button").filter(has_text="Cam ").first.click()
    page.get_by_role("button", name="Worksheet").click()
    page.get_by_role("slider").last.fill("75")


def _sheet(page: Page, address: str) -> None:
    open_sample(page, address, "OY-027")
    page.get_by_role("tab", name="Sheet").click()


def _issue(page: Page, address: str) -> None:
    open_sample(page, address, "OY-027")
    page.get_by_role("tab", name="Text").click()
    page.get_by_role("button", name="Issue…").click()


def _board(page: Page, address: str) -> None:
    open_sample(page, address, "OY-027")
    page.get_by_role("link", name="At the board").click()
    page.get_by_role("button", name="Begin a sitting").click()
    place = page.get_by_text(re.compile(r"^\d+ of "))
    place.wait_for()
    page.keyboard.press("Space")  # the first key marks nothing
    while not page.get_by_text(re.compile("compass$")).is_visible():
        before = place.inner_text()
        page.keyboard.press("Space")
        expect(place).not_to_have_text(before)
    page.get_by_label(re.compile("^Measured (back|across)")).fill("3 3/4")
    page.get_by_role("button", name="Compare").click()


def _kits(page: Page, address: str) -> None:
    open_sample(page, address, "OY-075")
    page.get_by_role("link", name="Kits").click()
    page.get_by_role("button", name="bare").click()
    page.get_by_text("steps more").first.wait_for()


def _logbook(page: Page, address: str) -> None:
    page.goto(f"{address}/logbook")
    page.get_by_text("rehearsed, not drawn").first.wait_for()


def _practice(page: Page, address: str) -> None:
    open_sample(page, address, "OY-014")
    page.get_by_role("link", name="Practice").click()
    page.get_by_role("checkbox", name="with new givens").uncheck()
    page.get_by_role("checkbox", name=re.compile("was wrong comes back")).uncheck()
    page.get_by_role("button", name="Begin a round").click()
    page.get_by_test_id("question").wait_for()
    # The arc around the big eye: added for subtracted, it is (220 + 66) / 2 = 143.
    wanted = re.compile("top = arc.*Needle on A, swing for the centre: what is", re.DOTALL)
    while not wanted.search(_question(page)):
        _answer_anything(page)
    page.locator("#answer").fill("143")
    page.keyboard.press("Enter")
    page.get_by_test_id("wrong").wait_for()


def _on_the_sheet(page: Page, address: str) -> None:
    open_sample(page, address, "OY-014")
    page.get_by_role("link", name="On the sheet").click()
    page.get_by_role("button", name="one photographed askew").click()
    page.get_by_test_id("looked").wait_for()
    page.mouse.move(900, 790)


def _class(page: Page, address: str) -> None:
    page.goto(f"{address}/class")
    page.get_by_role("checkbox", name=re.compile("OY-014")).check()
    page.get_by_label("Students").fill("4")
    page.get_by_role("button", name="Make the set").click()
    page.get_by_text("The set has 4 papers").wait_for()


def _profile(page: Page, address: str) -> None:
    page.goto(f"{address}/profile")
    page.get_by_role("button", name="Try one of the lock yard").click()
    page.get_by_role("button", name="Enter it in the register").wait_for()


def _cutter(page: Page, address: str) -> None:
    open_sample(page, address, "OY-041")
    page.goto(f"{page.url.partition('?')[0]}/cutter")
    page.get_by_role("combobox", name="Machine").select_option("router")
    page.get_by_label("Width of the cut").fill("6")
    page.get_by_role("checkbox", name=re.compile("The machine is set to")).check()
    page.get_by_role("button", name="Cut it").click()
    page.get_by_test_id("cut-came").wait_for()
    work = "svg[aria-label^='The machine at work'] path"
    page.wait_for_function("paths => document.querySelectorAll(paths).length > 24", arg=work)
    page.get_by_role("button", name="Pause").click()


def _compare(page: Page, address: str) -> None:
    open_sample(page, address, "OY-041")
    with TemporaryDirectory() as there:
        page.goto(f"{page.url.partition('?')[0]}/compare")
        page.get_by_label("Choose what was made").set_input_files(_made(Path(there)))
        page.get_by_test_id("held").wait_for()


def _office(page: Page, address: str) -> None:
    """Let several people of the yard work at the desk."""
    page.goto(f"{address}/office")
    page.get_by_label("Name", exact=True).fill("Ostler Harrow")
    page.get_by_label("Initials, as in the title block").fill("OH")
    page.get_by_role("button", name="Keep").click()
    for name, initials, role in (
        ("Brindle Ash", "BA", "draws"),
        ("Tarn Sedge", "TS", "checks"),
        ("Wick Fenner", "WF", "draws"),
    ):
        page.get_by_label("Name of whoever comes").fill(name)
        page.get_by_label("Their initials").fill(initials)
        page.get_by_label("Their role").select_option(role)
        page.get_by_role("button", name="Let them work here").click()
        page.get_by_label(f"Role of {name}").wait_for()


def _made(folder: Path) -> Path:
    """Write a profile of the bracket of the yard as it came off a machine: its hub too large, its
    bore too small, and turned."""
    text = next(text for name, text in sample_plans().items() if "041" in name)
    work = work_out(text.replace("R40", "R40.5").replace("Ø44", "Ø43.6"))
    lying = Laid(math.radians(20), Point(30.0, 12.0))
    path = folder / "made.dxf"
    loops = [lying.moved(loop) for loop in work.outlines]
    path.write_text(write_cutter_dxf(loops, work.solution.unit), "utf-8")
    return path


def _question(page: Page) -> str:
    """Return what is asked; after the last question of a round, of another one."""
    if page.get_by_test_id("score").count():
        page.get_by_role("button", name="Another round").click()
    return page.get_by_test_id("question").inner_text()


def _answer_anything(page: Page) -> None:
    """Answer a question that is not the one to be shown, and go on."""
    if page.locator("#answer").count():
        page.locator("#answer").fill("1")
        page.keyboard.press("Enter")
    elif page.get_by_label("The pointer").count():
        page.get_by_label("The pointer").press("Enter")
    elif page.get_by_text("Touch the steps").count():
        for step in page.locator("section[aria-label='The question'] ul button").all():
            step.click()
        page.get_by_role("button", name="That is the order").click()
    else:
        page.keyboard.press("1")
    page.get_by_role("button", name="On", exact=True).click()
    page.get_by_test_id("came").wait_for(state="hidden")
    page.locator("[data-testid=score], [data-testid=question]").first.wait_for()


VIEWS: dict[str, Callable[[Page, str], None]] = {
    "register": _register,
    "bench": _bench,
    "setting-card": _setting_card,
    "kinds": _kinds,
    "handbook": _handbook,
    "proof": _proof,
    "cam": _cam,
    "sheet": _sheet,
    "issue": _issue,
    "board": _board,
    "kits": _kits,
    "logbook": _logbook,
    "practice": _practice,
    "on-the-sheet": _on_the_sheet,
    "class": _class,
    "profile": _profile,
    "cutter": _cutter,
    "compare": _compare,
    "office": _office,
}
"""How each view is come to: the office last, as several work at the desk from then on."""


FAINT = 8
"""Levels of grey, of 255, that two pictures of the same page may differ by."""


def put(path: Path, taken: bytes) -> None:
    """Write a picture, unless the one that is there shows the same."""
    fresh = Image.open(io.BytesIO(taken)).convert("RGB")
    if path.is_file():
        kept = Image.open(path).convert("RGB")
        if kept.size == fresh.size:
            apart = ImageChops.difference(kept, fresh).convert("L")
            if apart.getextrema()[1] <= FAINT:
                return
    path.write_bytes(taken)


if __name__ == "__main__":
    asked = argparse.ArgumentParser(description="Take one picture of each main view.")
    asked.add_argument("folder", type=Path)
    asked.add_argument("views", nargs="*", choices=[*VIEWS, []], help="these alone")
    parsed = asked.parse_args()
    main(parsed.folder, parsed.views)
