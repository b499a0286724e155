"""Looks and fonts that are brought in, by a person or with a project."""

from __future__ import annotations

import json
from typing import Final
from uuid import UUID, uuid4

from django.contrib.auth.models import AbstractBaseUser, AnonymousUser
from django.core.files import File

from kitecore.colour.cubefile import MOST_BYTES as MOST_LOOK
from kitecore.errors import BadInput
from kitecore.fonts.reading import MOST_BYTES as MOST_FONT
from studio.kit.models import Font, Look, font_folder, look_folder
from studio.kit.reading import read_apart

MOST_LOOKS: Final = 200
MOST_FONTS: Final = 100
Owner = AbstractBaseUser | AnonymousUser


def new_look(owner: Owner, file: File, id: UUID | None = None) -> Look:
    """A .cube file, read and written anew in our own form.

    Raises
    ------
    BadInput
        If it is none, or the Kit is full.
    """
    if Look.objects.filter(owner=owner, removed=False).count() >= MOST_LOOKS:
        raise BadInput(f"The Kit holds {MOST_LOOKS} looks.", todo="Remove one first.")
    name = (file.name or "Look")[:200]
    try:
        told = json.loads(read_apart("look", file, MOST_LOOK))
    except BadInput as error:
        error.message = f"“{name}”: {error.message}"
        raise
    title = (told["title"] or name.rsplit(".", 1)[0] or "Look")[:200]
    look = Look(id=id or uuid4(), owner=owner, name=title)
    folder = look_folder()
    folder.path.mkdir(parents=True, exist_ok=True)
    folder.file(look.id.hex).write_text(told["table"])
    look.save()
    return look


def new_font(owner: Owner, file: File, id: UUID | None = None) -> Font:
    """A TrueType or OpenType font, for the texts of this person. Raises as `new_look`."""
    if Font.objects.filter(owner=owner, removed=False).count() >= MOST_FONTS:
        raise BadInput(f"The Kit holds {MOST_FONTS} fonts.", todo="Remove one first.")
    font = Font(id=id or uuid4(), owner=owner, name=read_apart("font", file, MOST_FONT))
    folder = font_folder()
    folder.path.mkdir(parents=True, exist_ok=True)
    file.seek(0)
    folder.file(font.id.hex).write_bytes(file.read())
    font.save()
    return font
