"""People from the command line: ./gurvo people lists them; role, password, pin, leave, back and unlock change one."""

import getpass
from argparse import ArgumentParser
from typing import Any

from django.contrib.auth.models import User
from django.core.management.base import BaseCommand, CommandError

from shop.errors import Refusal
from shop.people import change_person, everybody, unlock
from shop.roles import ROLES

ACTIONS = ("role", "password", "pin", "leave", "back", "unlock")


class Command(BaseCommand):
    help = "List people, or change one"

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("action", nargs="?", choices=ACTIONS)
        parser.add_argument("username", nargs="?")
        parser.add_argument("role", nargs="?", choices=ROLES)

    def handle(self, *_args: Any, **options: Any) -> None:
        if options["action"] is None:
            for person in everybody():
                left = ", has left" if person["has_left"] else ""
                self.stdout.write(f"{person['role']:8} {person['username']:16} {person['name']}{left}")
            return
        user = User.objects.filter(username=options["username"] or "").first()
        if user is None:
            raise CommandError("Name somebody who is there; ./gurvo people lists them.")
        try:
            _change(user, options["action"], options["role"])
        except Refusal as error:
            raise CommandError(error.sentence) from None
        self.stdout.write(f"{user.username}: done.")


def _change(user: User, action: str, role: Any) -> None:
    if action == "unlock":
        unlock(user)
    elif action == "password":
        change_person(user, password=getpass.getpass("New password: "))
    elif action == "pin":
        change_person(user, pin=getpass.getpass("New PIN, empty to take it away: "))
    elif action == "role":
        if role is None:
            raise Refusal(f"Name the role: {', '.join(ROLES)}.")
        change_person(user, role=role)
    else:
        change_person(user, has_left=action == "leave")
