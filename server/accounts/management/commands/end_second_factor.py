"""Ends the second factor of a person who lost phone and recovery codes, and their sessions: for the
owner whom no other owner can help."""

from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from accounts.models import User
from accounts.second_factor import drop


class Command(BaseCommand):
    """`manage.py end_second_factor NAME`"""

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        """The sign-in name."""
        parser.add_argument("username")

    def handle(self, *args: Any, username: str, **options: Any) -> None:
        """Refuses a name that nobody has."""
        user = User.objects.filter(username=username).first()
        if user is None:
            raise CommandError(f"Nobody signs in as {username}.")
        drop(user)
        user.sessions.all().delete()
        self.stdout.write(
            f"{username} signs in by the password alone, until it is switched on again."
        )
