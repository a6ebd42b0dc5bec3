"""The API of keys for programs: a person's own, seen and made by himself alone."""

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from config.schemas import refusals
from shop import script_keys
from shop.confirming import check_fresh
from shop.models import ScriptKey
from shop.roles import person_of
from shop.schemas import ScriptKeyIn, ScriptKeyMade, ScriptKeyRow

router = Router()


@router.get("", response={200: list[ScriptKeyRow], **refusals(401)}, operation_id="keys_list", summary="My keys for programs")
def mine(request: HttpRequest) -> list[ScriptKeyRow]:
    """List the keys that whoever asks has made."""
    return [ScriptKeyRow.model_validate(key, from_attributes=True) for key in script_keys.keys_of(person_of(request))]


@router.post("", response={201: ScriptKeyMade, **refusals(401, 403, 409, 422)}, operation_id="key_make", summary="One more key")
def make(request: HttpRequest, payload: ScriptKeyIn) -> Status[ScriptKeyMade]:
    """Make a key; it is told in this answer and never again."""
    check_fresh(request)
    key, secret = script_keys.make_key(person_of(request), payload.name)
    row = ScriptKeyRow.model_validate(key, from_attributes=True)
    return Status(201, ScriptKeyMade(**row.model_dump(), secret=secret))


@router.delete("/{int:key_id}", response={204: None, **refusals(401, 404)}, operation_id="key_take_back", summary="Take a key back")
def take_back(request: HttpRequest, key_id: int) -> Status[None]:
    """From now on it opens nothing; no password is asked for, since it may be urgent."""
    script_keys.take_back(get_object_or_404(ScriptKey, pk=key_id, owner=person_of(request)))
    return Status(204, None)
