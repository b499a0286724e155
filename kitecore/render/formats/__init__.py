"""Formats that can be exported. To add one: a module here."""

from kitecore.registry import import_all
from kitecore.render.making.format import Format, formats

import_all(__name__)

__all__ = ["Format", "formats"]
