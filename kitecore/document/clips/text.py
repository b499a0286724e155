from __future__ import annotations

from typing import Annotated, ClassVar, Literal, NamedTuple

from pydantic import Field

from kitecore.document.clips._base import Pictured, clip_kinds
from kitecore.document.fills import Fill, PlainFill
from kitecore.document.properties import Keys, Number
from kitecore.document.references import FontName
from kitecore.model import Model, param

MOST_LETTERS = 4000

Letters = Annotated[str, Field(max_length=MOST_LETTERS)]


class WordsKeys(Keys[Letters]):
    """Words that change: each stands until the next key."""

    held: ClassVar[bool] = True


Count = Annotated[int, Field(ge=0, le=MOST_LETTERS)]


class SaidKeys(Keys[Count]):
    """The number of the word that is said, from 1 on; 0 while none is."""

    held: ClassVar[bool] = True


class Saying(NamedTuple):
    """Words, and the ticks of the timeline from which and until which they stand."""

    begin: int
    end: int
    words: str


class Plate(Model):
    """A surface behind the text, larger than it by a margin."""

    fill: Fill = PlainFill(colour="#221d28", opacity=0.85)
    across: Number = param(36.0, help="Margin across", unit="px", low=0, high=300, step=1)
    down: Number = param(20.0, help="Margin down", unit="px", low=0, high=300, step=1)
    radius: Number = param(18.0, help="Round corners", unit="px", low=0, high=300, step=1)


@clip_kinds.register("text")
class TextClip(Pictured):
    """Words on the picture, in any script. Its middle is the middle of its box.

    ``width`` is where lines are broken; 0 breaks them only where the text does.
    """

    kind: Literal["text"] = "text"
    text: Letters | WordsKeys = "Text"
    font: FontName = "bricolage-grotesque"
    bold: bool = True
    italic: bool = False
    size: Number = param(96.0, help="Size of the letters", unit="px", low=8, high=500, step=1)
    width: Number = param(900.0, help="Width of the box", unit="px", low=0, high=2000, step=5)
    align: Literal["start", "middle", "end", "justified"] = "middle"
    letter_space: Number = param(
        0.0, help="Space between letters", unit="px", low=-20, high=100, step=0.5
    )
    line_height: Number = param(1.15, help="Height of a line", low=0.6, high=3, step=0.05)
    fill: Fill | None = PlainFill(colour="#fff4e2")
    outline: Fill | None = None
    outline_width: Number = param(6.0, help="Outline", unit="px", low=0, high=80, step=0.5)
    plate: Plate | None = None
    lit: Fill | None = None
    """Of the word that is being said, and with ``lit_stays`` of those before it."""
    lit_stays: bool = False
    said: Count | SaidKeys | None = None
    """The word that is being said; None where words are spread over the clip by their letters."""

    @property
    def begins(self) -> tuple[int, ...]:
        """Ticks of the timeline at which its words begin to be said, as far as that is known."""
        if not isinstance(self.said, SaidKeys):
            return ()
        return tuple(self.start + key.at for key in self.said.keys if key.value)

    @property
    def first_words(self) -> str:
        """What it says when it begins to say something."""
        return self.text if isinstance(self.text, str) else self.text.keys[0].value

    @property
    def sayings(self) -> tuple[Saying, ...]:
        """What it says one after another; words that stay the same are said once."""
        if isinstance(self.text, str):
            return (Saying(self.start, self.end, self.text),)
        found = [Saying(self.start, self.end, self.first_words)]
        for key in self.text.keys:
            at = self.start + max(key.at, 0)
            if at >= self.end or key.value == found[-1].words:
                continue
            before = [found[-1]._replace(end=at)] if found[-1].begin < at else []
            found[-1:] = [*before, Saying(at, self.end, key.value)]
        return tuple(found)
