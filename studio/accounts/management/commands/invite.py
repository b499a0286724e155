from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand

from studio.accounts.models import Invitation


class Command(BaseCommand):
    help = "Make an invitation: a path at which one person makes an account."

    def handle(self, *args: Any, **options: Any) -> None:
        invitation = Invitation.objects.create()
        self.stdout.write(f"/sign-in?invitation={invitation.code}")
