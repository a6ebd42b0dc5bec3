"""Changes to the shop: signing in, showing who is there, preferences."""

from django.contrib.auth import HASH_SESSION_KEY, authenticate, login
from django.contrib.auth.models import User
from django.http import HttpRequest
from django.utils import timezone

from shop.backends import TAKES_PIN
from shop.confirming import PASSWORD_AT, came_with_password
from shop.errors import Forbidden, SignInFailed
from shop.guesses import guessing
from shop.idle import come_back
from shop.models import BenchDevice, Preference
from shop.script_keys import check_nobody_but_people


def sign_in(request: HttpRequest, username: str, password: str) -> None:
    """Sign somebody in, or say why not; five wrong tries bring a pause that grows."""
    user = _prove(request, username, password)
    if user is None:
        raise SignInFailed("Name and password do not belong together; try again.", "password")
    login(request, user)
    came_with_password(request, password)


def sign_in_at_bench(request: HttpRequest, bench: BenchDevice, username: str, password: str) -> None:
    """Sign somebody in at a paired device, by PIN or password; wrong tries count like those at any door."""
    user = _prove(request, username, password, at=f"bench {bench.pk}")
    if user is None:
        raise SignInFailed("Name and PIN do not belong together; try again, or take the password.", "password")
    login(request, user)
    came_with_password(request, password)
    BenchDevice.objects.filter(pk=bench.pk).update(used_at=timezone.now())


def _prove(request: HttpRequest, username: str, password: str, at: str = "") -> User | None:
    """Who it is; the pause after wrong tries asks for whom they were. Whoever is in a session or at a paired device may show a PIN."""
    vars(request)["tried_name"] = username
    if at or request.user.is_authenticated:
        vars(request)[TAKES_PIN] = at or request.user.get_username()
    with guessing(request) as guess:
        user = authenticate(request, username=username, password=password)
        guess.was_right = isinstance(user, User)
    if not isinstance(user, User):
        return None
    if user == request.user:  # a password kept in an older way was kept anew just now; the session in which it was given goes on
        request.session[HASH_SESSION_KEY] = user.get_session_auth_hash()
    return user


def confirm(request: HttpRequest, password: str) -> None:
    """Take note that whoever is signed in has shown once more who he is; wrong tries count like those at the door."""
    check_nobody_but_people(request)
    if _prove(request, request.user.get_username(), password) is None:
        raise Forbidden("This is neither your password nor your PIN; try again.", "password")
    came_with_password(request, password)


def be_here(request: HttpRequest, username: str, password: str) -> None:
    """Go on at a bench that was left alone, or take it over from whoever was there; by PIN or password."""
    check_nobody_but_people(request)
    user = _prove(request, username, password)
    if user is None:
        raise Forbidden("Name and PIN do not belong together; try again, or take the password.", "password")
    if user != request.user:
        login(request, user)
        request.session.pop(PASSWORD_AT, None)
    came_with_password(request, password)
    come_back(request)


def set_preference(user: User, *, length_unit: str, seen_from: str, shows_help: bool) -> None:
    """Keep how a person likes to see things."""
    Preference.objects.update_or_create(user=user, defaults={"length_unit": length_unit, "seen_from": seen_from, "shows_help": shows_help})
