"""What is said in a film, and when: as it is read from files and voices."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated

from pydantic import Field

from kitecore.document.clips.text import MOST_LETTERS, SaidKeys
from kitecore.document.properties import Key
from kitecore.model import Model, Start
from kitecore.ticks import Rate


class Cue(Model):
    """What is said from one moment to another, and when each of its words is, if that is known.

    ``height`` is where its middle lies, 0 at the top of the picture to 1; None for the usual place.
    """

    at: Start
    until: Start
    text: Annotated[str, Field(min_length=1, max_length=MOST_LETTERS)]
    words: Annotated[tuple[Start, ...], Field(max_length=MOST_LETTERS)] = ()
    height: float | None = Field(default=None, ge=0, le=1)

    def said(self) -> SaidKeys | None:
        """Which of its words is said, counted from its beginning; None if that is not known."""
        if len(self.words) != len(self.text.split()):
            return None
        # Of words that are said at once the last is shown.
        at = {max(tick - self.at, 0): number for number, tick in enumerate(self.words, 1)}
        keys = tuple(Key[int](at=tick, value=at[tick]) for tick in sorted(at))
        return SaidKeys(keys=keys) if keys else None


def cues_in_order(cues: Iterable[Cue], rate: Rate) -> list[Cue]:
    """On frames, one after another: where two are said at once, the first ends early."""
    step, found = rate.frame_ticks, list[Cue]()
    for cue in sorted(cues, key=lambda one: (one.at, one.until)):
        at = rate.nearest(cue.at)
        until = max(rate.nearest(cue.until), at + step)
        if found and found[-1].at == at:
            both = f"{found[-1].text}\n{cue.text}"[:MOST_LETTERS]
            words = (*found[-1].words, *cue.words)
            both_said = {"until": max(until, found[-1].until), "text": both, "words": words}
            found[-1] = found[-1].model_copy(update=both_said)
            continue
        if found and found[-1].until > at:
            found[-1] = found[-1].model_copy(update={"until": at})
        found.append(cue.model_copy(update={"at": at, "until": until}))
    return found
