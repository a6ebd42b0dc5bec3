"""Every refusal goes out in one format, whoever says it: a problem of RFC 9457, with a code, a field path and all faults beside it."""

__all__ = ["PROBLEM_JSON", "declare", "refuse", "said"]

from http import HTTPStatus
from typing import Any

from django.http import HttpResponse

from config.schemas import Problem

PROBLEM_JSON = "application/problem+json"
_REF = {"$ref": "#/components/schemas/Problem"}


def said(status: int, code: str, sentence: str, **more: Any) -> Problem:
    """Return a refusal as it is sent."""
    return Problem(title=HTTPStatus(status).phrase, status=status, detail=sentence, code=code, sentence=sentence, **more)


def refuse(status: int, code: str, sentence: str, **more: Any) -> HttpResponse:
    """Answer with a refusal."""
    return HttpResponse(said(status, code, sentence, **more).model_dump_json(), status=status, content_type=PROBLEM_JSON)


def declare(document: dict[str, Any]) -> None:
    """Put every refusal of the API's document under its own media type; the framework puts all answers under one."""
    for operations in document["paths"].values():
        for operation in operations.values():
            for answer in operation["responses"].values():
                content = answer.get("content", {})
                if content.get("application/json", {}).get("schema") == _REF:
                    content[PROBLEM_JSON] = content.pop("application/json")
