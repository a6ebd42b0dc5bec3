"""Keys for programs: made by a person for himself, good for what he may and no more, taken back at once."""

import contextlib
import io
import os
import re
from pathlib import Path
from unittest.mock import patch
from urllib.parse import urlsplit

from django.contrib.auth.models import User
from django.test import Client

from shop.daybook import book_all, daybook_faults
from shop.models import DayLine, ScriptKey, Shop
from tests.engines import lift
from tests.server.cases import JSON, PASSWORD, ShopCase
from work.models import Entry

RECIPE = Path(__file__).parents[2] / "docs" / "api.md"
NOTE = {"id": "6f9619ff-8b86-4d11-b42d-00c04fc964ff", "entry": {"kind": "note", "text": "by program"}}


class ScriptKeyTests(ShopCase):
    def made(self, name="reports"):
        """A key of whoever is signed in."""
        answer = self.client.post("/api/keys", {"name": name}, content_type=JSON)
        self.assertEqual(answer.status_code, 201, answer.content)
        return answer.json()

    def program(self, secret):
        """Somebody who has nothing but a key; forged requests are looked for as they are at the real door."""
        return Client(enforce_csrf_checks=True, headers={"Authorization": f"Bearer {secret}"})

    def test_a_key_does_what_its_maker_may(self):
        program = self.program(self.made()["secret"])
        self.assertEqual(program.get("/api/v1/engines").status_code, 200)
        self.assertEqual(program.post("/api/v1/engines/T-1/entries", NOTE, content_type=JSON).status_code, 201)
        self.assertEqual(Entry.objects.get(kind="note").by_name, "Bo")
        self.sign_in("vi")
        looks = self.program(self.made()["secret"])
        self.assertEqual(looks.get("/api/v1/engines/T-1").status_code, 200)
        self.refused(looks.post("/api/v1/engines/T-1/entries", NOTE, content_type=JSON), 403, "", "")

    def test_it_is_told_once_and_seen_by_its_maker_alone(self):
        secret = self.made()["secret"]
        told = self.client.get("/api/keys")
        self.assertEqual([key["name"] for key in told.json()], ["reports"])
        self.assertNotIn(secret, told.content.decode())
        self.assertFalse(ScriptKey.objects.filter(secret=secret).exists())
        self.sign_in("lena")
        self.assertEqual(self.client.get("/api/keys").json(), [])
        self.refused(self.client.delete(f"/api/keys/{ScriptKey.objects.get().pk}"), 404, "", "")

    def test_it_signs_nothing_and_makes_no_other(self):
        self.sign_in("lena")
        program = self.program(self.made()["secret"])
        sign_off = {"kind": "sign_off", "remark": ""}
        self.refused(program.post("/api/session/confirm", {"password": PASSWORD}, content_type=JSON), 403, "", "signs nothing")
        confirm = {"password": PASSWORD, "entry": sign_off}
        self.refused(program.post("/api/engines/T-1/confirm", confirm, content_type=JSON), 403, "", "signs nothing")
        self.refused(program.post("/api/keys", {"name": "one more"}, content_type=JSON), 403, "password", "password")
        person = {"username": "eve", "name": "Eve", "role": "lead", "password": "a-long-enough-word"}
        self.refused(program.post("/api/people", person, content_type=JSON), 403, "password", "password")

    def test_taken_back_or_its_maker_gone_it_opens_nothing(self):
        first, second = self.made("one"), self.made("two")
        self.assertEqual(self.client.delete(f"/api/keys/{first['id']}").status_code, 204)
        self.refused(self.program(first["secret"]).get("/api/engines"), 401, "", "")
        User.objects.filter(username="bo").update(is_active=False)
        self.refused(self.program(second["secret"]).get("/api/engines"), 401, "", "")
        self.refused(self.program("gurvo_guessed").get("/api/engines"), 401, "", "")

    def test_the_daybook_says_by_which_key(self):
        Shop.objects.create()
        book_all()
        program = self.program(self.made("stock robot")["secret"])
        counted = {"part": "lash shim", "size": "2.50", "lot": "", "free": 4}
        self.assertEqual(program.put("/api/stock", counted, content_type=JSON).status_code, 200)
        self.assertEqual(list(daybook_faults()), [])
        self.assertEqual(DayLine.objects.filter(name="stock").latest("seq").how, "by the key “stock robot”")

    def test_the_recipe_reads_a_record(self):
        self.find_tdc()
        self.must(lift("intake", "opening", "16", "before TDC"))
        secret = self.made()["secret"]
        recipe = re.search(r"```python\n(.*?)```", RECIPE.read_text("utf-8"), re.DOTALL)[1].replace("Q4-0169", "T-1")

        def open_here(request):
            answer = self.program(secret).get(
                urlsplit(request.full_url).path, headers={"Authorization": request.get_header("Authorization")}
            )
            return io.BytesIO(b"".join(answer.streaming_content) if answer.streaming else answer.content)

        said = io.StringIO()
        with patch.dict(os.environ, GURVO_KEY=secret), patch("urllib.request.urlopen", open_here), contextlib.redirect_stdout(said):
            exec(recipe, {})
        self.assertRegex(said.getvalue(), r"^\d+ entries, last seal \w+")
