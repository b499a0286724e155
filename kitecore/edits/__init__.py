"""What can be done to a document. To add an edit: a module here."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, Union

from pydantic import Field, ValidationError

from kitecore.document import Document, check
from kitecore.edits._along import with_keys_along
from kitecore.edits._angles import with_shared
from kitecore.edits._base import EditBase, edit_kinds
from kitecore.edits._bounds import require_within
from kitecore.edits._inside import changed_inside
from kitecore.edits._tidy import tidied
from kitecore.errors import EditRefused
from kitecore.registry import import_all

import_all(__name__)

if TYPE_CHECKING:
    Edit = EditBase
else:
    Edit = Annotated[Union[tuple(edit_kinds.values())], Field(discriminator="kind")]  # noqa: UP007

__all__ = ["Edit", "EditBase", "apply", "edit_kinds"]


def apply(document: Document, edit: EditBase) -> Document:
    """The document after an edit, its invariants checked.

    Raises
    ------
    EditRefused
        If the edit does not fit.
    BrokenDocument
        If it leaves a document that breaks an invariant: a mistake in the edit.
    NotThere
        If it names a clip or track that is not there.
    """
    if edit.within is None:
        after = _followed(document, _done(edit, document))
    else:
        after = changed_inside(
            document, edit.within, lambda inner: _followed(inner, _done(edit, inner))
        )
        after = with_shared(document, after)
    require_within(document, after)
    check(after, before=document)
    return after


def _followed(before: Document, after: Document) -> Document:
    """What follows from an edit by itself."""
    return with_keys_along(before, tidied(before, after))


def _done(edit: EditBase, document: Document) -> Document:
    """The edit by itself; a part that it would make of numbers that do not fit refuses it."""
    try:
        return edit.apply(document)
    except ValidationError as error:
        raise EditRefused(f"That does not fit: {error.errors()[0]['msg']}.") from error
