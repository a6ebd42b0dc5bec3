"""Drives the real interface with Debian's Chromium, against a live server on a database of its own."""

import atexit
import os
import re
from functools import cache
from time import monotonic, time

from axe_playwright_python.sync_playwright import Axe
from django.conf import settings
from django.contrib.auth.models import User
from django.contrib.staticfiles.testing import LiveServerTestCase
from django.test import Client
from playwright.sync_api import Browser, BrowserContext, Locator, Page, expect, sync_playwright

from shop.confirming import PASSWORD_AT
from tests.server.cases import PASSWORD, fill_shop
from tools import chromium

DESK = {"width": 1280, "height": 800}
TABLET = {"width": 820, "height": 1180}
PHONE = {"width": 390, "height": 844}
PATIENCE_MS = 120_000  # a busy machine is slow, and that is no fault of the page
expect.set_options(timeout=PATIENCE_MS)


@cache
def one_chromium() -> Browser:
    """The one Chromium of this process, started when the first test asks for it."""
    # its loop runs in this thread from now on; the ORM is used beside it, never inside it
    os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"
    playwright = sync_playwright().start()
    # a microphone that beeps by itself, which everybody may use
    browser = chromium.start(playwright, "--use-fake-device-for-media-stream", "--use-fake-ui-for-media-stream")
    atexit.register(playwright.stop)
    atexit.register(browser.close)
    return browser


def plain(words: str) -> str:
    """Words as they are looked for wherever they stand: in any case, however they are spaced."""
    return " ".join(words.lower().split())


def as_written(words: str, any_case: bool = False) -> re.Pattern[str]:
    """Words letter by letter, however they are spaced."""
    return re.compile(r"\s+".join(map(re.escape, words.split())), re.IGNORECASE if any_case else 0)


class BrowserCase(LiveServerTestCase):
    """One Chromium for all tests of a process, a new context for each test."""

    browser: Browser
    context: BrowserContext
    page: Page

    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.browser = one_chromium()

    def setUp(self):
        fill_shop()
        self.errors: list[str] = []
        self.open()

    def tearDown(self):
        self.context.close()
        self.assertEqual(self.errors, [], "the page threw")

    def open(self, viewport=DESK, **how):
        """A new context, as another person on another machine would have."""
        if getattr(self, "context", None):
            self.context.close()
        self.context = self.browser.new_context(
            viewport=viewport, base_url=self.live_server_url, **{"service_workers": "block", "reduced_motion": "reduce", **how}
        )
        self.context.set_default_timeout(PATIENCE_MS)
        self.page = self.context.new_page()
        self.page.on("pageerror", lambda error: self.errors.append(str(error)))

    def sign_in(self, name="bo", path="/"):
        """Be signed in as after the form, which has tests of its own, and go somewhere."""
        client = Client()
        client.force_login(User.objects.get(username=name), backend="shop.backends.PeopleBackend")
        session = client.session
        session[PASSWORD_AT] = time()
        session.save()
        cookie = client.cookies[settings.SESSION_COOKIE_NAME]
        self.context.add_cookies([{"name": cookie.key, "value": cookie.value, "url": self.live_server_url}])
        self.page.goto(path)
        if path == "/":
            self.see(self.headed("engines on stands"))

    def sign_in_by_form(self, name="bo"):
        """The same through the form, by keyboard."""
        self.page.goto("/")
        self.page.get_by_label("Name").wait_for()
        self.type(name, "Tab", PASSWORD, "Enter")
        self.see(self.headed("engines on stands"))

    def type(self, *keys: str):
        """Press keys by name, type anything else."""
        for key in keys:
            if key in ("Tab", "Enter", "Space", "PageDown", "Escape", "Backspace", "ArrowDown", "ArrowUp"):
                self.page.keyboard.press(key)
            else:
                self.page.keyboard.type(key)

    def see(self, what: Locator):
        """Wait until something is on the screen. (An ``expect`` puts the whole page into words each time it is not there yet.)"""
        what.wait_for()

    def says(self, where: Locator, words: str | re.Pattern[str], any_case: bool = False):
        """Wait until the one part of the screen says this."""
        saying = where.filter(has_text=words if isinstance(words, re.Pattern) else as_written(words, any_case))
        self.see(saying)
        self.assertEqual(saying.count(), 1)

    def focused(self, label: str):
        """Wait until the field with this label takes what is typed."""
        label_of = "() => { const it = document.activeElement; return it.ariaLabel ?? it.labels?.[0]?.textContent }"
        self._until(lambda: self.page.evaluate(label_of), lambda found: found == label, f"not “{label}” has the focus, but")

    def reads(self, words: str):
        """Wait until these words stand on the screen, wherever: the browser's own telling of the page is read, not every element's."""
        shown = self.page.locator("body")
        self._until(shown.inner_text, lambda found: plain(words) in plain(found), f"“{words}” does not stand on the screen")

    def _until(self, look, is_right, otherwise: str):
        until = monotonic() + PATIENCE_MS / 1000
        while not is_right(found := look()):
            self.assertLess(monotonic(), until, f"{otherwise}: {found}")
            self.page.wait_for_timeout(30)

    def part(self, name: str) -> Locator:
        """A part of the screen by the label it carries itself."""
        return self.page.locator(f'[aria-label="{name}"]')

    def headed(self, words: str) -> Locator:
        """A heading with these words."""
        return self.page.locator("h1, h2, h3, h4", has_text=words)

    @property
    def main(self) -> Locator:
        return self.page.locator("main")

    @property
    def alert(self) -> Locator:
        return self.page.locator("[role=alert]")

    def no_rule_is_broken(self, where: str):
        """Library: axe-core's rules; in the dark its contrast, which is all that is other there."""
        for scheme, only in (("light", {}), ("dark", {"runOnly": {"type": "rule", "values": ["color-contrast"]}})):
            self.page.emulate_media(color_scheme=scheme)
            self.page.locator(f"html[data-mantine-color-scheme={scheme}]").wait_for()
            found = Axe().run(self.page, options={"resultTypes": ["violations"], **only}).response["violations"]
            said = [f"{rule['id']}: {node['target']} {node['failureSummary'][:200]}" for rule in found for node in rule["nodes"]]
            with self.subTest(where=where, scheme=scheme):
                self.assertEqual(said, [])

    def asked(self, words: str):
        """Wait until the bench asks this. (Looked for by tag: by role each look works out the role and name of all that is drawn.)"""
        self.see(self.page.locator("h1", has_text=as_written(words)))

    def answer(self, question: str, *keys: str):
        """Wait for a question and answer it by keyboard."""
        self.asked(question)
        self.type(*keys)

    def bench(self, serial="T-1"):
        """Open an engine's bench."""
        self.page.goto(f"/bench/{serial}")
        self.see(self.page.locator("h1"))

    def at_the_bench(self, serial="T-1", name="bo"):
        """Signed in, at an engine's bench."""
        self.sign_in(name, f"/bench/{serial}")
        self.see(self.page.locator("h1"))

    @property
    def tape(self):
        return self.part("Tape").locator("li")

    def find_tdc(self):
        """Everything before degreeing, by keyboard."""
        self.answer("How is your wheel numbered", "x", "Enter")
        self.answer("How will you find true TDC", "1")
        self.answer("Fit the piston stop", "Enter")
        self.answer("Turn forward", "41,5", "Enter")
        self.answer("Turn back", "41", "Enter")
        self.answer("Take over true TDC", "Space")
        self.answer("Take the piston stop out", "PageDown")
        self.asked("intake valve pass 1.00 mm, opening")
