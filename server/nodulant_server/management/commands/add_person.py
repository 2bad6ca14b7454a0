"""``manage.py add_person NAME ROLE``: someone who may sign in on a shop's own network."""

import getpass
from typing import get_args

from django.contrib.auth.models import Group, User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.core.management.base import BaseCommand, CommandError, CommandParser

from nodulant_server.roles import Role


class Command(BaseCommand):
    """Add a person or change their role and password."""

    help = "Add a person with a role (owner, helper, reader); asks for the password."

    def add_arguments(self, parser: CommandParser) -> None:
        """Name and role."""
        parser.add_argument("name")
        parser.add_argument("role", choices=get_args(Role))
        parser.add_argument("--password", help="asked for where it is left out")

    def handle(self, *args: str, name: str = "", role: str = "", password: str | None = None, **options: str) -> None:
        """Store the person in the role's group only."""
        given = password if password is not None else getpass.getpass()
        try:
            validate_password(given)
        except ValidationError as error:
            raise CommandError(" ".join(error.messages)) from error
        user, _ = User.objects.get_or_create(username=name)
        user.set_password(given)
        user.save()
        user.groups.set([Group.objects.get_or_create(name=role)[0]])
        self.stdout.write(f"{name} may sign in as {role}")
