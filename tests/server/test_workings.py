"""The workings of span and chain through the API: figures, a recording, and what is refused."""

from django.core.files.uploadedfile import SimpleUploadedFile

from tests.core.test_span import as_wav, plucked, spoken
from tests.server.cases import ShopCase


class DriveWorkingsTests(ShopCase):
    def pluck(self, data):
        return self.client.post("/api/workings/pluck", {"file": SimpleUploadedFile("span.wav", data, "audio/wav")})

    def test_a_span_and_a_chain(self):
        asked = {"span_mm": 200, "mass_g_m": 100, "tension_n": 400, "pulled_mm": 153.924, "links": 16, "pitch_mm": 9.525}
        lines = self.client.get("/api/workings/drive", asked).json()
        self.assertEqual([line["value"] for line in lines], ["158.1 Hz", "152.4 mm", "1.00 %"])

    def test_figures_that_cannot_be_name_their_field(self):
        self.refused(self.client.get("/api/workings/drive", {"span_mm": -1}), 422, "span_mm", "0")
        chain = {"pulled_mm": 100, "links": 16, "pitch_mm": 9.525}
        self.refused(self.client.get("/api/workings/drive", chain), 422, "pulled_mm", "count the links again")

    def test_a_recording_gives_its_pitch(self):
        found = self.pluck(as_wav(plucked(82.5))).json()
        self.assertAlmostEqual(found["frequency_hz"], 82.5, delta=0.5)
        self.assertGreater(found["share"], 0.5)

    def test_a_voice_and_what_is_no_recording_are_refused(self):
        self.refused(self.pluck(as_wav(spoken())), 422, "file", "")
        self.refused(self.pluck(b"not a sound at all"), 422, "file", "no WAV file")
        self.refused(self.client.post("/api/workings/pluck"), 422, "file", "")

    def test_a_stranger_is_not_served(self):
        self.client.logout()
        self.assertEqual(self.client.get("/api/workings/drive").status_code, 401)
        self.assertEqual(self.pluck(as_wav(plucked(82.5))).status_code, 401)
