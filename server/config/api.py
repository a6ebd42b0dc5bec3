"""Assembles the API: routers, and the one place where every refusal becomes a Problem."""

from collections.abc import Callable, Iterable
from functools import wraps
from typing import Any

from django.core.exceptions import RequestDataTooBig
from django.http import Http404, HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError
from ninja.openapi.docs import Swagger
from ninja.openapi.schema import OpenAPISchema
from ninja.security import django_auth

from config.described import describe
from config.problems import AGAIN_S, declare, refuse, wait_here
from config.schemas import Span
from engine.api import examples_router
from engine.api import router as families
from gurvo_core.engine.reading import plain_sentence
from gurvo_core.errors import AskFirst, CoreError, DocumentError, Fault, WordRefused
from instruments.api import router as instruments
from instruments.api import traces_router
from shop.api import router as shop
from shop.api import session_router
from shop.benches_api import router as benches
from shop.errors import Refusal, TooBusy
from shop.gauges_api import router as gauges
from shop.people_api import router as people
from shop.script_keys import ByScriptKey
from shop.script_keys_api import router as script_keys
from shop.stock_api import router as stock
from work.api import printing_router
from work.api import router as engines
from work.drawings_api import router as drawings
from work.drive_api import router as drive
from work.fits_api import router as fits
from work.help_api import router as help_router
from work.looking_back_api import router as looking_back
from work.pictures_api import engine_router as pictures_of
from work.pictures_api import router as pictures
from work.workings_api import router as workings
from writer.api import router as drafts

FRAMEWORK_LEVELS = ("body", "payload", "query", "path")
TAGGED_UNIONS = ("entry",)


def field_path(location: Iterable[object]) -> list[str]:
    """Return where in the sent body a fault lies: without the framework's own levels and the tags of tagged unions."""
    path: list[str] = []
    named = list(location)
    if named[:1] == ["file"]:  # the level of uploaded files is called as most of them are
        named = named[1:]
    parts = iter(str(part) for part in named if part not in FRAMEWORK_LEVELS)
    for part in parts:
        path.append(part)
        if part in TAGGED_UNIONS:
            next(parts, None)
    return path


def _for_the_signed_in(view: Callable[..., HttpResponse]) -> Callable[..., HttpResponse]:
    """The OpenAPI document is for those who are signed in."""

    @wraps(view)
    def guarded(request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponse:
        if not request.user.is_authenticated:
            return _stranger(request, AuthenticationError())
        return view(request, *args, **kwargs)

    return guarded


class _Api(NinjaAPI):
    def get_openapi_schema(self, *args: Any, **kwargs: Any) -> OpenAPISchema:
        """Every refusal under the media type it is sent as, every property with what it is."""
        schema = super().get_openapi_schema(*args, **kwargs)
        declare(schema)
        describe(schema)
        return schema


api = _Api(
    title="Gurvo",
    description="What the web app does, a program can do, with a key of its maker: every rule of the bench holds for it too.",
    version="1",
    auth=[ByScriptKey(), django_auth],
    docs_url="docs",
    docs=Swagger(settings={"docExpansion": "none", "defaultModelsExpandDepth": 0, "supportedSubmitMethods": ["get"]}),
    openapi_url="openapi.json",
    docs_decorator=_for_the_signed_in,
    urls_namespace="api",
)
api.add_router("/session", session_router, tags=["session"])
api.add_router("", shop, tags=["shop"])
api.add_router("/gauges", gauges, tags=["shop"])
api.add_router("/instruments", instruments, tags=["shop"])
api.add_router("/traces", traces_router, tags=["shop"])
api.add_router("/workings", workings, tags=["shop"])
api.add_router("/stock", stock, tags=["shop"])
api.add_router("/people", people, tags=["people"])
api.add_router("/keys", script_keys, tags=["people"])
api.add_router("/benches", benches, tags=["people"])
api.add_router("/families", families, tags=["families"])
api.add_router("/examples", examples_router, tags=["families"])
api.add_router("/drafts", drafts, tags=["drafts"])
api.add_router("/engines", engines, tags=["engines"])
api.add_router("/engines", fits, tags=["engines"])
api.add_router("/engines", drive, tags=["engines"])
api.add_router("/engines", drawings, tags=["engines"])
api.add_router("/engines", pictures_of, tags=["engines"])
api.add_router("/pictures", pictures, tags=["pictures"])
api.add_router("/help", help_router, tags=["help"])
api.add_router("/back", looking_back, tags=["engines"])
api.add_router("/printing", printing_router, tags=["engines"])


@api.exception_handler(Refusal)
def _refused(request: HttpRequest, error: Refusal) -> HttpResponse:
    if isinstance(error, TooBusy) and "text/html" in request.headers.get("Accept", ""):
        return wait_here(error.sentence)
    answer = refuse(error.status, error.code, error.sentence, field=error.field)
    if isinstance(error, TooBusy):
        answer["Retry-After"] = AGAIN_S
    return answer


@api.exception_handler(CoreError)
def _core_refused(request: HttpRequest, error: CoreError) -> HttpResponse:
    sentence = str(error)
    sentence = sentence if sentence.endswith((".", "?")) else f"{sentence}."
    if isinstance(error, AskFirst):
        return refuse(409, error.code, sentence, field=error.field, way_out=error.way_out)
    faults = error.faults if isinstance(error, DocumentError) else []
    at = Span(begin=error.begin, end=error.end) if isinstance(error, WordRefused) else None
    return refuse(422, error.code, sentence, field=error.field, faults=faults, at=at)


@api.exception_handler(ValidationError)
def _invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
    faults = [_fault(one) for one in error.errors]
    return refuse(422, "shape", faults[0].sentence, field=faults[0].path, faults=faults)


def _fault(error: dict[str, Any]) -> Fault:
    path = field_path(error["loc"])
    return Fault(path=".".join(path), sentence=plain_sentence({**error, "loc": path}))


@api.exception_handler(AuthenticationError)
def _stranger(request: HttpRequest, _error: AuthenticationError) -> HttpResponse:
    return refuse(401, "sign_in", "You are not signed in; sign in and send it again.")


@api.exception_handler(Http404)
def _missing(request: HttpRequest, _error: Http404) -> HttpResponse:
    return refuse(404, "missing", "There is nothing here by that name.")


@api.exception_handler(RequestDataTooBig)
def _too_big(request: HttpRequest, _error: RequestDataTooBig) -> HttpResponse:
    return refuse(413, "too_big", "This is larger than anything taken here (1 MB); send less.")


@api.exception_handler(HttpError)
def _http(request: HttpRequest, error: HttpError) -> HttpResponse:
    return refuse(error.status_code, "request", str(error))
