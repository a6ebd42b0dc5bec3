"""Adds a person to the shop: ./gurvo person NAME ROLE asks for the password."""

import getpass
from argparse import ArgumentParser
from typing import Any

from django.contrib.auth.models import User
from django.core.exceptions import ValidationError
from django.core.management.base import BaseCommand, CommandError

from shop.roles import ROLES
from shop.services import add_person


class Command(BaseCommand):
    """Adds a person with a role."""

    help = "Add a person: user name, role, full name"

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("username")
        parser.add_argument("role", choices=ROLES)
        parser.add_argument("name", nargs="?", default="")

    def handle(self, *_args: Any, **options: Any) -> None:
        if User.objects.filter(username=options["username"]).exists():
            raise CommandError(f"There is somebody called {options['username']} already; choose another name.")
        try:
            add_person(
                username=options["username"],
                name=options["name"] or options["username"],
                role=options["role"],
                password=getpass.getpass("Password: "),
            )
        except ValidationError as error:
            raise CommandError(" ".join(error.messages)) from None
        print(f"{options['username']} may now sign in as {options['role']}.")
