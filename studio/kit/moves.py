"""What the Move bench builds its controls from."""

from __future__ import annotations

from typing import get_args

from django.http import HttpRequest
from ninja import Router, Schema

from kitecore.document import Place
from kitecore.document.controls import Control, controls_of
from kitecore.document.ease import EASES
from kitecore.document.moves import Entrance, EntranceKind, Meanwhile, MeanwhileKind, Moves, Unit
from kitecore.document.warps import GridWarp, PinWarp

router = Router()


class EaseKind(Schema):
    """An easing: its name in documents, its title, what it does."""

    kind: str
    title: str
    help: str
    controls: list[Control]


class MoveControls(Schema):
    """Parameters of what moves a layer."""

    place: list[Control]
    eases: list[EaseKind]
    entrances: list[str]
    units: list[str]
    entrance: list[Control]
    meanwhiles: list[str]
    meanwhile: list[Control]
    moves: list[Control]
    pins: list[Control]
    grid: list[Control]


@router.get("/kit/move", response=MoveControls)
def move_controls(request: HttpRequest) -> MoveControls:
    """What the Move bench needs to know of places, easings and ready-made motions."""
    return MoveControls(
        place=list(controls_of(Place)),
        eases=[_ease(kind) for kind in EASES],
        entrances=list(get_args(EntranceKind)),
        units=list(get_args(Unit)),
        entrance=list(controls_of(Entrance)),
        meanwhiles=list(get_args(MeanwhileKind)),
        meanwhile=list(controls_of(Meanwhile)),
        moves=list(controls_of(Moves)),
        pins=list(controls_of(PinWarp)),
        grid=list(controls_of(GridWarp)),
    )


def _ease(kind: str) -> EaseKind:
    model = EASES[kind]
    title, _, does = (model.__doc__ or kind).strip().split("\n")[0].partition(": ")
    return EaseKind(kind=kind, title=title, help=does, controls=list(controls_of(model)))
