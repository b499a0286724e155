"""What whoever runs the site sees and sets, under ``/admin/``."""

from __future__ import annotations

from django.contrib import admin

from studio.accounts.models import Allowance, Device, Invitation
from studio.jobs.models import Job

admin.site.site_header = "Velvet Kite: running the site"


@admin.register(Allowance)
class AllowanceAdmin(admin.ModelAdmin):
    list_display = ("owner", "library_gb", "projects", "unfinished_films")


@admin.register(Invitation)
class InvitationAdmin(admin.ModelAdmin):
    list_display = ("code", "made_at", "ends_at", "used_by")
    readonly_fields = ("made_at", "used_by")


@admin.register(Device)
class DeviceAdmin(admin.ModelAdmin):
    """Their sessions end with the person's password, or by the person."""

    list_display = ("owner", "browser", "made_at", "seen_at")
    exclude = ("session",)

    def has_add_permission(self, request: object) -> bool:
        return False

    def has_change_permission(self, request: object, obj: object = None) -> bool:
        return False


@admin.register(Job)
class JobAdmin(admin.ModelAdmin):
    """To be looked at; cancelled and tried again by their owners."""

    list_display = ("kind", "owner", "state", "share", "attempts", "made_at", "finished_at")
    list_filter = ("state", "kind")
    search_fields = ("subject", "owner__username")

    def has_add_permission(self, request: object) -> bool:
        return False

    def has_change_permission(self, request: object, obj: object = None) -> bool:
        return False
