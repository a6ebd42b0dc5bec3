"""Makes docs/screenshots anew from the demo data: every main view, light and dark, wide and narrow, and a page of the record."""

import json
import subprocess
import sys
import tempfile
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

from tools import chromium, serving
from tools.house import ROOT
from tools.real_server import Person, running_server

FOLDER = ROOT / "docs" / "screenshots"
WIDE, TABLET, PHONE = (1280, 800), (820, 1180), (390, 844)
PASSWORDS = {"della": "hillside-builder", "oren": "hillside-lead"}
View = tuple[str, str | None, str, tuple[int, int], str]  # name, who, path, size, scheme
VIEWS: tuple[View, ...] = (
    ("sign-in", None, "/", WIDE, "light"),
    ("floor", "della", "/", WIDE, "light"),
    ("bench-run", "della", "/bench/F4-0045", WIDE, "light"),
    ("bench-drive", "della", "/bench/F4-0047", WIDE, "light"),
    ("bench-wheel", "della", "/bench/Q4-0171", WIDE, "light"),
    ("bench-wheel-dark", "della", "/bench/Q4-0170", WIDE, "dark"),
    ("bench-fits", "della", "/bench/Q4-0176", WIDE, "light"),
    ("bench-lash", "della", "/bench/T4-0202", WIDE, "light"),
    ("bench-joint", "della", "/bench/Q4-0175", WIDE, "light"),
    ("bench-tablet", "della", "/bench/B8-0002", TABLET, "light"),
    ("bench-phone", "della", "/bench/Q4-0175", PHONE, "light"),
    ("family", "della", "/families/mallow-2", WIDE, "light"),
    ("twin-v6", "della", "/families/corrie-v6/twin", WIDE, "light"),
    ("bench-marks", "della", "/bench/H4-0102", WIDE, "light"),
    ("import", "oren", "/import", WIDE, "light"),
    ("people", "oren", "/people", WIDE, "light"),
    ("gauges", "della", "/gauges", WIDE, "light"),
    ("workings", "della", "/workings", WIDE, "light"),
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
                browser.close()
            _print_record(port, Path(folder))
    print(f"{len(VIEWS) + 1} pictures in docs/screenshots")
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
    if who:
        _sign_in(page, who)
    if path == "/import":
        page.get_by_label("Document", exact=True).fill(_spoilt_document())
        page.get_by_text("Cannot be taken in.").wait_for()
    page.wait_for_load_state("networkidle")
    if path.startswith("/bench/"):
        page.locator("main svg").first.wait_for()  # the drawing may come after everything else
    if name == "bench-drive":
        _lay_wrongly(page)
    page.screenshot(path=FOLDER / f"{name}.png")
    context.close()


def _spoilt_document() -> str:
    """A family's document with a few slips, as somebody might type it."""
    data = json.loads((ROOT / "demo" / "families" / "wick-1.json").read_text("utf-8"))
    data["drive"]["wheels"][1]["teeth"] = 33
    data["drive"]["marks"][1]["clock_deg"] = 240
    data["lash"][0]["most_mm"] = 0.01
    data["camshafts"][0]["lobes"][0]["profile"] = "in-lob"
    return json.dumps(data, indent=1)


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
    pdf.write_bytes(Person(port, "oren", PASSWORDS["oren"]).call("GET", "/api/engines/Q4-0169/record.pdf"))
    picture = FOLDER / "record"
    subprocess.run(["pdftoppm", "-r", "90", "-f", "1", "-l", "1", "-singlefile", "-png", pdf, picture], check=True)


if __name__ == "__main__":
    sys.exit(main())
