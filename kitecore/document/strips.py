"""How the sum of what sounds is passed on: by a track, and by the film."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Final, Literal

from pydantic import Field

from kitecore.document.inserts import Chain
from kitecore.document.properties import Number
from kitecore.model import Id, Model, param

MOST_LEADERS: Final = 20


class Under(Model):
    """Steps back while somebody speaks on other tracks, by ``amount``.

    It has stepped back ``ahead`` seconds before a voice begins, over ``fade`` seconds, and comes back
    as slowly after it ends.
    """

    tracks: Annotated[tuple[Id, ...], Field(max_length=MOST_LEADERS)] = ()
    amount: float = param(9.0, help="Quieter by", unit="dB", low=0, high=30, step=0.5, ge=0, le=60)
    fade: float = param(0.4, help="How fast", unit="s", low=0.05, high=2, step=0.05, ge=0.01, le=5)
    ahead: float = param(
        0.15, help="How long before", unit="s", low=0, high=1, step=0.05, ge=0, le=3
    )


class Strip(Model):
    """Sound goes through the chain, then gain and pan. Keys count from the start of the timeline."""

    gain: Number = param(0.0, help="Gain", unit="dB", low=-60, high=12, step=0.1)
    pan: Number = param(0.0, help="Left and right", low=-1, high=1, step=0.01, ge=-1, le=1)
    chain: Chain = ()


class TrackStrip(Strip):
    """Of a track, which may step back ``under`` others."""

    under: Under | None = None


Purpose = Literal["", "phone", "room", "broadcast", "own"]


@dataclass(frozen=True)
class Aim:
    """How loud a film is meant to be where it is shown: LUFS, and dB that no true peak exceeds."""

    title: str
    target: float
    ceiling: float


PURPOSES: Final[dict[str, Aim]] = {
    "phone": Aim("Phone loudspeaker", -14.0, -1.0),
    "room": Aim("Quiet room", -18.0, -1.0),
    "broadcast": Aim("Broadcast (EBU R 128)", -23.0, -1.0),
}


class FilmStrip(Strip):
    """The whole film: as a track, then a limiter that holds true peaks below ``ceiling``.

    ``target`` is the loudness it is meant to have, in LUFS, for a ``purpose``.
    """

    ceiling: float = param(
        0.0, help="No peak above", unit="dB", low=-12, high=0, step=0.1, ge=-24, le=0
    )
    purpose: Purpose = ""
    target: float = param(
        -16.0, help="Loudness to reach", unit="LUFS", low=-36, high=-8, step=0.5, ge=-60, le=0
    )
