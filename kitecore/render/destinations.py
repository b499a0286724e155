"""Where files go: what is made for each place, and what it takes."""

from __future__ import annotations

from typing import Final

from pydantic import Field

from kitecore.document import Model
from kitecore.render.export import Aspect, ExportSettings, FileRate


class Margins(Model):
    """Shares of a picture's height, or width, that a place's own signs may lie over."""

    top: float = Field(default=0.05, ge=0, le=0.5)
    bottom: float = Field(default=0.05, ge=0, le=0.5)
    left: float = Field(default=0.05, ge=0, le=0.5)
    right: float = Field(default=0.05, ge=0, le=0.5)


class Destination(Model):
    """A place, with what is made for it.

    Attributes
    ----------
    settings
        What to begin with; a person may change all of it.
    longest, most_bytes
        Seconds and bytes that it takes; 0 for as much as there is.
    loudness
        LUFS that it wants; None if it does not care.
    margins
        Where nothing that matters should lie.
    """

    id: str
    title: str
    help: str
    settings: ExportSettings
    longest: float = 0.0
    most_bytes: int = 0
    loudness: float | None = None
    margins: Margins = Margins()


_MB: Final = 1_000_000
_UPRIGHT, _SQUARE, _WIDE = (
    Aspect(width=9, height=16),
    Aspect(width=1, height=1),
    Aspect(width=16, height=9),
)

DESTINATIONS: Final = (
    Destination(
        id="upright",
        title="Upright short",
        help="held in the hand, up to three minutes",
        settings=ExportSettings(shape=_UPRIGHT, fit="fill", long_side=1920),
        longest=180,
        most_bytes=250 * _MB,
        loudness=-14,
        margins=Margins(top=0.08, bottom=0.18, left=0.05, right=0.12),
    ),
    Destination(
        id="square",
        title="Square post",
        help="between others in a column, up to a minute",
        settings=ExportSettings(shape=_SQUARE, fit="fill", long_side=1080),
        longest=60,
        most_bytes=100 * _MB,
        loudness=-14,
    ),
    Destination(
        id="wide",
        title="Wide screen",
        help="for a room, any length",
        settings=ExportSettings(shape=_WIDE, fit="fit", long_side=1920, quality="best"),
        loudness=-16,
    ),
    Destination(
        id="own",
        title="As it is",
        help="the project's own shape and size",
        settings=ExportSettings(),
    ),
    Destination(
        id="web",
        title="Open web",
        help="for a page of one's own: VP9 and Opus",
        settings=ExportSettings(format="webm", long_side=1280),
        most_bytes=50 * _MB,
        loudness=-16,
    ),
    Destination(
        id="clear",
        title="See-through",
        help="a layer for another film",
        settings=ExportSettings(format="webm", quality="best", clear=True),
    ),
    Destination(
        id="message",
        title="Message",
        help="a few seconds that move, small",
        settings=ExportSettings(
            format="gif", long_side=480, rate=FileRate(num=25, den=2), quality="small"
        ),
        longest=10,
        most_bytes=8 * _MB,
    ),
    Destination(
        id="cover",
        title="Cover",
        help="one picture: where the playhead is",
        settings=ExportSettings(format="jpeg", quality="best"),
    ),
    Destination(
        id="sound",
        title="Sound",
        help="what is heard, without loss",
        settings=ExportSettings(format="wav"),
    ),
    Destination(
        id="hand-over",
        title="To work on",
        help="ProRes 4444, large and fine",
        settings=ExportSettings(format="prores"),
    ),
)
"""From the most to the least common."""
