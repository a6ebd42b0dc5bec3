"""An engine described on the real screen by keyboard alone: no JSON, undone, loaded anew, by two leads, handed in and built from."""

import re

from django.contrib.auth.models import Group, User
from playwright.sync_api import expect

from engine.models import Revision
from tests.browser.case import DESK, PHONE, TABLET, BrowserCase
from tests.server.cases import PASSWORD
from writer.models import Draft


class WriterCase(BrowserCase):
    def setUp(self):
        super().setUp()
        greta = User.objects.create_user("greta", password=PASSWORD, first_name="Greta")
        greta.groups.add(Group.objects.get(name="lead"))
        self.sign_in("lena", "/families")
        self.page.get_by_role("button", name="Describe an engine").click()
        self.asked("What does the shop call this engine?")

    @property
    def line(self):
        return self.page.locator("#answer")

    def line_of(self, question, *keys):
        """Wait for a question that takes a line, and for its field; answer it."""
        self.asked(question)
        expect(self.line).to_be_focused()
        self.type(*keys)

    def five_minutes(self):
        self.line_of("What does the shop call", "Bracken 4", "Enter")
        self.answer("What does it burn?", "1")
        self.answer("With what does the work begin?", "2")
        self.answer("How do its cylinders stand?", "1")
        self.line_of("How many cylinders", "4", "Enter")
        self.answer("Which way does it run?", "1")
        self.answer("Where are its cams?", "3")
        self.line_of("How many valves", "2 + 2", "Enter")
        self.line_of("What drives the cams?", "belt", "Enter")
        self.line_of("What does the belt pass", "crank, idler back, exhaust, intake, tensioner back", "Enter")
        self.answer("What takes up the slack of the belt?", "5")


class DescribedTests(WriterCase):
    def test_a_belt_four_with_no_teeth_known_is_described_handed_in_and_begun(self):
        self.five_minutes()
        self.answer("What holds each cam wheel", "2")
        self.says(self.main, "as the one before: a dowel")
        self.type("s")
        self.answer("How is it known that the cams stand right?", "1", "Enter")
        self.answer("Where does the crank stand", "1")
        self.line_of("What shows that the crank wheel stands right?", "notch to arrow", "Enter")
        self.line_of("What shows that the exhaust cam wheel stands right?", "dot to line on the head at 12", "Enter")
        self.line_of("What shows that the intake cam wheel stands right?", "dot", "Enter")
        self.asked("How are the head bolts tightened?")
        self.says(self.page.get_by_role("status"), "Can be built")
        self.says(self.page.get_by_role("status"), "walked from receiving to hand-over")
        self.type("Escape", "e")
        self.asked("The run of work")
        self.type("ArrowDown", "a")
        self.focused("Says")
        self.type("Look at the old belt", "Enter")
        self.see(self.main.get_by_text("Look at the old belt"))
        self.type("i")
        self.focused("Why")
        self.type("as it stands here", "Enter")
        self.page.wait_for_url("**/families/bracken-4")
        revision = Revision.objects.get(family="bracken-4")
        steps = [step["says"] for stage in revision.document["stages"] for step in stage["steps"]]
        self.assertIn("Look at the old belt", steps)
        self.assertIsNone(revision.document["drive"]["wheels"][0]["teeth"])

    def test_a_refusal_points_at_the_word_and_what_is_typed_stays(self):
        self.five_minutes()
        self.page.locator('[data-key="passes.belt"]').click()
        self.asked("What does the belt pass")
        self.line.fill("crank, exhuast, intake")
        self.type("Enter")
        self.says(self.alert, "“exhuast” is no wheel known here")
        expect(self.alert.locator("mark")).to_have_text("exhuast")
        expect(self.line).to_have_value("crank, exhuast, intake")
        self.page.reload()
        self.asked("What does the belt pass")
        expect(self.line).to_have_value("crank, exhuast, intake")

    def test_undone_done_again_and_skipped(self):
        self.line_of("What does the shop call", "Bracken 4", "Enter")
        self.answer("What does it burn?", "2")
        self.answer("With what does the work begin?", "1")
        self.asked("How do its cylinders stand?")
        tape = self.part("Written").locator("li")
        self.says(tape.first, "the bare block")
        self.type("u")
        self.says(tape.first, "diesel")
        self.type("y")
        self.says(tape.first, "the bare block")
        self.type("1")
        self.line_of("How many cylinders", "Enter")  # nothing typed: only on to the next
        self.asked("Which way does it run?")
        self.type("n")
        self.says(tape.first, "not known")

    def test_what_another_lead_writes_meanwhile_is_seen_and_never_written_over(self):
        self.five_minutes()
        self.asked("What holds each cam wheel")
        first, url = self.page, self.page.url.partition("?")[0]
        draft = Draft.objects.get()
        self.context.clear_cookies()
        self.page = self.context.new_page()
        self.sign_in("greta", f"/drafts/{draft.pk}?at=fuel")
        self.answer("What does it burn?", "3")
        self.asked("What holds each cam wheel")
        self.page = first
        self.says(self.part("Written").locator("li").first, "gas")
        self.assertIn(str(draft.pk), url)


class ClockTests(WriterCase):
    def test_a_mark_goes_round_the_clock_by_keys_or_has_no_place(self):
        self.five_minutes()
        self.answer("What holds each cam wheel", "2")
        self.says(self.main, "as the one before: a dowel")
        self.type("s")
        self.answer("How is it known that the cams stand right?", "1", "Enter")
        self.answer("Where does the crank stand", "1")
        self.line_of("What shows that the crank wheel stands right?", "notch to arrow", "Escape")
        for key, line in (("ArrowRight", "at 12"), ("ArrowRight", "at 12:30"), ("ArrowLeft", "at 12"), ("ArrowLeft", "at 11:30")):
            self.page.keyboard.press(key)
            expect(self.line).to_have_value(f"notch to arrow {line}")
        self.page.keyboard.press("0")
        expect(self.line).to_have_value("notch to arrow")
        self.page.get_by_role("button", name="Half an hour on").click()
        expect(self.line).to_have_value("notch to arrow at 12")
        self.page.get_by_role("button", name="Next").click()
        self.asked("What shows that the exhaust cam wheel stands right?")
        self.says(self.part("Written").locator("li").first, "notch to arrow at 12")


class TapTests(WriterCase):
    """What is drawn is tapped: a layout, a row, bolts in their order."""

    def test_a_layout_a_row_and_the_order_of_bolts(self):
        self.page.locator('[data-key="fuel"]').click()
        url = self.page.url.partition("?")[0]
        tape = self.part("Written").locator("li").first
        self.page.goto(f"{url}?at=layout")
        self.main.locator("svg g", has_text="2").last.click()
        self.says(tape, "V")
        self.page.goto(f"{url}?at=sides")
        self.asked("Which bank does the book call the right one?")
        self.main.locator("svg g", has_text="1").last.click()
        self.says(tape, "the left one here")
        self.page.goto(f"{url}?at=bolts.head")
        self.line_of("How many head bolts", "4 in line", "Enter")
        self.says(tape, "4 in line")
        self.page.goto(f"{url}?at=bolts.head")
        self.page.get_by_role("button", name="Set their order by tapping").click()
        for bolt in ("3", "1", "2", "4"):
            self.main.locator(f'[data-spot="{bolt}"]').click()
        self.says(tape, '["3", "1", "2", "4"]')


class LookedAtTests(WriterCase):
    def test_no_rule_of_access_is_broken_and_nothing_hangs_over(self):
        self.five_minutes()
        self.asked("What holds each cam wheel")
        url = self.page.url.partition("?")[0]
        for at in ("layout", "passes.belt", "tensioner.belt", "stages.head", "run", "json", "fields", "fields/drive/wheels/crank-wheel"):
            self.page.goto(f"{url}?at={at}")
            self.see(self.page.locator("main h1"))
            self.see(self.part("Not known"))
            self.no_rule_is_broken(at)
        for size in (TABLET, PHONE):
            self.page.set_viewport_size(size)
            for at in ("passes.belt", "tensioner.belt", "run", "fields/drive/stages/belt"):
                self.page.goto(f"{url}?at={at}")
                self.see(self.page.locator("main h1"))
                over = self.page.evaluate("() => document.documentElement.scrollWidth - innerWidth")
                self.assertLessEqual(over, 0, (at, size))


class SheetTests(WriterCase):
    """The run, tables, the whole as JSON, and what the bench found: by keyboard too."""

    def setUp(self):
        super().setUp()
        self.five_minutes()
        self.asked("What holds each cam wheel")
        self.type("e")
        self.asked("The run of work")

    @property
    def here(self):
        return self.main.locator('li[data-here="true"]')

    def steps(self):
        return [words.strip() for words in self.main.locator("li > button > b").all_inner_texts()]

    def test_a_step_is_changed_moved_left_out_and_all_of_it_undone(self):
        before = self.steps()
        self.says(self.here, "Look before anything comes off")
        self.type("Enter")
        self.focused("Says")
        self.page.get_by_label("Says").fill("Look before anything comes off, twice")
        self.type("Enter")
        self.says(self.here, "Look before anything comes off, twice")
        self.type("Enter")
        self.focused("Says")
        need = self.page.get_by_role("combobox", name="It needs before")
        need.click()
        self.see(self.page.get_by_role("option", name="free to turn"))
        need.fill("Plugs out")
        self.type("Enter")
        self.page.get_by_label("Cautions").fill("Hot oil\nSharp edges")
        self.page.get_by_label("At hand").fill("torch")
        self.page.get_by_label("A picture is wanted of").fill("the front")
        self.page.get_by_role("button", name="Keep").click()
        for said in ("after “Plugs out, stand locked”", "Caution: Sharp edges", "At hand: torch", "A picture is wanted: the front"):
            self.says(self.here, said)
        self.type("Enter")
        self.focused("Says")
        self.page.get_by_role("button", name="Not needed: after “Plugs out, stand locked”").click()
        self.page.get_by_role("button", name="Keep").click()
        expect(self.here.get_by_text("Plugs out")).to_have_count(0)
        self.page.keyboard.press("Shift+ArrowDown")
        self.says(self.part("Written").locator("li").first, "moved")
        self.assertEqual(self.steps()[:2], ["Look before anything comes off, twice", "New parts for this one"])
        self.type("ArrowDown", "h")
        self.says(self.here, "hold point")
        self.type("x")
        self.says(self.part("Written").locator("li").first, "taken out")
        for _ in range(9):
            self.type("u")
        expect(self.main.locator("li > button > b").first).to_have_text("Look before anything comes off")
        self.assertEqual(self.steps(), before)

    def test_walked_to_a_step_the_bench_is_shown_as_it_will_stand(self):
        self.says(self.page.get_by_role("status"), "walked from receiving to hand-over")
        self.main.get_by_role("button", name="Plugs out, stand locked").click()
        self.type("w")
        self.says(self.here, "Nothing is left open by then")
        self.main.get_by_role("button", name="Two turns by hand").click()
        self.says(self.here, "Turn it twice, by hand")
        self.main.get_by_role("button", name="Let the tensioner").or_(self.main.get_by_role("button", name="Tensioner set")).first.click()
        self.says(self.here, "Left open by then")

    def test_a_pasted_table_goes_in_and_its_joint_gets_a_step(self):
        self.type("t")
        self.asked("Tables")
        field = self.main.locator("textarea").first
        field.fill("Sump screws; 14; ten")
        self.says(self.main, "“ten” cannot be read")
        expect(self.page.get_by_role("button", name="Put 1 in")).to_be_disabled()
        field.fill("Sump screws; 14; 10")
        self.page.get_by_role("button", name="Put 1 in").click()
        self.says(self.part("Written").locator("li").first, "added: Sump screws")
        self.type("Escape", "e", "a")
        self.focused("Says")
        self.page.get_by_label("It is").select_option("Sump screws: tight")
        expect(self.page.get_by_label("Says")).to_have_value("Sump screws")
        self.page.get_by_role("button", name="Add", exact=True).click()
        self.says(self.here, "Sump screws")

    def test_the_whole_as_json_is_another_way_to_the_same_tape(self):
        self.type("j")
        self.asked("As JSON")
        line = self.page.locator(".cm-line", has_text='"name": "Bracken 4"')
        self.see(line)
        line.click()
        self.page.keyboard.press("End")
        for _ in range(len('4",')):
            self.page.keyboard.press("ArrowLeft")
        self.page.keyboard.type("V")
        self.page.get_by_role("button", name="Take it over").click()
        self.says(self.part("Written").locator("li").first, "Bracken V4")
        self.page.keyboard.press("Escape")

    def test_what_the_bench_found_is_taken_by_one_key_or_left(self):
        draft = Draft.objects.get()
        proposal = {
            "id": "0" * 16,
            "what": "Crank wheel, teeth",
            "said": "22, measured",
            "engine": "B-1",
            "edit": {"does": "set", "at": "/drive/wheels/crank-wheel/teeth", "value": 22, "source": "measured"},
        }
        other = {**proposal, "id": "1" * 16, "what": "Cam wheel, teeth", "edit": {**proposal["edit"], "value": 44}}
        there = [proposal, other]
        self.page.route(f"**/api/drafts/{draft.pk}/proposals", lambda route: route.fulfill(json=there))
        self.page.route(f"**/api/drafts/{draft.pk}/proposals/leave", lambda route: route.fulfill(json=[other]))
        self.page.reload()
        found = self.part("From the bench")
        self.says(found.locator("li").first, "Crank wheel, teeth")
        self.type("g")
        self.says(self.part("Written").locator("li").first, "22, measured")
        self.type("b")
        self.says(found.locator("li").first, "Cam wheel, teeth")
        there.remove(proposal)
        place = self.page.url.partition("?")[0]
        self.page.goto(f"{place}?at=fields/drive/wheels/crank-wheel")  # and beside the field that it is about
        self.see(self.part("Of this, from the bench"))
        self.page.goto(f"{place}?at=fields/drive/wheels/tensioner-wheel")
        self.asked("Tensioner")
        expect(self.part("Of this, from the bench")).to_have_count(0)
        found.get_by_role("button", name="take").click()
        self.says(self.part("Written").locator("li").first, "44, measured")

    def test_every_field_is_reached_by_its_form_and_beside_it_as_json(self):
        self.type("f")
        self.asked("The engine")
        place = self.page.get_by_role("combobox", name="Which place")
        place.fill("Intake cam wheel")
        self.page.get_by_role("option", name="Intake cam wheel", exact=True).click()
        self.asked("Intake cam wheel")
        teeth = self.main.get_by_label("Teeth", exact=True)
        teeth.fill("7000")
        self.see(self.page.locator(".cm-line", has_text='"teeth": 7000'))
        self.page.get_by_role("button", name="Keep").click()
        self.says(self.part("Written").locator("li").first, "7000")
        said = self.part("Faults").get_by_role("button").first.inner_text()
        self.says(self.main.locator("form"), said)  # what is wrong stands at its field
        self.says(self.page.get_by_role("status"), "Not yet")
        self.page.reload()
        self.asked("Intake cam wheel")
        line = self.page.locator(".cm-line", has_text='"teeth"')
        line.click()
        self.page.keyboard.press("End")
        for _ in range(len("00,")):
            self.page.keyboard.press("ArrowLeft")
        self.page.keyboard.press("Shift+Home")
        self.page.keyboard.type('"teeth": ')  # 7000 becomes 00, which is no JSON
        self.says(self.alert.first, "This is no JSON yet")
        self.page.get_by_role("button", name="As it was").click()
        teeth.fill("42")
        self.page.get_by_role("button", name="Keep").click()
        self.says(self.page.get_by_role("status"), "Can be built")

    def test_places_and_teeth_come_from_a_photo_by_keys_and_taps(self):
        picture = self.page.screenshot()
        self.type("p")
        self.asked("Places from a photo")
        chosen = self.page.locator("input[type=file]")
        chosen.set_input_files({"name": "front.png", "mimeType": "image/png", "buffer": b"no photo"})
        self.says(self.alert, "no photo that the browser can read")
        chosen.set_input_files({"name": "front.png", "mimeType": "image/png", "buffer": picture})
        self.asked("Point at both ends of a distance")
        ground = self.page.get_by_role("img", name="The photo of the front")

        def tap(x, y):  # by the photo's own pixels
            box, (wide, high) = ground.bounding_box(), (DESK["width"], DESK["height"])
            scale = min(box["width"] / wide, box["height"] / high)
            left, top = box["x"] + (box["width"] - wide * scale) / 2, box["y"] + (box["height"] - high * scale) / 2
            self.page.mouse.click(left + x * scale, top + y * scale)

        tap(200, 400), tap(600, 400)
        self.page.get_by_label("First known distance, mm").fill("200")
        self.type("Enter")
        self.says(self.main, "One distance gives the scale")
        self.page.get_by_role("button", name="Crank wheel").first.click()
        self.asked("Where is the axis of the crank wheel?")
        tap(640, 600)
        self.type("n")
        self.page.get_by_role("button", name="Intake cam wheel").first.click()
        tap(700, 200)
        near = re.compile(r"(2[789]|3[0-3])(\.\d)?, (19[789]|20[0-3])(\.\d)? mm")  # a pixel of the screen is a millimetre here
        self.says(self.page.get_by_role("button", name="Intake cam wheel").first, near)
        self.page.get_by_role("button", name="Take the places over").click()
        self.says(self.part("Written").locator("li").first, re.compile(r"(19[789]|20[0-3])\.\d, measured"))
        self.page.get_by_role("button", name="Intake cam wheel").last.click()
        self.asked("Tap each tooth of the intake cam wheel")
        self.type("+")
        for _ in range(3):
            self.type("Enter", "ArrowDown")
        self.type("Backspace")
        self.page.reload()  # the photo and what was pointed at are kept
        self.page.get_by_role("button", name="Intake cam wheel 2", exact=True).click()
        self.page.get_by_role("button", name="2 teeth").click()
        self.says(self.part("Written").locator("li").first, "2, counted")
        self.page.get_by_role("button", name="Another photo").click()
        chosen.set_input_files({"name": "front.png", "mimeType": "image/png", "buffer": picture})
        self.says(self.main, "Point at two places whose distance is known")

    def test_one_more_of_a_list_begins_with_its_short_name(self):
        self.type("f")
        self.page.get_by_role("combobox", name="Which place").fill("Locks")
        self.page.get_by_role("option").first.click()
        self.asked("Locks")
        self.page.get_by_label("One more, its short name").fill("crank-pin")
        self.type("Enter")
        self.asked("crank-pin")
        self.says(self.page.get_by_role("status"), "Not yet")
        self.page.get_by_role("button", name="Take it out").click()
        self.asked("Locks")
        self.says(self.page.get_by_role("status"), "Can be built")
