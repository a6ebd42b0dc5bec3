"""The API of photographs: coming in piece by piece, handed out by digest, listed for an engine; the example of a step."""

from typing import Annotated
from uuid import UUID

from django.http import FileResponse, Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from ninja import Path, Query, Router, Status
from pydantic import StringConstraints

from config.schemas import refusals
from gurvo_core.pictures.job.state import PictureView
from shop.roles import person_of
from work import bridge
from work.examples import example_of, examples_of, name_example
from work.finding import engine_of
from work.pictures import kept, picture_file, piece, small_file
from work.schemas import ExampleIn, ExampleOut, PictureCame, PictureKept

Digest = Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{64}$")]
router = Router()
engine_router = Router()


@router.post(
    "/coming/{name}",
    response={200: PictureCame, **refusals(401, 403, 413, 422)},
    operation_id="picture_piece",
    summary="A piece of a picture, as bytes; the answer says where the next begins",
    openapi_extra={"requestBody": {"required": True, "content": {"application/octet-stream": {"schema": {"type": "string"}}}}},
)
def take_piece(request: HttpRequest, name: UUID, at: Annotated[int, Query(ge=0)]) -> PictureCame:
    """Keep a piece of at most 1 MB. Sent with nothing in it, it asks how much is here."""
    return PictureCame(has=piece(name, at=at, content=request.body, by=person_of(request)))


@router.post(
    "/coming/{name}/whole",
    response={201: PictureKept, **refusals(401, 403, 422, 429)},
    operation_id="picture_whole",
    summary="All pieces are here: bring it to size and keep it",
)
def take_whole(request: HttpRequest, name: UUID) -> Status[PictureKept]:
    """Keep the picture; the answer names it as its entry does."""
    digest, width, height = kept(name, by=person_of(request))
    return Status(201, PictureKept(digest=digest, width=width, height=height))


@router.get("/{digest}.jpg", response={200: None, **refusals(401, 404, 422)}, operation_id="picture_look", summary="A picture")
def look(request: HttpRequest, digest: Annotated[Digest, Path()], small: bool = False) -> HttpResponseBase:
    """Hand out a picture, whole or small; what a digest names never changes."""
    file = small_file(digest) if small else picture_file(digest)
    if not file.exists():
        raise Http404
    if request.headers.get("If-None-Match") == f'"{file.stem}"':
        return HttpResponse(status=304)
    answer = FileResponse(file.open("rb"), content_type="image/jpeg", headers={"Content-Disposition": f'inline; filename="{file.name}"'})
    answer["ETag"] = f'"{file.stem}"'
    return answer


@engine_router.get(
    "/{serial}/pictures",
    response={200: list[PictureView], **refusals(401, 404)},
    operation_id="engine_pictures",
    summary="Every picture of an engine that stands, oldest first",
)
def pictures(request: HttpRequest, serial: str) -> list[PictureView]:
    """List the pictures of an engine."""
    return bridge.pictures_of(bridge.ledger_of(engine_of(serial)))


@engine_router.get(
    "/{serial}/examples",
    response={200: list[ExampleOut], **refusals(401, 404)},
    operation_id="engine_examples",
    summary="How steps of its family should look, where the lead has named a picture",
)
def examples(request: HttpRequest, serial: str) -> list[ExampleOut]:
    """List the examples of the engine's family."""
    return [ExampleOut.model_validate(one, from_attributes=True) for one in examples_of(engine_of(serial))]


@engine_router.put(
    "/{serial}/examples",
    response={200: ExampleOut, **refusals(401, 403, 404, 422)},
    operation_id="engine_example_name",
    summary="Name one of its pictures as the way a step should look",
)
def name(request: HttpRequest, serial: str, payload: ExampleIn) -> ExampleOut:
    """Name an example; the lead alone."""
    engine = engine_of(serial)
    name_example(engine, step=payload.step, digest=payload.digest, by=person_of(request))
    return ExampleOut.model_validate(example_of(engine, payload.step), from_attributes=True)
