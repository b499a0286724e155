"""ASC Color Decision Lists as files: .cc, .ccc and .cdl (ASC CDL release 1.2, annex XML)."""

from __future__ import annotations

import math
from typing import Final
from xml.etree import ElementTree

from kitecore.document.grade import Cdl
from kitecore.errors import BadInput

MOST_BYTES: Final = 2**20
_NAMESPACE: Final = "urn:ASC:CDL:v1.01"

Triple = tuple[float, float, float]


def read_cdl(data: bytes) -> Cdl:
    """The first correction of a file.

    Raises
    ------
    BadInput
        If there is none, or a number in it cannot be used.
    """
    root = _parsed(data)
    correction = next((e for e in root.iter() if _local(e) == "ColorCorrection"), None)
    if correction is None:
        raise BadInput("There is no ColorCorrection in this file.", todo="Choose a CDL file.")
    found = {_local(element): (element.text or "").split() for element in correction.iter()}
    saturation = _numbers(found, "Saturation", (1.0,))
    slope, power = _triple(found, "Slope", 1.0), _triple(found, "Power", 1.0)
    if min(slope) < 0 or min(power) <= 0 or saturation[0] < 0:
        raise BadInput("Slope and saturation are not below 0, power is above 0.")
    offset = _triple(found, "Offset", 0.0)
    return Cdl(slope=slope, offset=offset, power=power, saturation=saturation[0])


def _parsed(data: bytes) -> ElementTree.Element:
    # Entities are of no use here, and could be made to grow without bound.
    if len(data) > MOST_BYTES or b"<!DOCTYPE" in data or b"<!ENTITY" in data:
        raise BadInput(
            "This is no CDL file that can be read.", todo="Choose a .cc, .ccc or .cdl file."
        )
    try:
        return ElementTree.fromstring(data)  # noqa: S314
    except ElementTree.ParseError as error:
        line, column = error.position
        raise BadInput(
            f"Line {line}, column {column}: this is not XML.",
            todo="Choose a .cc, .ccc or .cdl file.",
        ) from error


def _local(element: ElementTree.Element) -> str:
    return str(element.tag).rpartition("}")[2]


def _triple(found: dict[str, list[str]], name: str, default: float) -> Triple:
    red, green, blue = _numbers(found, name, (default,) * 3)
    return red, green, blue


def _numbers(
    found: dict[str, list[str]], name: str, default: tuple[float, ...]
) -> tuple[float, ...]:
    if name not in found:
        return default
    try:
        values = tuple(float(word) for word in found[name])
    except ValueError:
        values = ()
    if len(values) != len(default) or not all(math.isfinite(value) for value in values):
        raise BadInput(f"{name} in this file is not {len(default)} numbers.")
    return values


def write_cdl(cdl: Cdl, name: str) -> str:
    """A .cc file. The settings are without keys."""
    root = ElementTree.Element("ColorCorrection", {"xmlns": _NAMESPACE, "id": name})
    sop = ElementTree.SubElement(root, "SOPNode")
    for tag, values in (("Slope", cdl.slope), ("Offset", cdl.offset), ("Power", cdl.power)):
        assert isinstance(values, tuple)
        ElementTree.SubElement(sop, tag).text = " ".join(f"{value:.6g}" for value in values)
    sat = ElementTree.SubElement(root, "SatNode")
    assert isinstance(cdl.saturation, float | int)
    ElementTree.SubElement(sat, "Saturation").text = f"{cdl.saturation:.6g}"
    ElementTree.indent(root)
    return '<?xml version="1.0" encoding="UTF-8"?>\n' + ElementTree.tostring(root, "unicode") + "\n"
