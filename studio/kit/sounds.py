"""What the Mix bench builds its controls from."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router, Schema

from kitecore.document.clips import Sounding
from kitecore.document.controls import Control, controls_of
from kitecore.document.inserts import InsertBase, insert_kinds
from kitecore.document.inserts.equaliser import Equaliser
from kitecore.document.strips import PURPOSES, FilmStrip, Strip, Under
from kitecore.model import Model
from kitecore.sound.inserts import insert_sounds
from studio.kit.parts import PartKind, part_of

router = Router()


class Band(Schema):
    """A filter of an equaliser; one that can be switched has ``on``."""

    name: str
    title: str
    switched: bool
    controls: list[Control]


class PurposeOut(Schema):
    name: str
    title: str
    target: float
    ceiling: float


class SoundControls(Schema):
    """Parameters of what sounds; ``turns_down``: kinds of inserts that tell by how much they do."""

    clip: list[Control]
    strip: list[Control]
    film: list[Control]
    under: list[Control]
    inserts: list[PartKind]
    turns_down: list[str]
    bands: list[Band]
    purposes: list[PurposeOut]


@router.get("/kit/sounds", response=SoundControls)
def sound_controls(request: HttpRequest) -> SoundControls:
    """What the Mix bench needs to know of clips, strips, inserts and targets."""
    strip = {one.name for one in controls_of(Strip)}
    return SoundControls(
        clip=list(controls_of(Sounding)),
        strip=list(controls_of(Strip)),
        film=[one for one in controls_of(FilmStrip) if one.name not in strip],
        under=list(controls_of(Under)),
        inserts=[part_of(kind, model) for kind, model in insert_kinds.items()],
        turns_down=[kind for kind, sound in insert_sounds.items() if sound.reduction],
        bands=[_band(name) for name in Equaliser.model_fields if name not in _OF_ALL],
        purposes=[
            PurposeOut(name=name, title=one.title, target=one.target, ceiling=one.ceiling)
            for name, one in PURPOSES.items()
        ],
    )


_OF_ALL = {*InsertBase.model_fields}


def _band(name: str) -> Band:
    model = Equaliser.model_fields[name].annotation
    assert isinstance(model, type) and issubclass(model, Model)
    return Band(
        name=name,
        title=name.replace("_", " ").capitalize(),
        switched="on" in model.model_fields,
        controls=list(controls_of(model)),
    )
