"""Every refusal goes out in one format, whoever says it: a problem of RFC 9457, with a code, a field path and all faults beside it."""

__all__ = ["AGAIN_S", "PROBLEM_JSON", "declare", "refuse", "said", "wait_here"]

from http import HTTPStatus
from typing import Any

from django.http import HttpResponse
from django.utils.html import format_html

from config.schemas import Problem

PROBLEM_JSON = "application/problem+json"
AGAIN_S = "1"
_REF = {"$ref": "#/components/schemas/Problem"}


def said(status: int, code: str, sentence: str, **more: Any) -> Problem:
    """Return a refusal as it is sent."""
    return Problem(title=HTTPStatus(status).phrase, status=status, detail=sentence, code=code, sentence=sentence, **more)


def refuse(status: int, code: str, sentence: str, **more: Any) -> HttpResponse:
    """Answer with a refusal."""
    return HttpResponse(said(status, code, sentence, **more).model_dump_json(), status=status, content_type=PROBLEM_JSON)


def wait_here(sentence: str) -> HttpResponse:
    """Answer a browser that opened a file for which others wait: the page asks again by itself."""
    page = format_html(
        '<!doctype html><html lang="en"><meta name="viewport" content="width=device-width"><title>A moment</title>'
        "<body style='font: 20px/1.5 sans-serif; margin: 15vh 10vw'><p>{}</p><p>This page asks again by itself.</p></body></html>",
        sentence,
    )
    return HttpResponse(page, status=429, headers={"Refresh": AGAIN_S})


def declare(document: dict[str, Any]) -> None:
    """Put every refusal of the API's document under its own media type; the framework puts all answers under one."""
    for operations in document["paths"].values():
        for operation in operations.values():
            for answer in operation["responses"].values():
                content = answer.get("content", {})
                if content.get("application/json", {}).get("schema") == _REF:
                    content[PROBLEM_JSON] = content.pop("application/json")
