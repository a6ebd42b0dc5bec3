"""Turning the twin in Chromium, by the browser's own tracing: frames a second, and what each frame costs.

The yardstick in the same run is a bare page on which one small square is moved at every animation frame.
"""

import json
from itertools import pairwise

from playwright.sync_api import Browser, Page, sync_playwright

from benchmarks.browser import sign_in
from benchmarks.timing import p50_p95
from tools import chromium

AIM_MS = 17.0
CATEGORIES = ["devtools.timeline", "disabled-by-default-devtools.timeline.frame", "cc", "viz"]
FAMILIES = ("corrie-v6", "tarn-f4")
# a held key repeats about thirty times a second
HOLD_KEY = """() => new Promise((done) => {
    let left = 90;
    const timer = setInterval(() => {
        window.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true, cancelable: true }));
        left -= 1;
        if (left === 0) { clearInterval(timer); setTimeout(done, 100); }
    }, 33);
})"""
MOVE_SQUARE = """() => new Promise((done) => {
    const square = document.createElement('div');
    square.style = 'position:fixed;top:0;width:50px;height:50px;background:gray;will-change:transform';
    document.body.append(square);
    let at = 0;
    const step = () => {
        square.style.transform = `translateX(${at}px)`;
        at += 1;
        if (at < 180) requestAnimationFrame(step); else { square.remove(); done(); }
    };
    requestAnimationFrame(step);
})"""


def measure(port: int) -> None:
    """Print frames a second and the cost of frames while a key is held, beside the bare square's."""
    with sync_playwright() as playwright:
        browser = chromium.start(playwright)
        page = browser.new_context(bypass_csp=True, base_url=f"http://127.0.0.1:{port}", viewport={"width": 1280, "height": 800}).new_page()
        sign_in(page)
        report("bare square", traced(browser, page, MOVE_SQUARE))
        for code in FAMILIES:
            page.goto(f"/families/{code}/twin")
            page.get_by_label("Turn to").wait_for()
            page.wait_for_timeout(1500)
            report(f"twin {code}", traced(browser, page, HOLD_KEY))
            page.evaluate("document.activeElement.blur()")
            page.keyboard.press("v")
            page.get_by_label("The engine from the side, turning").wait_for()
            report(f"twin {code}, all cylinders", traced(browser, page, HOLD_KEY))
        browser.close()


def traced(browser: Browser, page: Page, script: str) -> list[dict]:
    """What the browser says of itself while a script runs."""
    browser.start_tracing(page=page, categories=CATEGORIES)
    page.evaluate(script)
    events: list[dict] = json.loads(browser.stop_tracing())["traceEvents"]
    return events


def _durations_ms(events: list[dict], name: str) -> list[float]:
    return [event["dur"] / 1000 for event in events if event["name"] == name and "dur" in event]


def report(what: str, events: list[dict], aim_ms: float = AIM_MS) -> None:
    """Print frames a second and what each cost."""
    drawn = sorted(event["ts"] / 1000 for event in events if event["name"] == "DrawFrame")
    apart = [b - a for a, b in pairwise(drawn)]
    page_ms, draw_ms = (_durations_ms(events, name) for name in ("ProxyMain::BeginMainFrame", "DirectRenderer::DrawFrame"))
    within = [sum(ms < aim_ms for ms in taken) / len(taken) for taken in (page_ms, draw_ms, apart)]
    per_second = 1000 * len(apart) / (drawn[-1] - drawn[0])
    print(f"{what:31} {per_second:8.1f}   frames a second; between two p50 {p50_p95(apart)[0]:.1f}, p95 {p50_p95(apart)[1]:.1f}")
    costs = f"page p95 {p50_p95(page_ms)[1]:.1f}, drawing p95 {p50_p95(draw_ms)[1]:.1f}"
    shares = f"work of {100 * min(within[:2]):.0f} % under {aim_ms:g} (aim 95), {100 * within[2]:.0f} % less than that apart"
    print(f"  {shares}; {costs}")
