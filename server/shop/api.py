"""The shop's API: the session and preferences."""

from django.contrib.auth import logout
from django.contrib.auth.models import User
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie
from ninja import File, Router, Status
from ninja.decorators import decorate_view
from ninja.files import UploadedFile
from ninja.security import django_auth
from ninja.utils import check_csrf

from config.schemas import Problem, refusals
from gurvo_core.units import per_unit
from shop import services
from shop.benches import bench_of, keep_secret, pair
from shop.errors import Forbidden
from shop.first_run import begin_shop, is_new
from shop.idle import is_left_alone, leave_alone
from shop.letterhead import letterhead, set_letterhead, set_mark
from shop.models import Preference, Shop
from shop.people import at_this_bench
from shop.roles import person_of, role_of, shown_name
from shop.schemas import (
    Confirm,
    FirstRun,
    Here,
    LengthUnit,
    LetterheadIn,
    LetterheadOut,
    Name,
    PairIn,
    Person,
    PreferenceIn,
    Session,
    SignIn,
    UnitFactor,
)
from shop.script_keys import ByScriptKey

session_router = Router()
router = Router()
_DECIMALS: dict[LengthUnit, int] = {"mm": 2, "in": 4, "thou": 1}


def _session(request: HttpRequest) -> Session:
    person, user = None, request.user
    if isinstance(user, User):
        likes = Preference.objects.filter(user=user).first() or Preference(user=user)
        person = Person.model_validate(
            {
                "username": user.username,
                "name": shown_name(user),
                "role": role_of(user),
                "length_unit": likes.length_unit,
                "seen_from": likes.seen_from,
                "shows_help": likes.shows_help,
            }
        )
    units = {unit: UnitFactor(mm_per_unit=per_unit(unit), decimals=places, label=unit) for unit, places in _DECIMALS.items()}
    minutes = Shop.objects.values_list("alone_minutes", flat=True).first() or 0
    bench = bench_of(request)
    return Session(
        person=person,
        length_units=units,
        left_alone=is_left_alone(request),
        alone_minutes=minutes,
        is_new=person is None and is_new(),
        bench=bench.name if bench else "",
    )


def _check_page(request: HttpRequest) -> None:
    """Only a page of ours asks this; others' pages cannot make a browser do it."""
    if check_csrf(request):
        raise Forbidden("This page is stale; load it again and sign in.")


@session_router.get("", response=Session, auth=None, operation_id="session_look", summary="Who is signed in")
@decorate_view(ensure_csrf_cookie)
def look(request: HttpRequest) -> Session:
    """Say who is signed in; nobody is an answer too."""
    return _session(request)


@session_router.post(
    "", response={200: Session, **refusals(401, 403, 422, 429)}, auth=None, operation_id="session_sign_in", summary="Sign in"
)
def sign_in(request: HttpRequest, payload: SignIn) -> Session:
    """Sign in with name and password."""
    _check_page(request)
    services.sign_in(request, payload.username, payload.password)
    return _session(request)


@session_router.post(
    "/first", response={201: Session, **refusals(403, 409, 422, 429)}, auth=None, operation_id="first_run", summary="Begin a new shop"
)
def first_run(request: HttpRequest, payload: FirstRun) -> Status[Session]:
    """Make the first lead of a shop that has nobody yet, and sign him in."""
    _check_page(request)
    begin_shop(request, **payload.model_dump())
    return Status(201, _session(request))


@session_router.post(
    "/pair", response={200: Session, **refusals(403, 422, 429)}, auth=None, operation_id="session_pair", summary="Pair this device"
)
def pair_here(request: HttpRequest, payload: PairIn, response: HttpResponse) -> Session:
    """Take the code that a lead shows: from now on this device asks for a PIN alone."""
    _check_page(request)
    bench, secret = pair(request, payload.code)
    keep_secret(response, secret)
    return _session(request).model_copy(update={"bench": bench.name})


@session_router.post(
    "/at-bench",
    response={200: Session, **refusals(401, 403, 422, 429)},
    auth=None,
    operation_id="session_at_bench",
    summary="Sign in at a paired device",
)
def at_bench(request: HttpRequest, payload: Here) -> Session:
    """Sign in at a paired device, by PIN or password."""
    _check_page(request)
    bench = bench_of(request)
    if bench is None:
        raise Forbidden("This device is not paired with the shop; sign in with your password.", "password")
    services.sign_in_at_bench(request, bench, payload.username, payload.password)
    return _session(request)


@session_router.post(
    "/confirm", response={204: None, **refusals(401, 403, 422, 429)}, operation_id="session_confirm", summary="Show who I am once more"
)
def confirm(request: HttpRequest, payload: Confirm) -> Status[None]:
    """Show once more who is signed in, before a signature."""
    services.confirm(request, payload.password)
    return Status(204, None)


@session_router.get(
    "/people",
    response={200: list[Name], 401: Problem},
    auth=[ByScriptKey(), django_auth, bench_of],
    operation_id="session_people",
    summary="Who may be here",
)
def people(request: HttpRequest) -> list[Name]:
    """List who may take over a bench that is signed in, or sign in at a paired device."""
    return [Name.model_validate(person) for person in at_this_bench()]


@session_router.put(
    "/here", response={200: Session, **refusals(401, 403, 422, 429)}, operation_id="session_here", summary="Show who is at the bench"
)
def here(request: HttpRequest, payload: Here) -> Session:
    """Go on at a bench that was left alone, or take it over."""
    services.be_here(request, payload.username, payload.password)
    return _session(request)


@session_router.post(
    "/here", response={204: None, **refusals(401)}, operation_id="session_still_here", summary="Somebody is still at the bench"
)
def still_here(request: HttpRequest) -> Status[None]:
    """Take note that somebody is at work, though nothing is recorded."""
    return Status(204, None)


@session_router.delete("/here", response={204: None, 401: Problem}, operation_id="session_leave", summary="Leave the bench")
def leave(request: HttpRequest) -> Status[None]:
    """Leave the bench: it asks who is there before anything else is taken."""
    leave_alone(request)
    return Status(204, None)


@session_router.delete("", response={204: None, 401: Problem}, operation_id="session_sign_out", summary="Sign out")
def sign_out(request: HttpRequest) -> Status[None]:
    """Sign out."""
    logout(request)
    return Status(204, None)


@router.get("/letterhead", response={200: LetterheadOut, **refusals(401)}, operation_id="letterhead_look", summary="The head of papers")
def look_at_letterhead(request: HttpRequest) -> LetterheadOut:
    """Say what stands at the head of papers."""
    return LetterheadOut.model_validate(letterhead(), from_attributes=True)


@router.put(
    "/letterhead", response={200: LetterheadOut, **refusals(401, 403, 422)}, operation_id="letterhead_set", summary="Say the head of papers"
)
def say_letterhead(request: HttpRequest, payload: LetterheadIn) -> LetterheadOut:
    """Say what stands at the head of papers; the lead alone."""
    return LetterheadOut.model_validate(set_letterhead(**payload.model_dump(), by=person_of(request)), from_attributes=True)


@router.post(
    "/letterhead/mark",
    response={200: LetterheadOut, **refusals(401, 403, 413, 422)},
    operation_id="mark_set",
    summary="The shop's own mark",
)
def say_mark(request: HttpRequest, file: File[UploadedFile]) -> LetterheadOut:
    """Put the shop's own mark at the head of papers; the lead alone."""
    return LetterheadOut.model_validate(set_mark(file.file, person_of(request)), from_attributes=True)


@router.delete(
    "/letterhead/mark", response={200: LetterheadOut, **refusals(401, 403)}, operation_id="mark_off", summary="Papers without a mark"
)
def take_mark_off(request: HttpRequest) -> LetterheadOut:
    """Take it off; the lead alone."""
    return LetterheadOut.model_validate(set_mark(None, person_of(request)), from_attributes=True)


@router.put("/me", response={200: Session, **refusals(401, 422)}, operation_id="me_set", summary="Keep how I like to see things")
def set_preference(request: HttpRequest, payload: PreferenceIn) -> Session:
    """Keep unit and side of the person signed in."""
    assert isinstance(request.user, User)
    services.set_preference(request.user, **payload.model_dump())
    return _session(request)
