from __future__ import annotations

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError
from django.utils import timezone

from kitecore.errors import KiteError
from studio.library.backups import back_up


class Command(BaseCommand):
    help = "Back up the database and all takes and films into a folder, while the site goes on."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("folder", type=Path, help="where backups are kept")
        parser.add_argument("--name", default="", help="of this one; by default the time")

    def handle(self, *args: Any, **options: Any) -> None:
        name = options["name"] or f"{timezone.now():%Y-%m-%d-%H%M%S}"
        database = Path(settings.DATABASES["default"]["NAME"])
        try:
            told = back_up(settings.DATA_DIR, database, options["folder"], name)
        except KiteError as error:
            raise CommandError(f"{error} {error.todo}") from error
        self.stdout.write(f"{options['folder'] / name}: {told.files} files, {told.copied} new")
