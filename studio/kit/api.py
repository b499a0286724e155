"""The Kit: looks and presets, and what the benches need to know of parameters."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Field, File, Router, Schema
from ninja.files import UploadedFile
from pydantic import ValidationError

from kitecore.colour.cubefile import MOST_BYTES, BadCube, read_cube, write_cube
from kitecore.colour.inputs import transforms
from kitecore.colour.looks import SHIPPED, shipped
from kitecore.colour.scopes import SKIN_ANGLE, targets
from kitecore.document import Grade, Zone
from kitecore.document.controls import Control, controls_of
from kitecore.document.grade import BrightnessRange, Cdl, HueRange
from kitecore.document.masks import EdgeMask, EllipseMask, RectangleMask
from kitecore.errors import BadInput
from kitecore.exchange.cdl import MOST_BYTES as MOST_CDL
from kitecore.exchange.cdl import read_cdl
from studio.kit.models import Look, Preset, look_folder
from studio.owned import owned
from studio.problems import Problem

router = Router()

MOST_LOOKS = 200
MOST_PRESETS = 500
_CONTENT = {Preset.Kind.GRADE: Grade}


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
    """``ranges`` and ``masks`` by kind."""

    stages: list[StageControls]
    zone: list[Control]
    ranges: dict[str, list[Control]]
    masks: dict[str, list[Control]]
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
        masks={
            "ellipse": list(controls_of(EllipseMask)),
            "rectangle": list(controls_of(RectangleMask)),
            "edge": list(controls_of(EdgeMask)),
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
    if Look.objects.filter(owner=request.user, removed=False).count() >= MOST_LOOKS:
        raise BadInput(f"The Kit holds {MOST_LOOKS} looks.", todo="Remove one first.")
    name = (file.name or "Look")[:200]
    try:
        if (file.size or 0) > MOST_BYTES:
            raise BadCube(f"the file is larger than {MOST_BYTES // 2**20} MB.", 1)
        cube = read_cube(file.read())
    except BadCube as error:
        raise error.of_file(name) from error
    title = (cube.title or name.rsplit(".", 1)[0] or "Look")[:200]
    look = Look(owner=request.user, name=title)
    folder = look_folder()
    folder.path.mkdir(parents=True, exist_ok=True)
    folder.file(look.id.hex).write_text(write_cube(cube))
    look.save()
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
    if (file.size or 0) > MOST_CDL:
        raise BadInput("This file is too large for a CDL.")
    return read_cdl(file.read())


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
    return 201, Preset.objects.create(
        owner=request.user,
        kind=given.kind,
        name=given.name.strip() or "Preset",
        content=content.model_dump(mode="json"),
    )


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
