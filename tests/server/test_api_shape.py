"""The API as a whole: its document, and that no input whatever makes it fall over."""

import json
import uuid
from pathlib import Path

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from hypothesis.extra.django import TestCase as HypothesisTestCase

from config.api import api, field_path
from config.described import PARAMETERS, WORDS
from tests.engines import SETUP, STOP_OUT, act, lift, stop
from tests.server.cases import JSON, ShopCase, fill_shop

SCHEMA = Path(__file__).parents[2] / "web" / "src" / "api" / "openapi.json"
BODIES = (
    SETUP,
    act("tdc_method", method="fit"),
    STOP_OUT,
    act("cam_decision", camshaft="cam", advance_deg=0.0, reason="x"),
    act("sign_off", remark="x"),
    stop("before", "41.5"),
    lift("intake", "opening", "16", "before TDC"),
    {"kind": "wheel_zero", "method": "top", "zero_deg": 0.0},
    {"kind": "strike", "strikes": str(uuid.uuid4()), "reason": "x"},
    {"kind": "note", "text": "x"},
    {"kind": "turn", "to": "330"},
    act("revision", number=2, reason="x"),
    act("joint_ready", step="x", threads="dry"),
    act("pull", step="x", stage=1, fastener="1", torque={"text": "30", "unit": "N·m"}, angle="90"),
    act("bolt", step="x", fastener="1", found="loose", note="x"),
    act("pull_decided", step="x", stage=1, fastener="1", decision="go_on", reason="x"),
    act("joint_anew", step="x", reason="x"),
    act("joint_left", step="x", until="x"),
)
JUNK = st.none() | st.booleans() | st.integers() | st.floats(allow_nan=False, allow_infinity=False) | st.text(max_size=8)


def can_be_wrong(operation):
    """Whether something is asked that may be of the wrong shape; a number or id in a path is the router's, which finds nothing there."""
    limited = [
        parameter["name"]
        for parameter in operation.get("parameters", [])
        if parameter["in"] != "path" or set(parameter["schema"]) - {"type", "title", "format"}
    ]
    return bool(limited) or "requestBody" in operation


class DocumentTests(SimpleTestCase):
    def test_the_committed_document_is_the_apis(self):
        """Pinned: made anew with ./gurvo types."""
        self.assertEqual(json.loads(json.dumps(api.get_openapi_schema(path_prefix="/api/"))), json.loads(SCHEMA.read_text("utf-8")))

    def test_every_property_and_parameter_says_what_it_is(self):
        document = api.get_openapi_schema(path_prefix="/api/")
        of_models = [
            (f"{name}.{key}", value.get("description"))
            for name, model in document["components"]["schemas"].items()
            for key, value in model.get("properties", {}).items()
        ]
        asked = [
            (f"{operation['operationId']}.{one['name']}", one.get("description"))
            for path in document["paths"].values()
            for operation in path.values()
            for one in operation.get("parameters", ())
        ]
        self.assertGreater(len(of_models), 2000)
        self.assertEqual([name for name, words in (*of_models, *asked) if not words], [])
        # a word for what is there no more, or is described beside its model by now, is taken out
        said, names = {words for _, words in (*of_models, *asked)}, {name for name, _ in (*of_models, *asked)}
        self.assertEqual([key for key, words in {**WORDS, **PARAMETERS}.items() if words not in said], [])
        self.assertEqual([key for key in {**WORDS, **PARAMETERS} if "." in key and key not in names], [])

    def test_every_operation_behind_the_door_says_that_it_may_ask_to_sign_in(self):
        behind = [
            (operation["operationId"], operation["responses"])
            for path in api.get_openapi_schema()["paths"].values()
            for operation in path.values()
            if operation.get("security")
        ]
        self.assertGreater(len(behind), 40)
        self.assertEqual([name for name, answers in behind if not {"401", 401} & set(answers)], [])

    def test_every_operation_that_asks_for_something_says_that_it_may_be_refused(self):
        asking = [
            operation
            for path in api.get_openapi_schema(path_prefix="/api/")["paths"].values()
            for operation in path.values()
            if can_be_wrong(operation)
        ]
        self.assertGreater(len(asking), 40)
        self.assertEqual([op["operationId"] for op in asking if not {"422", 422} & set(op["responses"])], [])

    def test_every_operation_has_a_name_and_a_summary(self):
        for path, operations in api.get_openapi_schema()["paths"].items():
            for method, operation in operations.items():
                with self.subTest(path=path, method=method):
                    self.assertTrue(operation["summary"])
                    self.assertNotIn("api_", operation["operationId"])

    def test_a_field_path_has_no_level_of_the_framework(self):
        paths = {
            ("body", "payload", "entry", "tdc_reading", "wheel", "text"): "entry.wheel.text",
            ("body", "payload", "entry", "wheel_setup", "runs"): "entry.runs",
            ("body", "payload", "entry"): "entry",
            ("query", "before"): "before",
        }
        for location, path in paths.items():
            with self.subTest(path=path):
                self.assertEqual(".".join(field_path(location)), path)


class RefusalFormatTests(ShopCase):
    """Source: RFC 9457, section 3: media type, and the members type, title, status and detail."""

    def problem(self, answer, status):
        self.assertEqual((answer.status_code, answer["Content-Type"]), (status, "application/problem+json"))
        said = answer.json()
        self.assertEqual((said["status"], said["type"], said["detail"]), (status, "about:blank", said["sentence"]))
        self.assertTrue(said["title"])
        return said

    def test_whoever_refuses_says_it_in_one_format(self):
        self.problem(self.client.get("/api/engines/gone"), 404)
        self.problem(self.client.get("/api/no/such/path"), 404)
        self.problem(self.enter(lift("intake", "opening", "16", "before TDC")), 422)
        self.problem(self.client.post("/api/engines/T-1/entries", "{", content_type=JSON), 400)
        self.client.logout()
        self.assertEqual(self.problem(self.client.get("/api/engines"), 401)["code"], "sign_in")

    def test_where_several_things_are_wrong_each_is_said(self):
        body = {"id": "no id", "entry": {"kind": "note", "text": 5}, "more": 1}
        said = self.problem(self.client.post("/api/engines/T-1/entries", body, content_type=JSON), 422)
        self.assertEqual({fault["path"] for fault in said["faults"]}, {"id", "entry.text", "more"})
        self.assertEqual((said["field"], said["sentence"]), (said["faults"][0]["path"], said["faults"][0]["sentence"]))

    def test_the_document_says_so_of_every_refusal(self):
        for path, operations in api.get_openapi_schema()["paths"].items():
            for operation in operations.values():
                for status, answer in operation["responses"].items():
                    with self.subTest(path=path, status=status):
                        is_refusal = "Problem" in json.dumps(answer.get("content", {}))
                        self.assertEqual(is_refusal, "application/problem+json" in answer.get("content", {}))


class AnythingAtAllTests(HypothesisTestCase):
    """Property: whatever is put anywhere in an entry, the answer is taken or refused in a sentence, never a crash."""

    def setUp(self):
        fill_shop()
        ShopCase.sign_in(self, "lena")

    @settings(max_examples=150)
    @given(st.sampled_from(BODIES), st.data())
    def test_a_spoiled_entry_never_crashes(self, body, data):
        body = json.loads(json.dumps(body))
        at = body
        while True:
            key = data.draw(st.sampled_from(sorted(at)))
            if not isinstance(at[key], dict) or data.draw(st.booleans()):
                break
            at = at[key]
        at[key] = data.draw(JUNK)
        answer = self.client.post("/api/engines/T-1/entries", {"id": str(uuid.uuid4()), "entry": body}, content_type=JSON)
        unconfirmed = answer.status_code == 403 and answer.json()["code"] == "confirm"
        self.assertTrue(answer.status_code in (201, 422) or unconfirmed)
        if answer.status_code == 422:
            problem = answer.json()
            self.assertTrue(problem["sentence"].endswith((".", "?")) and problem["field"].startswith("entry"), problem)
