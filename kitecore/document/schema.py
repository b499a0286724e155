"""Reading saved documents of every age: one small upgrade function a step."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any

from pydantic import ValidationError

from kitecore.document.document import SCHEMA, Document
from kitecore.document.mending import with_numbers_in_bounds
from kitecore.errors import BadInput

Data = dict[str, Any]
Upgrade = Callable[[Data], Data]


class Upgrades:
    """Steps from one schema to the next, registered by decorator."""

    def __init__(self, newest: str) -> None:
        self.newest = newest
        self._steps: dict[str, tuple[str, Upgrade]] = {}

    def step(self, old: str, new: str) -> Callable[[Upgrade], Upgrade]:
        def keep(upgrade: Upgrade) -> Upgrade:
            self._steps[old] = (new, upgrade)
            return upgrade

        return keep

    def to_newest(self, data: Data) -> Data:
        """Data of any known schema as data of the newest.

        Raises
        ------
        BadInput
            If the schema is unknown, for example newer than this program.
        """
        while (schema := data.get("schema")) != self.newest:
            if schema not in self._steps:
                raise BadInput(
                    f"This project was saved as {schema!r}, which this version cannot read.",
                    todo="Open it with the version that saved it, or a newer one.",
                )
            new, upgrade = self._steps[schema]
            data = {**upgrade(data), "schema": new}
        return data


upgrades = Upgrades(SCHEMA)


def load(data: Data) -> Document:
    """A document from plain data, upgraded if need be.

    Numbers beyond the bounds of today, as older versions let through, come to the nearest bound:
    what was kept can always be opened.

    Raises
    ------
    BadInput
        If the data are no document.
    """
    data = upgrades.to_newest(data)
    try:
        return Document.model_validate(data)
    except ValidationError as error:
        data, mended = with_numbers_in_bounds(data, error)
        if mended:
            return load(data)
        first = error.errors()[0]
        where = " / ".join(str(part) for part in first["loc"])
        raise BadInput(f"The project cannot be read: {first['msg']} ({where}).") from error


def loads(text: str | bytes) -> Document:
    """Same, from JSON."""
    return load(json.loads(text))


def dump(document: Document) -> Data:
    """Plain data, as saved and as sent to the page."""
    return document.model_dump(mode="json", by_alias=True)


def dumps(document: Document) -> str:
    return document.model_dump_json(by_alias=True)


@upgrades.step("velvet-kite/1", "velvet-kite/2")
def _speeds_groups_markers(data: Data) -> Data:
    """Clips gained a speed, a transition, markers and a cell; what is left out is as it was."""
    return {**data, "markers": []}


@upgrades.step("velvet-kite/2", "velvet-kite/3")
def _grades(data: Data) -> Data:
    """Clips gained a grade; without one they look as they did."""
    return data


@upgrades.step("velvet-kite/3", "velvet-kite/4")
def _layers(data: Data) -> Data:
    """Layers gained masks, keys, crops; a solid's colour became one of several fills."""

    def clip(one: Data) -> Data:
        if "tracks" in one:
            one = {**one, "tracks": [track(inner) for inner in one["tracks"]]}
        if one.get("kind") != "solid":
            return one
        rest = {name: value for name, value in one.items() if name != "colour"}
        colour = one.get("colour", "#808080")
        return {**rest, "fill": {"kind": "plain", "colour": colour}}

    def track(one: Data) -> Data:
        return {**one, "clips": [clip(inner) for inner in one.get("clips", [])]}

    return {**data, "tracks": [track(one) for one in data.get("tracks", [])]}


@upgrades.step("velvet-kite/4", "velvet-kite/5")
def _moves(data: Data) -> Data:
    """Layers gained moves and warps, points by keys handles; what is left out is at rest."""
    return data


@upgrades.step("velvet-kite/5", "velvet-kite/6")
def _pressures(data: Data) -> Data:
    """Strokes gained pressures of a pen; without them they are as wide everywhere."""
    return data


@upgrades.step("velvet-kite/6", "velvet-kite/7")
def _gains(data: Data) -> Data:
    """A match gained gains, zones a look at the ungraded picture; without them they are as before."""
    return data


@upgrades.step("velvet-kite/7", "velvet-kite/8")
def _bends(data: Data) -> Data:
    """Points of a ramp may only bend the way between two others; those of before all lead."""
    return data


@upgrades.step("velvet-kite/8", "velvet-kite/9")
def _strips(data: Data) -> Data:
    """Tracks and the film gained strips, clips pan, pitch and chains; without them all sounds as before."""
    return data


@upgrades.step("velvet-kite/9", "velvet-kite/10")
def _multicam(data: Data) -> Data:
    """There are multicam clips, and groups of a size of their own; what was there is as it was."""
    return data


@upgrades.step("velvet-kite/10", "velvet-kite/11")
def _trackers(data: Data) -> Data:
    """Videos gained trackers, layers that follow may follow one; those of before follow layers."""
    return data


@upgrades.step("velvet-kite/11", "velvet-kite/12")
def _strokes(data: Data) -> Data:
    """Takes gained strokes that mend them, stills cut-outs, videos a hold; without they are as before."""
    return data


@upgrades.step("velvet-kite/12", "velvet-kite/13")
def _captions(data: Data) -> Data:
    """Picture tracks may be captions; those of before are not."""
    return data


@upgrades.step("velvet-kite/13", "velvet-kite/14")
def _held(data: Data) -> Data:
    """Words of a text and strokes of a mask may have keys; those of before have none."""
    return data


@upgrades.step("velvet-kite/14", "velvet-kite/15")
def _around(data: Data) -> Data:
    """What is cut out may be drawn around; before it was marked by strokes alone."""
    return data


@upgrades.step("velvet-kite/15", "velvet-kite/16")
def _lit(data: Data) -> Data:
    """Words of a text may be lit while they are said; before they all looked alike."""
    return data


@upgrades.step("velvet-kite/16", "velvet-kite/17")
def _moving(data: Data) -> Data:
    """Videos gained cut-outs, and persons are cut out by a tap; before neither was."""
    return data


@upgrades.step("velvet-kite/17", "velvet-kite/18")
def _revealed(data: Data) -> Data:
    """Fills may take other frames, trackers be trimmed; before, they closed from around, and were not."""
    return data


@upgrades.step("velvet-kite/18", "velvet-kite/19")
def _spotted(data: Data) -> Data:
    """Trackers may follow several spots, and faces as wide as they are found; before, all that lies
    within their corners.
    """
    return data


@upgrades.step("velvet-kite/19", "velvet-kite/20")
def _aside(data: Data) -> Data:
    """What goes along with a tracker may lie aside of what is followed; before, it lay there."""
    return data


@upgrades.step("velvet-kite/20", "velvet-kite/21")
def _paced(data: Data) -> Data:
    """Shards may fall another way than down, paces and counts of effects have keys; before, neither."""
    return data


@upgrades.step("velvet-kite/21", "velvet-kite/22")
def _looking_back(data: Data) -> Data:
    """How far back an effect looks may have keys; before, it stayed the same."""
    return data


@upgrades.step("velvet-kite/22", "velvet-kite/23")
def _exposed(data: Data) -> Data:
    """What shakes may be exposed for a while; before, it was sharp at each moment."""
    return data
