"""What films are drawn from."""

from __future__ import annotations

from kitecore.render.sources import Sources
from studio.kit.models import font_folder, look_folder
from studio.library.models import folder_of


def make_sources() -> Sources:
    return Sources(folder_of, threads=2, find_look=look_folder().find, find_font=font_folder().find)
