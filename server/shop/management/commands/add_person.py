"""Adds a person to the shop: ./gurvo person NAME ROLE asks for the password."""

import getpass
from argparse import ArgumentParser
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from shop.errors import Refusal
from shop.people import add_person
from shop.roles import ROLES


class Command(BaseCommand):
    """Adds a person with a role."""

    help = "Add a person: user name, role, full name"

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("username")
        parser.add_argument("role", choices=ROLES)
        parser.add_argument("name", nargs="?", default="")

    def handle(self, *_args: Any, **options: Any) -> None:
        try:
            add_person(
                username=options["username"],
                name=options["name"] or options["username"],
                role=options["role"],
                password=getpass.getpass("Password: "),
            )
        except Refusal as error:
            raise CommandError(error.sentence) from None
        print(f"{options['username']} may now sign in as {options['role']}.")
