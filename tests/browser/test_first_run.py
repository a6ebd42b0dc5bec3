"""An empty shop in the real interface: ten questions by keyboard, an engine on its stand, a tablet at the bench by touch."""

from django.contrib.auth.models import User
from django.test import override_settings

from shop.models import Gauge, Shop
from tests.browser.case import PHONE, BrowserCase
from tests.server.cases import forget_all
from work.models import Engine

KEY = "abcd-efgh-jkmn"


@override_settings(FIRST_KEY=KEY)
class FirstRunTest(BrowserCase):
    """Nobody is there yet."""

    def setUp(self):
        forget_all()
        if not Shop.objects.exists():  # made by a migration, and gone after a test that commits
            Shop.objects.create()
        self.errors = []
        self.open()

    def begin(self):
        """Through the questions of the first lead, by keyboard."""
        self.page.goto(f"/first#{KEY}")
        self.focused("The shop")
        self.type("Fellside Works", "Enter")
        self.focused("Your name, as on tape and paper")
        self.type("Ansel Brook", "Enter")
        self.focused("Password of Ansel Brook")
        self.type("a shed full of cranks", "Enter")
        self.focused("Your PIN")

    def test_ten_questions_by_keyboard(self):
        """From nothing to an engine on stand 1; a reload in between loses neither place nor what was answered."""
        self.begin()
        self.type("4812", "Enter")
        self.focused("Work begins")
        self.page.reload()
        self.focused("Work begins")
        self.type("Enter")
        self.focused("Name on tape and paper")
        self.type("Mira Dale", "Tab", "mira", "Tab", "another long word", "Enter")
        self.see(self.headed("What lies on the shelf?"))
        self.page.get_by_label("degree wheel").focus()
        self.type("Space", "Enter")
        self.see(self.headed("Which engine do you build first?"))
        self.page.get_by_label("Example: Heath 4").focus()
        self.type("Space", "Enter")
        self.focused("Serial")
        self.type("FW-001", "Enter")
        self.see(self.headed("A tablet at the bench?"))
        self.page.get_by_role("button", name="Open the bench of FW-001").focus()
        self.type("Enter")
        self.reads("Look before anything comes off")
        self.assertEqual(Engine.objects.get().stand, 1)
        self.assertEqual(set(User.objects.values_list("username", flat=True)), {"ansel", "mira"})
        self.assertEqual([gauge.code for gauge in Gauge.objects.all()], ["WHEEL-1"])

    def test_left_half_way_the_floor_leads_on(self):
        """What is put off is said on the Floor, and goes on where it stood."""
        self.begin()
        self.page.get_by_role("button", name="Later").click()
        self.see(self.headed("When does the shop work?"))
        self.page.goto("/")
        self.page.get_by_role("link", name="Go on with question 5 of 10").click()
        self.focused("Work begins")

    def test_a_tablet_by_touch(self):
        """Paired by its code, it asks for a name and a PIN with keys for a fingertip."""
        self.begin()
        self.type("4812", "Enter")
        self.focused("Work begins")
        self.page.goto("/people")
        self.page.get_by_role("button", name="Pair a device").click()
        self.page.get_by_role("button", name="Show its code").click()
        self.see(self.page.get_by_alt_text("Square code"))
        code = self.part("Devices at the benches").locator("b", has_text=r"").last.inner_text()
        self.open(PHONE, has_touch=True)
        self.page.goto(f"/pair#{code}")
        self.page.get_by_role("button", name="Keep it at the bench").tap()
        self.see(self.headed("bench 1"))
        self.page.goto("/wall")  # for a screen that nobody touches
        self.see(self.headed("0 engines at work"))
        self.page.goto("/")
        self.see(self.headed("bench 1"))
        for digit in "4812":
            self.page.get_by_role("button", name=digit, exact=True).tap()
        self.page.get_by_role("button", name="I am here").tap()
        self.reads("No engine is on a stand")
