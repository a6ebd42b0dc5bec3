"""What somebody hears after too many wrong passwords."""

from django.http import HttpRequest, JsonResponse

from config.schemas import Problem

SENTENCE = "Too many tries. Wait a quarter of an hour, or ask the lead."


def locked_out(_request: HttpRequest, _credentials: object = None) -> JsonResponse:
    """Answer with a Problem, like every other refusal."""
    return JsonResponse(Problem(code="locked_out", field="password", sentence=SENTENCE).model_dump(), status=429)
