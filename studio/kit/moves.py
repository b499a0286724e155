"""What the Move bench builds its controls from."""

from __future__ import annotations

from typing import get_args

from django.http import HttpRequest
from ninja import Router, Schema

from kitecore.document import Place
from kitecore.document.controls import Control, controls_of
from kitecore.document.ease import EASES
from kitecore.document.mouthways import MOUTH_WAYS
from kitecore.document.moves import Entrance, EntranceKind, Meanwhile, MeanwhileKind, Moves, Unit
from kitecore.document.poses import POSES
from kitecore.document.warps import GridWarp, PinWarp
from kitecore.speech.reading import LANGUAGES
from studio.kit.parts import PartKind, part_of

router = Router()


class Named(Schema):
    """Something by its name in documents, and what it is."""

    name: str
    help: str


class MoveControls(Schema):
    """Parameters of what moves a layer."""

    place: list[Control]
    eases: list[PartKind]
    entrances: list[str]
    units: list[str]
    entrance: list[Control]
    meanwhiles: list[str]
    meanwhile: list[Control]
    moves: list[Control]
    pins: list[Control]
    grid: list[Control]
    poses: list[Named]
    mouth_ways: list[PartKind]
    languages: list[Named]


@router.get("/kit/move", response=MoveControls)
def move_controls(request: HttpRequest) -> MoveControls:
    """What the Move bench needs to know of places, easings and ready-made motions."""
    return MoveControls(
        place=list(controls_of(Place)),
        eases=[part_of(kind, model) for kind, model in EASES.items()],
        entrances=list(get_args(EntranceKind)),
        units=list(get_args(Unit)),
        entrance=list(controls_of(Entrance)),
        meanwhiles=list(get_args(MeanwhileKind)),
        meanwhile=list(controls_of(Meanwhile)),
        moves=list(controls_of(Moves)),
        pins=list(controls_of(PinWarp)),
        grid=list(controls_of(GridWarp)),
        poses=[Named(name=name, help=does) for name, does in POSES.items()],
        mouth_ways=[part_of(kind, model) for kind, model in MOUTH_WAYS.items()],
        languages=[Named(name=name, help=title) for name, title in LANGUAGES.items()],
    )
