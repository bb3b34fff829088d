"""The real application, served on a free port, driven in Debian's Chromium."""

from collections.abc import Callable, Iterable, Iterator
from threading import Condition
from typing import Any

import pytest
from flask import Flask
from playwright.sync_api import Browser, BrowserContext, ConsoleMessage, Page, expect

from entrick.store import Store, add_job
from entrick.web.http.pages import STATIC
from registers import desk_on
from serving import Serving

# What must come, comes however busy the machine is: waits are for states, and no test is about speed.
expect.set_options(timeout=60_000)

CHROMIUM = [
    "--headless",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--process-per-site",
    "--renderer-process-limit=1",
    # Pages live for seconds: what is compiled for them once is compiled well enough.
    "--js-flags=--no-maglev --no-turbofan",
]


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, object]:
    return {"executable_path": "/usr/bin/chromium", "args": CHROMIUM}


@pytest.fixture(scope="session")
def browser_context_args() -> dict[str, object]:
    return {"viewport": {"width": 1280, "height": 800}, "accept_downloads": True}


@pytest.fixture(scope="session")
def shared(browser: Browser, browser_context_args: dict[str, object]) -> Iterator[BrowserContext]:
    """One context for all tests: what it has fetched and compiled is there for the next."""
    context = browser.new_context(**browser_context_args)  # type: ignore[arg-type]
    # A page comes, too, however busy the machine is.
    context.set_default_navigation_timeout(120_000)
    context.set_default_timeout(60_000)
    context.new_page()
    yield context
    context.close()


@pytest.fixture
def context(
    request: pytest.FixtureRequest,
    shared: BrowserContext,
    browser: Browser,
    browser_context_args: dict[str, object],
) -> Iterator[BrowserContext]:
    """A context with nothing in it of an earlier test; one of its own where a test asks for it."""
    if request.node.get_closest_marker("own_context"):
        own = browser.new_context(**browser_context_args)  # type: ignore[arg-type]
        yield own
        own.close()
        return
    yield shared
    shared.unroute_all()
    for page in shared.pages[1:]:
        page.close()


@pytest.fixture
def page(context: BrowserContext) -> Page:
    return context.new_page()


@pytest.fixture
def store(file_store: Store) -> Store:
    return file_store


class Served:
    """A server that stays while the register behind it is another in every test."""

    def __init__(self) -> None:
        self._desk: Flask | None = None
        self._answering, self._asked = Condition(), 0
        self.address = Serving(self).address

    def __call__(self, environ: dict[str, Any], start: Any) -> Iterable[bytes]:
        assert self._desk is not None
        with self._answering:
            self._asked += 1
        try:
            return self._desk(environ, start)
        finally:
            with self._answering:
                self._asked -= 1
                self._answering.notify_all()

    def work_on(self, store: Store) -> None:
        """Serve another register: what was asked of the one before is answered first."""
        with self._answering:
            self._answering.wait_for(lambda: self._asked == 0)
            self._desk = desk_on(store)


@pytest.fixture(scope="session")
def served() -> Served:
    assert (STATIC / "index.html").is_file(), "the front end is not built: run make build"
    return Served()


@pytest.fixture
def desk(
    store: Store, fill: Callable[[Store], None], served: Served, context: BrowserContext
) -> Iterator[str]:
    """Serve the desk with the sample jobs; return its address."""
    fill(store)
    served.work_on(store)
    yield served.address
    # What a page keeps in the browser is no business of the next test's: nor what it would keep yet.
    for each in context.pages[1:]:
        each.close()
    page = context.pages[0] if context.pages else context.new_page()
    context.new_cdp_session(page).send(
        "Storage.clearDataForOrigin", {"origin": served.address, "storageTypes": "all"}
    )
    context.clear_cookies()


@pytest.fixture
def quiet(page: Page) -> Iterator[None]:
    """Fail a test in which the page complains: scripts, styles, refused content."""
    complaints: list[str] = []

    def hear(message: ConsoleMessage) -> None:
        # What is refused in words, or not answered, is told to the drafter; the browser notes it here as well.
        expected = any(
            sign in message.text
            for sign in (
                "401",
                "403",
                "404",
                "409",
                "422",
                "503",
                "net::ERR_FAILED",
                "net::ERR_ABORTED",
            )
        )
        if message.type in ("error", "warning") and not expected:
            complaints.append(message.text)

    page.on("console", hear)
    page.on("pageerror", lambda error: complaints.append(str(error)))
    yield
    assert not complaints


@pytest.fixture
def bench(page: Page, desk: str, store: Store, quiet: None) -> Callable[[str], int]:
    """Put a plan in the register and open it on the bench."""

    def open_bench(text: str) -> int:
        with store.writing() as session:
            job = add_job(session, text)
        page.goto(f"{desk}/jobs/{job.id}")
        page.get_by_role("heading", name="Order of work").wait_for()
        return job.id

    return open_bench


@pytest.fixture
def click_stroke(page: Page) -> Callable[..., None]:
    """Click a drawn stroke where it is drawn, by the name a click on it refers to."""

    def click(name: str, along: float = 0.3) -> None:
        # What can be pointed at follows the sheet a moment later.
        page.wait_for_selector(f'g[data-name="{name}"] > *', state="attached")
        place = page.evaluate(
            """async ([name, along]) => {
                const place = () => {
                    const shape = document.querySelector(`g[data-name="${name}"] > *`);
                    const point = shape.getPointAtLength(shape.getTotalLength() * along)
                        .matrixTransform(shape.getScreenCTM());
                    return [point.x, point.y];
                };
                // A sheet that is just being laid out anew is not clicked where it was.
                const seen = [place()];
                while (seen.length < 4) {
                    await new Promise(requestAnimationFrame);
                    const now = place();
                    if (`${now}` !== `${seen[0]}`) seen.length = 0;
                    seen.push(now);
                }
                return seen[0];
            }""",
            [name, along],
        )
        page.mouse.click(*place)

    return click
