from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

from kitecore.registry import Registry

Quality = Literal["small", "good", "best"]


@dataclass(frozen=True)
class Format:
    """How picture and sound are encoded and in what they are wrapped.

    ``quality`` holds the encoder's options for each level, ``sound_bits`` the sound's bit rate.
    """

    label: str
    suffix: str
    mime: str
    container: str
    picture_codec: str
    sound_codec: str
    options: dict[str, str]
    quality: dict[Quality, dict[str, str]]
    sound_bits: dict[Quality, int]
    sound_format: str
    container_options: dict[str, str] = field(default_factory=dict)


formats: Registry[Format] = Registry("export format")
