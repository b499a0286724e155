"""The Kit: looks and presets, and what the benches need to know of parameters."""

from __future__ import annotations

from typing import Annotated, Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Field, File, Router, Schema
from ninja.files import UploadedFile
from pydantic import AfterValidator, ValidationError, field_validator

from kitecore.colour.inputs import transforms
from kitecore.colour.looks import SHIPPED, shipped
from kitecore.colour.scopes import SKIN_ANGLE, targets
from kitecore.document import Canvas, Grade, Model, Zone, dumps, empty_document
from kitecore.document.clips import MOST_EFFECTS
from kitecore.document.controls import Control, controls_of
from kitecore.document.effects import Effect
from kitecore.document.grade import BrightnessRange, Cdl, HueRange
from kitecore.document.inserts import MOST_INSERTS, Insert
from kitecore.edits.kept_motion import KeptMotion
from kitecore.edits.paste import Copied, Paste
from kitecore.errors import BadInput, NotThere
from kitecore.exchange.cdl import MOST_BYTES as MOST_CDL
from kitecore.render.destinations import DESTINATIONS
from kitecore.render.export import ExportSettings
from kitecore.render.worker import Request
from studio.kit.bringing import new_look
from studio.kit.models import Look, Preset
from studio.kit.reading import read_apart
from studio.owned import owned
from studio.playback.service import render
from studio.playback.turns import Job
from studio.problems import Problem
from studio.projects.belongings import require_own

router = Router()

MOST_PRESETS = 500


class EffectsKept(Model):
    """Effects of a layer, in order."""

    effects: tuple[Effect, ...] = Field(min_length=1, max_length=MOST_EFFECTS)


class ChainKept(Model):
    """What sound goes through, in order."""

    chain: Annotated[tuple[Insert, ...], Field(min_length=1, max_length=MOST_INSERTS)]


class Element(Model):
    """Clips as they were copied from a canvas of a size: to be pasted anywhere, still editable."""

    copies: tuple[Copied, ...] = Field(min_length=1, max_length=200)
    width: int = 1080
    height: int = 1920


def _known_place(id: str) -> str:
    if id not in {one.id for one in DESTINATIONS}:
        raise ValueError(f"there is no destination named “{id}”")
    return id


class PlaceKept(Model):
    """What is made for a place of one's own, which takes what another one does.

    What belongs to one project is left out: a range, and a cover.
    """

    like: Annotated[str, AfterValidator(_known_place)]
    settings: ExportSettings

    @field_validator("settings")
    @classmethod
    def _of_any_project(cls, settings: ExportSettings) -> ExportSettings:
        return settings.model_copy(update={"first": 0, "last": 0, "cover": None})


_CONTENT: dict[str, type[Model]] = {
    Preset.Kind.GRADE: Grade,
    Preset.Kind.EFFECTS: EffectsKept,
    Preset.Kind.ELEMENT: Element,
    Preset.Kind.MOTION: KeptMotion,
    Preset.Kind.CHAIN: ChainKept,
    Preset.Kind.PLACE: PlaceKept,
}


class LookOut(Schema):
    """``name`` is what documents call it; ``own`` was brought in."""

    name: str
    title: str
    own: bool


class PresetIn(Schema):
    kind: Preset.Kind
    name: str = Field(min_length=1, max_length=200)
    content: dict[str, Any]


class PresetOut(Schema):
    id: int
    kind: str
    name: str
    content: dict[str, Any]


class NewName(Schema):
    name: str = Field(min_length=1, max_length=200)


class StageControls(Schema):
    """A stage of a grade: its name in documents, its title, its parameters."""

    name: str
    title: str
    controls: list[Control]


class Coding(Schema):
    """How a camera may have coded its picture."""

    name: str
    label: str


class Target(Schema):
    """Where a colour bar lies on the vectorscope."""

    name: str
    cb: float
    cr: float


class GradeControls(Schema):
    """``ranges`` by kind."""

    stages: list[StageControls]
    zone: list[Control]
    ranges: dict[str, list[Control]]
    codings: list[Coding]
    targets: list[Target]
    skin_angle: float


@router.get("/kit/grade", response=GradeControls)
def grade_controls(request: HttpRequest) -> GradeControls:
    """What the Grade bench builds its controls from."""
    return GradeControls(
        stages=[
            StageControls(name=name, title=type(stage).title, controls=controls_of(type(stage)))
            for name, stage in Grade().stages
        ],
        zone=list(controls_of(Zone)),
        ranges={
            "brightness": list(controls_of(BrightnessRange)),
            "hues": list(controls_of(HueRange)),
        },
        codings=[Coding(name=name, label=one.label) for name, one in transforms.items()],
        targets=[Target(name=name, cb=cb, cr=cr) for name, (cb, cr) in targets().items()],
        skin_angle=SKIN_ANGLE,
    )


@router.get("/kit/looks", response=list[LookOut])
def list_looks(request: HttpRequest) -> list[LookOut]:
    """Ours first, then those that were brought in."""
    ours = [LookOut(name=name, title=shipped(name).title, own=False) for name in SHIPPED]
    mine = Look.objects.filter(owner=request.user, removed=False)
    return ours + [LookOut(name=look.id.hex, title=look.name, own=True) for look in mine]


@router.post("/kit/looks", response={201: LookOut, 422: Problem})
def bring_in_look(request: HttpRequest, file: File[UploadedFile]) -> tuple[int, LookOut]:
    """A .cube file, read and written anew in our own form."""
    look = new_look(request.user, file)
    return 201, LookOut(name=look.id.hex, title=look.name, own=True)


@router.delete("/kit/looks/{id}", response={204: None, 404: Problem})
def remove_look(request: HttpRequest, id: UUID) -> tuple[int, None]:
    """Not offered any more; grades that use it keep it."""
    look = owned(Look, request.user, "look", id)
    look.removed = True
    look.save(update_fields=["removed"])
    return 204, None


@router.post("/kit/cdl", response={200: Cdl, 422: Problem})
def cdl_in(request: HttpRequest, file: File[UploadedFile]) -> Cdl:
    """The settings in an ASC CDL file; nothing is kept."""
    return Cdl.model_validate_json(read_apart("cdl", file, MOST_CDL))


@router.get("/kit/presets", response=list[PresetOut])
def list_presets(request: HttpRequest, kind: Preset.Kind) -> list[Preset]:
    return list(Preset.objects.filter(owner=request.user, kind=kind))


@router.post("/kit/presets", response={201: PresetOut, 422: Problem})
def keep_preset(request: HttpRequest, given: PresetIn) -> tuple[int, Preset]:
    if Preset.objects.filter(owner=request.user).count() >= MOST_PRESETS:
        raise BadInput(f"The Kit holds {MOST_PRESETS} presets.", todo="Remove one first.")
    try:
        content = _CONTENT[given.kind].model_validate(given.content)
    except ValidationError as error:
        raise BadInput(f"These settings cannot be kept: {error.errors()[0]['msg']}.") from error
    require_own(request.user.pk, content)
    return 201, Preset.objects.create(
        owner=request.user,
        kind=given.kind,
        name=given.name.strip() or "Preset",
        content=content.model_dump(mode="json"),
    )


@router.get("/kit/presets/{int:id}/picture.jpg", response={200: None, 404: Problem})
def element_picture(request: HttpRequest, id: int) -> HttpResponse:
    """A small picture of a kept element, of its middle."""
    preset = owned(Preset, request.user, "preset", id)
    if preset.kind != Preset.Kind.ELEMENT:
        raise NotThere("Only elements have a picture.")
    element = Element.model_validate(preset.content)
    canvas = Canvas(width=element.width, height=element.height, colour="#2a2530")
    document = Paste(seed="element", copies=element.copies, at=0).apply(empty_document(canvas))
    wanted = Request("still", f"element-{preset.pk}", document.frames // 2, long_side=240)
    jpeg = render(Job(wanted, lambda: dumps(document), request.user.pk))
    headers = {"Cache-Control": "private, max-age=86400"}
    return HttpResponse(jpeg, content_type="image/jpeg", headers=headers)


@router.patch("/kit/presets/{int:id}", response={200: PresetOut, 404: Problem})
def rename_preset(request: HttpRequest, id: int, given: NewName) -> Preset:
    preset = owned(Preset, request.user, "preset", id)
    preset.name = given.name.strip() or preset.name
    preset.save(update_fields=["name"])
    return preset


@router.delete("/kit/presets/{int:id}", response={204: None, 404: Problem})
def remove_preset(request: HttpRequest, id: int) -> tuple[int, None]:
    owned(Preset, request.user, "preset", id).delete()
    return 204, None
