"""Photographs: taken whatever their size, kept upright and without where and when, named by their digest, missed and found altered."""

import hashlib
import uuid
from io import BytesIO
from pathlib import Path
from unittest.mock import patch

from django.contrib.auth.models import User
from PIL import Image

from demo.documents import family_data
from engine.services import add_revision
from tests.server.cases import ShopCase
from work import pictures
from work.follows import engine_faults
from work.pictures import picture_file
from work.services import put_on_stand

HEIC = Path(__file__).parent / "data" / "small.heic"
ORIENTATION, MAKER, GPS = 0x0112, 0x010F, 0x8825


def photo(width=600, height=400, kind="JPEG", **how) -> bytes:
    """A picture whose left upper corner is red; made by Pillow, with whatever a telephone writes beside it."""
    made = Image.new("RGB", (width, height), how.pop("colour", "#60708a"))
    made.paste("#c01010", (0, 0, width // 4, height // 4))
    made = made.convert(how.pop("mode", "RGB"))
    written = BytesIO()
    made.save(written, kind, **how)
    return written.getvalue()


def from_a_telephone() -> bytes:
    exif = Image.Exif()
    exif[ORIENTATION], exif[MAKER] = 6, "Nobody's"
    exif.get_ifd(GPS)[1] = "N"
    return photo(exif=exif)


class PictureCase(ShopCase):
    def setUp(self):
        super().setUp()
        self.name = uuid.uuid4()

    def tearDown(self):
        folder = pictures.pictures_folder()
        for file in sorted(folder.rglob("*"), reverse=True) if folder.exists() else ():
            file.rmdir() if file.is_dir() else file.unlink()

    def piece(self, content, at=0, name=None):
        path = f"/api/pictures/coming/{name or self.name}?at={at}"
        return self.client.post(path, content, content_type="application/octet-stream")

    def whole(self, name=None):
        return self.client.post(f"/api/pictures/coming/{name or self.name}/whole")

    def send(self, content):
        """All of a picture, as the page does; what it is kept as."""
        name = uuid.uuid4()
        for at in range(0, len(content), 200_000):
            self.assertEqual(self.piece(content[at : at + 200_000], at, name).status_code, 200)
        answer = self.whole(name)
        self.assertEqual(answer.status_code, 201, answer.content)
        return answer.json()

    def take(self, content, serial="T-1", **more):
        kept = self.send(content)
        answer = self.enter({"kind": "picture", **kept, **more}, serial=serial)
        self.assertEqual(answer.status_code, 201, answer.content)
        return kept["digest"]


class ComingTests(PictureCase):
    def test_piece_by_piece_it_goes_on_where_it_was(self):
        content = photo(2000, 1500, quality=98)
        half = len(content) // 2
        self.assertEqual(self.piece(content[:half]).json(), {"has": half})
        self.assertEqual(self.piece(content[:half]).json(), {"has": half})  # the answer was lost: sent again it is not doubled
        self.assertEqual(self.piece(b"").json(), {"has": half})
        self.assertEqual(self.piece(content[half:], half).json(), {"has": len(content)})
        kept = self.whole().json()
        self.assertEqual((kept["width"], kept["height"]), (2000, 1500))
        self.assertEqual(self.send(content)["digest"], kept["digest"])  # again, from the beginning: the same picture

    def test_it_is_kept_upright_bounded_and_without_where_and_with_what(self):
        kept = self.send(from_a_telephone())
        with Image.open(picture_file(kept["digest"])) as there:
            self.assertEqual((there.size, dict(there.getexif()), there.info.get("icc_profile")), ((400, 600), {}, None))
            red, _, blue = there.getpixel((390, 10))  # turned a quarter clockwise, what was left and up is right and up
            self.assertGreater(red, blue)
        self.assertEqual(hashlib.sha256(picture_file(kept["digest"]).read_bytes()).hexdigest(), kept["digest"])
        big = self.send(photo(5000, 3000))
        self.assertEqual((big["width"], big["height"]), (2560, 1536))

    def test_every_sort_that_shops_have_is_read(self):
        for content in (photo(kind="PNG", mode="RGBA"), photo(kind="PNG", mode="P"), photo(kind="WEBP"), HEIC.read_bytes()):
            kept = self.send(content)
            self.assertIn((kept["width"], kept["height"]), [(600, 400), (96, 64)])

    def test_what_is_no_picture_is_refused_whatever_it_is_called(self):
        for content, says in ((b"%PDF-1.7 not a picture", "no picture"), (photo()[:900], "no picture")):
            self.piece(content)
            self.refused(self.whole(), 422, "", says)
        self.refused(self.whole(), 422, "", "Nothing of this picture")
        with patch.object(pictures, "MOST_BYTES", 1000):
            self.refused(self.piece(b"x" * 1001), 422, "", "40 MB at most")
        self.client.force_login(User.objects.get(username="vi"))
        self.refused(self.piece(photo()), 403, "", "A viewer may look")
        self.client.logout()
        self.assertEqual((self.piece(photo()).status_code, self.whole().status_code), (401, 401))


class EntryTests(PictureCase):
    def test_an_entry_names_a_picture_that_is_here(self):
        body = {"kind": "picture", "digest": "a" * 64, "width": 10, "height": 10}
        self.refused(self.enter(body), 422, "entry.digest", "not here yet")
        digest = self.take(photo(), shows="the scored journal", drawn=[{"is_a": "ring", "x": 0.5, "y": 0.5, "says": "here"}])
        bench = self.client.get("/api/engines/T-1").json()
        self.assertEqual((bench["state"]["pictures"]["count"], bench["tape"][0]["picture"]), (1, digest))
        (listed,) = self.client.get("/api/engines/T-1/pictures").json()
        self.assertEqual((listed["digest"], listed["drawn"][0]["says"], listed["shows"]), (digest, "here", "the scored journal"))

    def test_it_is_handed_out_whole_and_small_to_whoever_is_signed_in(self):
        digest = self.take(photo(1200, 800))
        whole = self.client.get(f"/api/pictures/{digest}.jpg")
        self.assertEqual((whole["Content-Type"], hashlib.sha256(b"".join(whole.streaming_content)).hexdigest()), ("image/jpeg", digest))
        small = self.client.get(f"/api/pictures/{digest}.jpg?small=true")
        self.assertEqual(Image.open(BytesIO(b"".join(small.streaming_content))).size, (480, 320))
        self.assertEqual(self.client.get(f"/api/pictures/{digest}.jpg", headers={"If-None-Match": whole["ETag"]}).status_code, 304)
        self.assertEqual(self.client.get(f"/api/pictures/{'b' * 64}.jpg").status_code, 404)
        self.assertEqual(self.client.get("/api/pictures/..%2Fshop.jpg").status_code, 404)
        self.client.logout()
        self.assertEqual(self.client.get(f"/api/pictures/{digest}.jpg").status_code, 401)

    def test_one_that_was_altered_or_is_gone_is_named_even_struck(self):
        digest = self.take(photo())
        self.assertEqual(engine_faults("T-1"), [])
        file = picture_file(digest)
        file.write_bytes(photo(colour="#000000"))
        (fault,) = engine_faults("T-1")
        self.assertIn(f"({digest[:12]}) is not the one that was taken", fault)
        file.unlink()
        self.assertIn("is missing", engine_faults("T-1")[0])


class ExampleTests(PictureCase):
    def setUp(self):
        super().setUp()
        add_revision(family_data("teasel-4"), by=None)
        for serial in ("V-1", "V-2"):
            builder = User.objects.get(username="bo")
            put_on_stand(serial=serial, family="teasel-4", purpose="tractor", stand=None, promised=None, by=builder)
        self.step = next(iter(self.client.get("/api/engines/V-1").json()["state"]["pictures"]["wanted"]))

    def named(self, step, digest):
        return self.client.put("/api/engines/V-1/examples", {"step": step, "digest": digest}, content_type="application/json")

    def test_the_lead_names_how_a_step_should_look_and_the_next_builder_sees_it(self):
        digest = self.take(photo(), serial="V-1", step=self.step)
        self.refused(self.named(self.step, digest), 403, "", "The lead names")
        self.client.force_login(User.objects.get(username="lena"))
        self.refused(self.named("plate-in", digest), 422, "digest", "No such picture")
        self.assertEqual(self.named(self.step, digest).json()["by_name"], "Lena")
        (seen,) = self.client.get("/api/engines/V-2/examples").json()
        self.assertEqual((seen["step"], seen["digest"], seen["serial"]), (self.step, digest, "V-1"))
        other = self.take(photo(colour="#203040"), serial="V-1", step=self.step)
        self.named(self.step, other)
        self.assertEqual([one["digest"] for one in self.client.get("/api/engines/V-2/examples").json()], [other])
