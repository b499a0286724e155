"""What comes from elsewhere, kept to what a person has."""

from __future__ import annotations

from typing import Final

from kitecore.document import TextClip
from kitecore.document.references import Kind, renamed
from kitecore.edits.take_over import TakeOver
from studio.kit.models import may_use_fonts, may_use_looks

PLAIN_FONT: Final[str] = TextClip.model_fields["font"].default
_LOOKS: Final = "Left out: looks that are not in your Kit."
_FONTS: Final = "Other fonts were taken for those that are not in your Kit."


def within_reach(edit: TakeOver, owner_id: int) -> tuple[TakeOver, tuple[str, ...]]:
    """A step without looks and fonts that this person does not have, and what was left out."""
    lost: set[str] = set()

    def name(kind: Kind, told: str) -> str:
        if kind == "look" and not may_use_looks(owner_id, frozenset((told,))):
            lost.add(_LOOKS)
            return ""
        if kind == "font" and not may_use_fonts(owner_id, frozenset((told,))):
            lost.add(_FONTS)
            return PLAIN_FONT
        return told

    return renamed(edit, name), tuple(sorted(lost))
