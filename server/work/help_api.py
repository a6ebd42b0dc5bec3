"""The help's API: the same for everybody, and for every shop."""

from django.http import HttpRequest, HttpResponse
from ninja import Router

from config.answers import json_answer, unchanged
from config.schemas import Problem
from gurvo_core.help import HELP, Help
from gurvo_core.work import RULES_VERSION

router = Router()
TAG = f"help-{RULES_VERSION}"


@router.get("", response={200: Help, 401: Problem}, operation_id="help_look", summary="What each question is about, and words of the trade")
def look(request: HttpRequest) -> HttpResponse:
    """Hand out all topics and words; they change with a version alone."""
    return unchanged(request, TAG) or json_answer(HELP.model_dump_json(), tag=TAG, packed_for=request)
