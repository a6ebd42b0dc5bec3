"""The lead and the people of the shop, through the real interface."""

from django.contrib.auth.models import User
from django.test import Client
from playwright.sync_api import expect

from shop.people import change_person
from shop.roles import role_of
from tests.browser.case import BrowserCase
from tests.server.cases import PASSWORD


class PeopleTests(BrowserCase):
    def test_the_lead_adds_somebody_refused_names_stay_typed_and_lets_him_leave(self):
        self.sign_in("lena")
        self.page.get_by_role("link", name="People").click()
        form = self.page.get_by_role("form", name="Add a person")
        form.get_by_label("Sign-in name").fill("b o")
        form.get_by_label("Name on tape and paper").fill("Nils")
        form.get_by_label("First password").fill("seven-birch-planks")
        self.type("Enter")
        self.says(self.alert, "would be taken for somebody who is there already")
        expect(form.get_by_label("Name on tape and paper")).to_have_value("Nils")
        form.get_by_label("Sign-in name").fill("nils")
        self.type("Enter")
        row = self.page.get_by_role("row").filter(has_text="Nils nils")
        self.see(row)
        row.get_by_role("button", name="Has left").click()
        self.says(row, "has left")
        row.get_by_role("button", name="Is back").click()
        row.get_by_label("Role of Nils").select_option("lead")
        expect(row.get_by_label("Role of Nils")).to_have_value("lead")

    def test_whoever_came_by_pin_is_asked_for_his_password_and_then_it_goes_on(self):
        for name, pin in (("vi", "7301"), ("lena", "52094")):
            change_person(User.objects.get(username=name), pin=pin)
        self.sign_in("vi")
        self.page.get_by_role("button", name="Vi viewer").click()
        change = self.page.get_by_role("dialog", name="Change of person")
        change.get_by_role("button", name="Lena").click()
        change.get_by_label("PIN or password").fill("52094")
        self.type("Enter")
        expect(change).to_have_count(0)
        self.page.get_by_role("link", name="People").click()
        role = self.page.get_by_label("Role of Bo")
        role.select_option("viewer")
        asked = self.page.get_by_role("dialog", name="Your password, once more")
        asked.locator("input").fill("52094")
        self.type("Enter")
        self.see(asked.get_by_text("A PIN is not enough here"))
        asked.locator("input").fill(PASSWORD)
        self.type("Enter")
        expect(asked).to_have_count(0)
        expect(role).to_have_value("viewer")
        self.assertEqual(role_of(User.objects.get(username="bo")), "viewer")

    def test_a_key_for_a_program_is_told_once_and_taken_back(self):
        """By keyboard from the name at the top of the Floor."""
        self.sign_in("bo")
        self.page.get_by_role("button", name="Bo builder").click()
        self.page.get_by_role("link", name="Keys for programs").click()
        self.see(self.headed("Keys for programs"))
        self.page.get_by_label("What it is for").fill("stock robot")
        self.type("Enter")
        self.see(self.page.get_by_text("it is not shown again"))
        key = self.page.locator("code").inner_text()
        program = Client(headers={"Authorization": f"Bearer {key}"})
        self.assertEqual(program.get("/api/v1/keys").json()[0]["name"], "stock robot")
        self.page.get_by_role("button", name="Take back").click()
        expect(self.page.get_by_role("button", name="Take back")).to_have_count(0)
        self.assertEqual(program.get("/api/v1/keys").status_code, 401)

    def test_nobody_else_is_led_there(self):
        self.sign_in("bo")
        expect(self.page.get_by_role("link", name="People")).to_have_count(0)
        self.page.goto("/people")
        self.reads("Only the lead has to do with people")

    def test_a_bench_left_alone_keeps_what_was_typed_and_changes_hands_by_pin(self):
        for name, pin in (("bo", "7301"), ("lena", "52094")):
            change_person(User.objects.get(username=name), pin=pin)
        self.page.clock.install()
        self.at_the_bench()
        self.find_tdc()
        self.type("16.2")
        self.page.clock.fast_forward("16:00")
        left = self.page.get_by_role("dialog", name="Gurvo was left alone")
        left.get_by_label("PIN or password").press_sequentially("7302")
        self.type("Escape", "Enter")
        self.see(left.get_by_text("Name and PIN do not belong together"))
        for digit in "7301":
            left.get_by_role("button", name=digit, exact=True).click()
        left.get_by_role("button", name="Go on").click()
        expect(left).to_have_count(0)
        expect(self.page.locator("[data-figure]").first).to_have_value("16.2")
        self.type("h")
        change = self.page.get_by_role("dialog", name="Change of person")
        change.get_by_role("button", name="Lena").click()
        change.get_by_label("PIN or password").fill("52094")
        self.type("Enter")
        expect(change).to_have_count(0)
        expect(self.page.locator("[data-figure]").first).to_have_value("16.2")
        self.page.locator("[data-figure]").first.press("Enter")
        self.says(self.tape.first, "Lena")
