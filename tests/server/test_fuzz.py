"""Anything at all, asked by every role: no operation answers with what its document does not declare, and never with a fault of its own."""

import json
import os

import schemathesis
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import strategies as st
from schemathesis import GenerationMode

from config.api import api
from tests.server.cases import JSON, ShopCase

# a night of it: ./gurvo torture --fuzz
EXAMPLES, PAPERS = (
    int(os.environ.get("GURVO_FUZZ_EXAMPLES", "5")),
    2,
)  # each paper is printed for every role, which takes longer than all else
ROLES = ("vi", "bo", "lena")
ENDS_THE_SESSION = {"session_sign_out", "session_sign_in", "session_confirm"}
DOCUMENT = json.loads(json.dumps(api.get_openapi_schema(path_prefix="/api/")))


def operations():
    """Every operation of the API by its id."""
    schema = schemathesis.openapi.from_dict(DOCUMENT)
    found = [result.ok() for result in schema.get_all_operations()]
    return {op.definition.raw["operationId"]: op for op in found if op.definition.raw["operationId"] not in ENDS_THE_SESSION}


class FuzzTests(ShopCase):
    runs_long = True

    def ask(self, operation, clients):
        """Draw requests for one operation, sound ones and spoiled ones, have every role ask them, and look at the answers."""
        declared = set(operation.definition.raw["responses"])
        sound = operation.as_strategy(generation_mode=GenerationMode.POSITIVE)
        spoiled = operation.as_strategy(generation_mode=GenerationMode.NEGATIVE)

        examples = PAPERS if operation.path.endswith(".pdf") else EXAMPLES

        @settings(max_examples=examples, database=None, phases=[Phase.generate], suppress_health_check=list(HealthCheck))
        @given(st.one_of(sound, spoiled))
        def answered(case):
            names = {"serial": "T-1", "code": "quern-4", "username": "vi"}
            path = case.formatted_path
            for name, known in names.items():  # half of them at things that are there
                if name in (case.path_parameters or {}) and case.method != "DELETE" and len(path) % 2:
                    path = case.path.replace(f"{{{name}}}", known)
            if "{" in path:
                path = case.formatted_path
            body = case.body if isinstance(case.body, (dict, list, str, int, float, bool, type(None))) else None
            data = json.dumps(body) if case.method in ("POST", "PUT", "PATCH") else None
            query = {key: value for key, value in (case.query or {}).items() if isinstance(value, (str, int, float, bool))}
            for role, client in clients.items():
                answer = client.generic(case.method, path, data or "", content_type=JSON, query_params=query)
                # 405 and 404 are the router's own, for a path or method that is none
                self.assertIn(str(answer.status_code), declared | {"404", "405"}, (role, case.method, path, body, answer.getvalue()[:200]))

        answered()

    def test_no_operation_answers_otherwise_than_declared(self):
        for name, operation in operations().items():
            clients = {}
            for role in ROLES:
                self.sign_in(role)
                clients[role] = self.client
            with self.subTest(operation=name):
                self.ask(operation, clients)
