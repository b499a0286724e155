"""Making accounts, changing them, ending them with all that is theirs."""

from __future__ import annotations

from typing import Final, Literal

from django.conf import settings
from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.contrib.auth.tokens import default_token_generator
from django.contrib.auth.validators import UnicodeUsernameValidator
from django.core.exceptions import ValidationError
from django.db import transaction
from django.utils.encoding import force_bytes
from django.utils.http import urlsafe_base64_decode, urlsafe_base64_encode

from kitecore.errors import BadInput, NotThere
from studio.accounts.devices import living, sign_out
from studio.accounts.models import Invitation
from studio.accounts.work import forget_archives
from studio.jobs.models import Job
from studio.jobs.queue import cancel
from studio.kit.models import Font, Look
from studio.library.models import Take
from studio.projects.models import Project

Way = Literal["first", "open", "invited", "closed"]
_SAFE: Final = "Nothing was changed."


def way_in() -> Way:
    """How an account is made now: the first one always can be, and runs the site."""
    if not User.objects.exists():
        return "first"
    way: Way = settings.ACCOUNTS
    return way


@transaction.atomic
def make_account(name: str, password: str, code: str = "") -> User:
    """A new account.

    Raises
    ------
    BadInput
        If none may be made this way, or the name or the password will not do.
    """
    way = way_in()
    invitation = Invitation.objects.select_for_update().filter(code=code).first() if code else None
    invited = invitation is not None and invitation.stands
    if way == "closed" or (way == "invited" and not invited):
        raise BadInput(
            "Accounts are made by invitation here."
            if way == "invited"
            else "No accounts are made here.",
            safe=_SAFE,
            todo="Ask whoever runs this site.",
        )
    user = User(username=_good_name(name))
    _set_password(user, password)
    user.is_staff = user.is_superuser = way == "first"
    user.save()
    if invited and invitation is not None:
        invitation.used_by = user
        invitation.save(update_fields=["used_by"])
    return user


def rename(user: User, name: str) -> None:
    user.username = _good_name(name, but=user)
    user.save(update_fields=["username"])


def change_password(user: User, password: str) -> None:
    """All other devices are signed out by that: their sessions know the old one."""
    _set_password(user, password)
    user.save(update_fields=["password"])


def password_link(user: User) -> str:
    """The path at which a person sets a new password; it works once, for some days."""
    who = urlsafe_base64_encode(force_bytes(user.pk))
    return f"/new-password/{who}/{default_token_generator.make_token(user)}"


def by_password_link(who: str, token: str) -> User:
    """Raises `NotThere` if the link is none, used or too old."""
    try:
        user = User.objects.filter(pk=int(urlsafe_base64_decode(who)), is_active=True).first()
    except (ValueError, OverflowError):
        user = None
    if user is None or not default_token_generator.check_token(user, token):
        raise NotThere("This link was used or is too old.", todo="Ask for a new one.")
    return user


def delete_account(user: User) -> None:
    """With all that is theirs: projects, takes, films, what is in the Kit."""
    for job in Job.objects.unfinished().filter(owner=user, parent=None):
        cancel(job)
    for device in living(user):
        sign_out(device)
    forget_archives(user)
    with transaction.atomic():
        for one in (Take, Look, Font):
            one.objects.filter(owner=user).delete()
        Project.objects.filter(owner=user).update(head=None)
        Project.objects.filter(owner=user).delete()
        user.delete()


def _good_name(name: str, but: User | None = None) -> str:
    name = name.strip()
    try:
        UnicodeUsernameValidator()(name)
    except ValidationError as error:
        todo = "Use letters, digits and @ . + - _ only."
        raise BadInput("That name will not do.", safe=_SAFE, todo=todo) from error
    if not 0 < len(name) <= 60:
        raise BadInput("A name has from 1 to 60 letters.", safe=_SAFE)
    taken = User.objects.filter(username__iexact=name)
    if (taken.exclude(pk=but.pk) if but else taken).exists():
        raise BadInput("That name is taken.", safe=_SAFE, todo="Choose another one.")
    return name


def _set_password(user: User, password: str) -> None:
    try:
        validate_password(password, user)
    except ValidationError as error:
        todo = "Choose a longer or rarer one."
        raise BadInput(" ".join(error.messages), safe=_SAFE, todo=todo) from error
    user.set_password(password)
