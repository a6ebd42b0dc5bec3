"""The API of people: for leads alone."""

from django.contrib.auth.models import User
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from config.schemas import refusals
from shop import people
from shop.confirming import check_fresh
from shop.models import Shop
from shop.schemas import PersonChange, PersonIn, PersonRow, ShopChoices, SignInRow

router = Router()


@router.get("", response={200: list[PersonRow], **refusals(401, 403)}, operation_id="people_list", summary="Everybody of the shop")
def everybody(request: HttpRequest) -> list[PersonRow]:
    """List everybody, those who have left last."""
    people.check_lead(request)
    return [PersonRow.model_validate(person) for person in people.everybody()]


@router.post("", response={201: list[PersonRow], **refusals(401, 403, 409, 422)}, operation_id="person_add", summary="Add a person")
def add(request: HttpRequest, payload: PersonIn) -> Status[list[PersonRow]]:
    """Add a person; answer with everybody."""
    people.check_lead(request)
    check_fresh(request)
    people.add_person(**payload.model_dump())
    return Status(201, everybody(request))


@router.get("/log", response={200: list[SignInRow], **refusals(401, 403)}, operation_id="people_log", summary="Who signed in, who tried")
def log(request: HttpRequest) -> list[SignInRow]:
    """List the newest lines of the sign-in log."""
    people.check_lead(request)
    return [SignInRow.model_validate(line._asdict()) for line in people.sign_in_log()]


@router.put("/choices", response={200: ShopChoices, **refusals(401, 403, 422)}, operation_id="shop_choose", summary="The shop's choices")
def choose(request: HttpRequest, payload: ShopChoices) -> ShopChoices:
    """Keep what the shop has chosen for all its benches."""
    people.check_lead(request)
    check_fresh(request)
    people.choose(**payload.model_dump())
    return payload


@router.get("/choices", response={200: ShopChoices, **refusals(401, 403)}, operation_id="shop_choices", summary="What the shop has chosen")
def choices(request: HttpRequest) -> ShopChoices:
    """Say what the shop has chosen for all its benches."""
    people.check_lead(request)
    return ShopChoices.model_validate(Shop.objects.values(*ShopChoices.model_fields).first())


@router.patch(
    "/{username}",
    response={200: list[PersonRow], **refusals(401, 403, 404, 422)},
    operation_id="person_change",
    summary="Role, password, PIN, leaving",
)
def change(request: HttpRequest, username: str, payload: PersonChange) -> list[PersonRow]:
    """Change a person; answer with everybody."""
    people.check_lead(request)
    check_fresh(request)
    people.change_person(get_object_or_404(User, username=username), **payload.model_dump())
    return everybody(request)


@router.post(
    "/{username}/unlock", response={200: list[PersonRow], **refusals(401, 403, 404)}, operation_id="person_unlock", summary="End a pause"
)
def unlock(request: HttpRequest, username: str) -> list[PersonRow]:
    """Take the pause after wrong tries off; answer with everybody."""
    people.check_lead(request)
    check_fresh(request)
    people.unlock(get_object_or_404(User, username=username))
    return everybody(request)
