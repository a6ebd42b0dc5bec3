"""The lead and the people of the shop, through the real interface."""

from playwright.sync_api import expect

from tests.browser.case import BrowserCase


class PeopleTests(BrowserCase):
    def test_the_lead_adds_somebody_refused_names_stay_typed_and_lets_him_leave(self):
        self.sign_in("lena")
        self.page.get_by_role("link", name="People").click()
        form = self.page.get_by_role("form", name="Add a person")
        form.get_by_label("Sign-in name").fill("b o")
        form.get_by_label("Name on tape and paper").fill("Nils")
        form.get_by_label("First password").fill("seven-birch-planks")
        self.type("Enter")
        expect(self.page.get_by_role("alert")).to_contain_text("would be taken for somebody who is there already")
        expect(form.get_by_label("Name on tape and paper")).to_have_value("Nils")
        form.get_by_label("Sign-in name").fill("nils")
        self.type("Enter")
        row = self.page.get_by_role("row").filter(has_text="Nils nils")
        expect(row).to_be_visible()
        row.get_by_role("button", name="Has left").click()
        expect(row).to_contain_text("has left")
        row.get_by_role("button", name="Is back").click()
        row.get_by_label("Role of Nils").select_option("lead")
        expect(row.get_by_label("Role of Nils")).to_have_value("lead")

    def test_nobody_else_is_led_there(self):
        self.sign_in("bo")
        expect(self.page.get_by_role("link", name="People")).to_have_count(0)
        self.page.goto("/people")
        expect(self.page.get_by_text("Only the lead has to do with people")).to_be_visible()
