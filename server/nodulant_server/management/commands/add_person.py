"""``manage.py add_person NAME ROLE``: someone who may sign in, or another role and password for them."""

import getpass
from typing import get_args

from django.contrib.auth.models import User
from django.core.management.base import BaseCommand, CommandError, CommandParser

from nodulant.base.errors import InputError
from nodulant_server.actions import people
from nodulant_server.models import Member
from nodulant_server.roles import Role
from nodulant_server.shops import shop_named


class Command(BaseCommand):
    """Add a person or change their role and password."""

    help = "Add a person with a role (owner, helper, reader) to a shop; asks for the password."

    def add_arguments(self, parser: CommandParser) -> None:
        """Name, role and shop."""
        parser.add_argument("name")
        parser.add_argument("role", choices=get_args(Role))
        parser.add_argument("--password", help="asked for where it is left out")
        parser.add_argument("--shop", default="", help="the shop's name; made where there is none of it")

    def handle(self, *args: str, name: str, role: Role, shop: str = "", password: str | None = None, **o: str) -> None:
        """Store the person with that role in that shop."""
        given = password if password is not None else getpass.getpass()
        workshop = shop_named(shop)
        try:
            user = User.objects.filter(username=name).first()
            if user is None:
                people.add_member(workshop, name, given, role)
            else:
                people.set_password(user, given)
                Member.objects.update_or_create(
                    workshop=workshop, user=user, defaults={"role": role, "disabled_at": None}
                )
        except InputError as error:
            raise CommandError(f"{error.message}: {error.found}" if error.found else error.message) from error
        self.stdout.write(f"{name} may sign in as {role} of {workshop.name}")
