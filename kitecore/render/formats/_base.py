from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

from kitecore.registry import Registry

Quality = Literal["small", "good", "best"]


@dataclass(frozen=True)
class Format:
    """How picture and sound are encoded and in what they are wrapped.

    ``pixels`` is FFmpeg's name of the pixel format, ``tag`` of the codec in the container if players
    want a certain one. ``quality`` holds the encoder's options for each level, ``sound_bits`` the sound's bit rate.
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
    pixels: str = "yuv420p"
    tag: str = ""
    container_options: dict[str, str] = field(default_factory=dict)

    @property
    def deep(self) -> bool:
        """Whether it holds more than 8 bits."""
        return self.pixels.endswith("10le")


formats: Registry[Format] = Registry("export format")
