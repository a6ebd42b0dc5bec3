"""Makes docs/screenshots anew from the demo data: every main view, light and dark, wide and narrow, and a page of the record."""

import os
import subprocess
import sys
import tempfile
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

from tools import chromium, serving
from tools.house import ROOT
from tools.real_server import Person, running_server

FOLDER = ROOT / "docs" / "screenshots"
WIDE, PHONE = (1280, 800), (390, 844)
PASSWORDS = {"della": "hillside-builder", "oren": "hillside-lead"}
View = tuple[str, str, str, tuple[int, int], str]  # name, who, path, size, scheme
VIEWS: tuple[View, ...] = (
    ("floor", "della", "/", WIDE, "light"),
    ("bench-run", "della", "/bench/D6-0013", WIDE, "light"),
    ("bench-drive", "della", "/bench/F4-0047", WIDE, "light"),
    ("bench-wheel", "della", "/bench/Q4-0171", WIDE, "light"),
    ("bench-fits", "della", "/bench/Q4-0176", WIDE, "light"),
    ("bench-lash", "della", "/bench/T4-0202", WIDE, "light"),
    ("bench-joint", "della", "/bench/Q4-0175", WIDE, "light"),
    ("wall", "della", "/wall", WIDE, "dark"),
    ("bench-phone", "della", "/bench/D6-0013", PHONE, "light"),
    ("family", "della", "/families/mallow-2", WIDE, "light"),
    ("twin-v6", "della", "/families/corrie-v6/twin", WIDE, "light"),
    ("bench-marks", "della", "/bench/H4-0102", WIDE, "light"),
    ("describing", "oren", "/families", WIDE, "light"),
    ("looking-back", "della", "/families/quern-4/back?serial=Q4-0176", WIDE, "light"),
    ("bench-clearway", "della", "/bench/C6-0034", WIDE, "light"),
    ("gauges", "della", "/gauges", WIDE, "light"),
    ("bench-pictures", "della", "/bench/T4-0204/pictures", WIDE, "light"),
)


def main() -> int:
    """Start a demo of its own, take every picture, print the record's first page."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder:
        database = Path(folder) / "demo.sqlite3"
        serving.load_demo(database)
        with running_server(database) as port:
            with sync_playwright() as playwright:
                browser = chromium.start(playwright)
                for view in VIEWS:
                    _take(browser, f"http://127.0.0.1:{port}", view)
                _first_run(browser, Path(folder) / "new.sqlite3")
                browser.close()
            _print_record(port, Path(folder))
    print(f"{len(VIEWS) + 2} pictures in docs/screenshots")
    return 0


def _take(browser: Browser, address: str, view: View) -> None:
    name, who, path, (width, height), scheme = view
    narrow = width < 1000
    context = browser.new_context(
        base_url=address,
        viewport={"width": width, "height": height},
        color_scheme="dark" if scheme == "dark" else "light",
        has_touch=narrow,
        is_mobile=narrow,
        reduced_motion="reduce",
    )
    page = context.new_page()
    page.goto(path)
    page.get_by_label("Name").wait_for()
    _sign_in(page, who)
    if name == "describing":
        _describe(page)
    page.wait_for_load_state("networkidle")
    if path.startswith("/bench/"):
        page.locator("main svg, main img").first.wait_for()  # the drawing may come after everything else
    if name == "bench-phone":
        page.get_by_role("button", name="What is meant?").tap()
        page.get_by_role("region", name="What is meant").wait_for()
    if name == "looking-back":
        page.get_by_role("button", name="Main bearing clearance").click()
        page.locator("figure svg").wait_for()
    if name == "bench-drive":
        _lay_wrongly(page)
    page.screenshot(path=FOLDER / f"{name}.png")
    context.close()


# a belt four of which no teeth are known, its path written the wrong way round
BELT_FOUR = {
    "name": "Bracken 4",
    "fuel": "petrol",
    "begins": "short",
    "layout": "inline",
    "cylinders": "4",
    "way": "clockwise from the front",
    "cams": "two",
    "valves": "2 + 2",
    "drives": "belt, oil chain",
    "passes.oil-chain": "crank, oil pump",
    "passes.belt": "crank, idler back, exhaust, intake, tensioner back",
    "known_by": "marks",
    "mark.crank-belt": "notch to arrow",
    "mark.exhaust-wheel": "dot to line on the head at 12",
    "mark.intake-wheel": "dot to edge",
}


def _describe(page: Page) -> None:
    """Answer as a lead would, and stop where there is something to see."""
    page.get_by_role("button", name="Describe an engine").click()
    page.get_by_role("heading", name="What does the shop call this engine?").wait_for()
    draft = page.url.partition("/drafts/")[2].partition("?")[0]
    for made_on, (question, text) in enumerate(BELT_FOUR.items()):
        edit = {"does": "answer", "question": question, "text": text}
        token = next(cookie["value"] for cookie in page.context.cookies() if cookie["name"] == "csrftoken")
        headers = {"X-CSRFToken": token, "Referer": page.url}
        page.request.post(f"/api/drafts/{draft}/edits", data={"edit": edit, "made_on": made_on}, headers=headers)
    page.goto(f"/drafts/{draft}?at=passes.belt")
    page.get_by_text("walked from receiving to hand-over").wait_for()


def _first_run(browser: Browser, database: Path) -> None:
    """A shop of which nothing is there yet, half-way through its ten questions."""
    key = serving.first_key()
    os.environ["GURVO_FIRST_KEY"] = key
    serving.migrate(database)
    with running_server(database) as port:
        page = browser.new_context(viewport={"width": WIDE[0], "height": WIDE[1]}, reduced_motion="reduce").new_page()
        page.goto(f"http://127.0.0.1:{port}/first#{key}")
        for label, text in (("The shop", "Hillside Engine Works"), ("Your name", "Oren Fald"), ("Password of", PASSWORDS["oren"])):
            page.get_by_label(label).fill(text)
            page.keyboard.press("Enter")
        for _ in range(4):
            page.get_by_role("button", name="Later").click()
        page.get_by_label("Example: Heath 4").check()
        page.screenshot(path=FOLDER / "first-run.png")


def _sign_in(page: Page, who: str) -> None:
    page.get_by_label("Name").fill(who)
    page.locator("input[type=password]").fill(PASSWORDS[who])
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Who is at the bench?").wait_for(state="detached")
    page.get_by_role("heading", level=1).wait_for()


def _lay_wrongly(page: Page) -> None:
    """A tooth too few on the slack side and the rest on the pulled run, the crank tried a little on."""
    page.keyboard.press("0")  # the marks look right
    for field, figure in (("line with arrow to left line", "62.5"), ("left line to right line", "66.5")):
        page.get_by_label(field).fill(figure)
    page.get_by_role("button", name="Slack left").click()
    page.keyboard.press("ArrowRight")
    page.get_by_role("status").filter(has_text="5° late").wait_for()


def _print_record(port: int, folder: Path) -> None:
    pdf = folder / "record.pdf"
    pdf.write_bytes(Person(port, "oren", PASSWORDS["oren"]).call("GET", "/api/engines/H4-0101/record.pdf"))
    picture = FOLDER / "record"
    subprocess.run(["pdftoppm", "-r", "90", "-f", "1", "-l", "1", "-singlefile", "-png", pdf, picture], check=True)


if __name__ == "__main__":
    sys.exit(main())
