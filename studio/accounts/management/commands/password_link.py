from __future__ import annotations

from argparse import ArgumentParser
from typing import Any

from django.contrib.auth.models import User
from django.core.management.base import BaseCommand, CommandError

from studio.accounts.keeping import password_link


class Command(BaseCommand):
    help = "A path at which a person who forgot the password sets a new one, once."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("name")

    def handle(self, *args: Any, **options: Any) -> None:
        user = User.objects.filter(username=options["name"]).first()
        if user is None:
            raise CommandError(f"Nobody is called {options['name']} here.")
        self.stdout.write(password_link(user))
