from __future__ import annotations

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError

from kitecore.errors import KiteError
from studio.library.backups import restore


class Command(BaseCommand):
    help = "Bring a backup back into the empty folder that VELVET_KITE_DATA names."
    requires_migrations_checks = False

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("backup", type=Path, help="a backup that back_up made")

    def handle(self, *args: Any, **options: Any) -> None:
        database = Path(settings.DATABASES["default"]["NAME"])
        try:
            told = restore(options["backup"], settings.DATA_DIR, database)
        except KiteError as error:
            raise CommandError(f"{error} {error.todo}") from error
        self.stdout.write(f"{told.files} files are back. Run “make serve”.")
