"""Begins a workspace with its owner, and prints the owner's first password."""

import secrets
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import transaction

from accounts.models import Membership, Role, User, Workspace, reserved


class Command(BaseCommand):
    """`manage.py add_owner NAME WORKSPACE`"""

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        """The sign-in name and the workspace's."""
        parser.add_argument("username")
        parser.add_argument("workspace")

    @transaction.atomic
    def handle(self, *args: Any, username: str, workspace: str, **options: Any) -> None:
        """Refuses a name that is taken, or kept for the demo."""
        if reserved(username):
            raise CommandError(f"The name {username} is kept for the demo; choose another.")
        if User.objects.filter(username__iexact=username).exists():
            raise CommandError(f"The name {username} is taken.")
        password = secrets.token_urlsafe(9)
        user = User.objects.create_user(username=username, password=password)
        made = Workspace.objects.create(name=workspace)
        Membership.objects.create(user=user, workspace=made, role=Role.OWNER)
        self.stdout.write(f"{username} owns {workspace}. Password: {password}")
