"""Pictures through the real interface: chosen from a file, drawn on, away and back, looked at by keys, needed before a step."""

import io
import zipfile
from pathlib import Path
from tempfile import TemporaryDirectory

from playwright.sync_api import expect

from tests.browser.case import BrowserCase
from tests.server.test_pictures import photo
from work.models import Entry


class PicturesTests(BrowserCase):
    def setUp(self):
        super().setUp()
        self.folder = Path(self.enterContext(TemporaryDirectory()))
        self.at_the_bench()

    def file(self, name="front.jpg", **how):
        path = self.folder / name
        path.write_bytes(photo(**how))
        return path

    def choose(self, file):
        self.page.keyboard.press("q")
        dialog = self.page.get_by_role("dialog")
        self.see(dialog.get_by_role("button", name="Choose a file"))
        dialog.get_by_label("File", exact=True).set_input_files(file)
        self.see(dialog.get_by_role("img", name="What was taken"))
        return dialog

    def test_by_keys_a_picture_is_chosen_drawn_on_and_recorded_and_stands_on_the_tape(self):
        dialog = self.choose(self.file(width=2400, height=1800, quality=99))
        dialog.get_by_role("button", name="Put one in the middle").press("Enter")
        dialog.get_by_label("What ring 1 is at").fill("the notch")
        dialog.get_by_role("button", name="ring 1 left").press("Enter")
        dialog.get_by_label("What it shows").fill("marks before the cover")
        dialog.get_by_role("button", name="Record the picture").press("Enter")
        expect(dialog).to_have_count(0)
        self.says(self.tape.first, "marks before the cover")
        body = Entry.objects.get(kind="picture").body
        self.assertEqual((body["drawn"], body["width"]), ([{"is_a": "ring", "x": 0.48, "y": 0.5, "says": "the notch"}], 2400))
        self.page.keyboard.press("Shift+Q")
        self.see(self.page.get_by_role("heading", name="marks before the cover"))
        self.reads("the notch")
        self.page.keyboard.press("d")
        dialog.get_by_label("What ring 1 is at").fill("the notch, a tooth early")
        dialog.get_by_role("button", name="Record it").press("Enter")
        expect(dialog).to_have_count(0)
        self.reads("the notch, a tooth early")
        self.assertEqual(Entry.objects.get(kind="picture_drawn_on").body["drawn"][0]["says"], "the notch, a tooth early")
        self.no_rule_is_broken("pictures")

    def test_away_it_waits_on_this_machine_through_a_reload_and_goes_out_by_itself(self):
        dialog = self.choose(self.file())
        self.context.set_offline(True)
        dialog.get_by_label("What it shows").fill("scored journal")
        dialog.get_by_role("button", name="Record the picture").press("Enter")
        self.says(self.tape.first, "it goes out by itself")
        self.assertEqual(Entry.objects.filter(kind="picture").count(), 0)
        self.context.set_offline(False)
        self.page.reload()
        self.see(self.tape.first.get_by_role("button", name="Strike Picture scored journal"))
        self.assertEqual(Entry.objects.filter(kind="picture").count(), 1)

    def test_what_is_no_picture_is_said_in_a_sentence_and_can_be_taken_off(self):
        nothing = self.folder / "letter.jpg"
        nothing.write_bytes(b"Dear sir")
        self.page.keyboard.press("q")
        dialog = self.page.get_by_role("dialog")
        dialog.get_by_label("File", exact=True).set_input_files(nothing)
        dialog.get_by_role("button", name="Record the picture").press("Enter")
        self.says(dialog.get_by_role("alert"), "This is no picture that can be read")

    def test_handed_over_as_a_zip_it_is_verified_by_its_own_page_and_an_altered_picture_is_named(self):
        dialog = self.choose(self.file())
        dialog.get_by_role("button", name="Record the picture").press("Enter")
        expect(dialog).to_have_count(0)
        self.says(self.tape.first, "Picture")
        answer = self.context.request.get(f"{self.live_server_url}/api/engines/T-1/record.zip")
        with zipfile.ZipFile(io.BytesIO(answer.body())) as packed:
            packed.extractall(self.folder)
        own = self.folder / "T-1"
        (picture,) = (own / "pictures").iterdir()
        self.page.goto((own / "verify.html").as_uri())
        for spoil, says in ((None, "every one of 1 entries fits its seal"), (b"altered", "is missing or altered")):
            if spoil:
                picture.write_bytes(spoil)
            self.page.get_by_label("Record and pictures").set_input_files([own / "record.json", picture])
            self.reads(says)
        record = (own / "record.json").read_text().replace('"width": 600', '"width": 601')
        (own / "record.json").write_text(record)
        self.page.get_by_label("Record and pictures").set_input_files([own / "record.json"])
        self.reads("entry 1 is not as it was sealed")

    def test_walked_by_keys(self):
        for n in range(3):
            dialog = self.choose(self.file(f"{n}.jpg", colour=f"#{n}0{n}0{n}0"))
            dialog.get_by_label("What it shows").fill(f"picture {n}")
            dialog.get_by_role("button", name="Record the picture").press("Enter")
            expect(dialog).to_have_count(0)
        self.page.keyboard.press("Shift+Q")
        for key, shown in (("", "picture 2"), ("ArrowLeft", "picture 1"), ("ArrowLeft", "picture 0"), ("ArrowRight", "picture 1")):
            if key:
                self.page.keyboard.press(key)
            self.see(self.page.get_by_role("heading", name=shown))
