"""The one place that decides whether a person may use what a document or an edit leads to."""

from __future__ import annotations

from collections.abc import Callable
from typing import Final

from kitecore import edits
from kitecore.document import Document
from kitecore.document.changes import changed_clips
from kitecore.document.references import Kind, references
from kitecore.errors import NotThere
from studio.kit.models import may_use_fonts, may_use_looks
from studio.library.models import may_use_takes

_MAY_USE: Final[dict[Kind, Callable[[int, frozenset[str]], bool]]] = {
    "take": may_use_takes,
    "look": may_use_looks,
    "font": may_use_fonts,
}


def require_own(owner_id: int, *things: object) -> None:
    """Models of the core, or tuples of them, lead only to takes, looks and fonts of one person.

    Raises
    ------
    NotThere
        If one leads to what is somebody else's, or nobody's.
    """
    found = references(*things)
    for kind, may_use in _MAY_USE.items():
        names = frozenset(name for one, name in found if one == kind)
        if names and not may_use(owner_id, names):
            raise NotThere(f"A {kind} that this uses is not there.")


def changed(owner_id: int, document: Document, edit: edits.EditBase) -> Document:
    """The document after an edit that the person may do: for keeping it, and for trying it out.

    Raises
    ------
    NotThere
        If the edit, or what it leaves, leads to what is not the person's.
    EditRefused, BrokenDocument
        As `kitecore.edits.apply`.
    """
    require_own(owner_id, edit)
    after = edits.apply(document, edit)
    # The rest was checked when it came.
    _, come = changed_clips(document.tracks, after.tracks)
    require_own(owner_id, *come)
    return after
