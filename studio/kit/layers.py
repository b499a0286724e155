"""What the Layer bench builds its controls from; fonts and drawings that are brought in."""

from __future__ import annotations

from typing import Final
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import File, Form, Router, Schema
from ninja.files import UploadedFile

from kitecore.document import BLENDS, HOLDOUTS, Clip, TextClip, dumps, empty_document
from kitecore.document.canvas import Canvas
from kitecore.document.clips import Crop
from kitecore.document.clips.text import Plate
from kitecore.document.controls import Control, controls_of
from kitecore.document.cutouts import CutOut
from kitecore.document.effects import Bending, EffectBase, Family, Seeded, effect_kinds
from kitecore.document.fills import FILLS, Stop
from kitecore.document.keying import ChromaKey, KeyBase, LumaKey
from kitecore.document.masks import MASKS
from kitecore.document.shapes import FORMS, Stroke
from kitecore.document.strokes import STROKES
from kitecore.edits.fresh import fresh_layers
from kitecore.edits.place import PlaceClip
from kitecore.exchange.svg import MOST_BYTES as MOST_SVG
from kitecore.fonts import SHIPPED_FONTS
from kitecore.render.driving import Driving
from kitecore.render.worker import Request
from kitecore.ticks import TICKS_PER_SECOND
from kitecore.tracking.people import can_find_people
from studio.kit.bringing import new_font
from studio.kit.models import Font, may_use_fonts
from studio.kit.parts import PartKind, part_of
from studio.kit.reading import read_apart
from studio.owned import owned
from studio.playback.service import render
from studio.playback.turns import Job
from studio.problems import Problem

router = Router()


class EffectKind(PartKind):
    """``family`` is what it is listed under."""

    family: Family


class BlendMode(Schema):
    name: str
    title: str
    group: str


class FreshLayerOut(Schema):
    """What can be added that is made of no take."""

    name: str
    title: str
    help: str


class LayerControls(Schema):
    """Parameters of a layer's parts, by kind where there are several; whether ``persons`` are found."""

    effects: list[EffectKind]
    driving: list[Control]
    strokes: list[PartKind]
    cutout: list[Control]
    persons: bool
    blends: list[BlendMode]
    masks: dict[str, list[Control]]
    keys: dict[str, list[Control]]
    fills: dict[str, list[Control]]
    stop: list[Control]
    forms: dict[str, list[Control]]
    stroke: list[Control]
    text: list[Control]
    plate: list[Control]
    crop: list[Control]
    fresh: list[FreshLayerOut]


class FontOut(Schema):
    """``name`` is what documents call it; ``own`` was brought in."""

    name: str
    title: str
    own: bool
    bold: bool
    italic: bool


class DrawingOut(Schema):
    """``remarks`` say what of the file could not be taken."""

    clip: Clip
    remarks: list[str] = []


_COMMON: Final = frozenset((*Bending.model_fields, *Seeded.model_fields))
_GROUPS: Final = {
    "normal": "plain",
    "multiply": "darker",
    "darken": "darker",
    "colour_burn": "darker",
    "subtract": "darker",
    "screen": "lighter",
    "lighten": "lighter",
    "colour_dodge": "lighter",
    "add": "lighter",
    "overlay": "contrast",
    "hard_light": "contrast",
    "soft_light": "contrast",
    "difference": "difference",
    "exclusion": "difference",
    "hue": "colour",
    "saturation": "colour",
    "colour": "colour",
    "luminosity": "colour",
}
_HOLDOUT_TITLES: Final = {
    "holdout_luma": "holdout by luma",
    "holdout_luma_inverted": "holdout by luma, inverted",
    "holdout_alpha": "holdout by alpha",
    "holdout_alpha_inverted": "holdout by alpha, inverted",
}


@router.get("/kit/layer", response=LayerControls)
def layer_controls(request: HttpRequest) -> LayerControls:
    """What the Layer bench needs to know of parameters, blend modes and effects."""
    return LayerControls(
        effects=[_effect(kind, model) for kind, model in effect_kinds.items()],
        driving=list(controls_of(Driving)),
        strokes=[part_of(kind, model) for kind, model in STROKES.items()],
        cutout=list(controls_of(CutOut)),
        persons=can_find_people(),
        blends=[_blend(name) for name in BLENDS],
        masks={kind: list(controls_of(model)) for kind, model in MASKS.items()},
        keys={"chroma": _own_first(ChromaKey), "luma": _own_first(LumaKey)},
        fills={kind: list(controls_of(model)) for kind, model in FILLS.items()},
        stop=list(controls_of(Stop)),
        forms={kind: list(controls_of(model)) for kind, model in FORMS.items()},
        stroke=list(controls_of(Stroke)),
        text=[one for one in controls_of(TextClip) if one.name != "opacity"],
        plate=list(controls_of(Plate)),
        crop=list(controls_of(Crop)),
        fresh=[
            FreshLayerOut(name=name, title=layer.title, help=layer.help)
            for name, layer in fresh_layers.items()
        ],
    )


def _own_first(key: type[KeyBase]) -> list[Control]:
    """What all keys have comes after what only this one has."""
    return sorted(controls_of(key), key=lambda one: one.name in KeyBase.model_fields)


def _effect(kind: str, model: type[EffectBase]) -> EffectKind:
    """What only this one has comes before what others have too."""
    told = part_of(kind, model).model_dump()
    told["controls"].sort(key=lambda one: one["name"] in _COMMON)
    return EffectKind(**told, family=model.family)


def _blend(name: str) -> BlendMode:
    group = "holdout" if name in HOLDOUTS else _GROUPS[name]
    title = _HOLDOUT_TITLES.get(name, name.replace("_", " "))
    return BlendMode(name=name, title=title, group=group)


@router.get("/kit/fonts", response=list[FontOut])
def list_fonts(request: HttpRequest) -> list[FontOut]:
    """Ours first, then those that were brought in."""
    ours = [
        FontOut(name=font.name, title=font.title, own=False, bold=font.bold, italic=font.italic)
        for font in SHIPPED_FONTS.values()
    ]
    mine = Font.objects.filter(owner=request.user, removed=False)
    return ours + [_own(font) for font in mine]


def _own(font: Font) -> FontOut:
    return FontOut(name=font.id.hex, title=font.name, own=True, bold=False, italic=False)


@router.post("/kit/fonts", response={201: FontOut, 422: Problem})
def bring_in_font(request: HttpRequest, file: File[UploadedFile]) -> tuple[int, FontOut]:
    """A TrueType or OpenType font, for the texts of this person."""
    return 201, _own(new_font(request.user, file))


@router.delete("/kit/fonts/{id}", response={204: None, 404: Problem})
def remove_font(request: HttpRequest, id: UUID) -> tuple[int, None]:
    """Not offered any more; texts that use it keep it."""
    font = owned(Font, request.user, "font", id)
    font.removed = True
    font.save(update_fields=["removed"])
    return 204, None


@router.get("/kit/fonts/{name}/sample.jpg", response={200: None, 404: Problem})
def font_sample(request: HttpRequest, name: str) -> HttpResponse:
    """The name of a font, set in it."""
    if not may_use_fonts(request.user.pk, frozenset((name,))):
        return HttpResponse(status=404)
    own = Font.objects.filter(owner=request.user, pk=name).first() if len(name) == 32 else None
    title = own.name if own else SHIPPED_FONTS[name].title
    canvas = empty_document(Canvas(width=480, height=64, colour="#2a2530"))
    clip = TextClip(
        text=title,
        font=name,
        bold=False,
        size=36,
        width=460,
        align="start",
        length=TICKS_PER_SECOND,
    )
    document = PlaceClip(seed="sample", clip=clip).apply(canvas)
    wanted = Request("still", f"font-{name}", 0, long_side=480)
    jpeg = render(Job(wanted, lambda: dumps(document), request.user.pk))
    headers = {"Cache-Control": "private, max-age=86400"}
    return HttpResponse(jpeg, content_type="image/jpeg", headers=headers)


@router.post("/kit/drawing", response={200: DrawingOut, 422: Problem})
def drawing_in(
    request: HttpRequest,
    file: File[UploadedFile],
    seconds: float = Form(3.0, ge=0.1, le=600),
    fit: float = Form(700.0, ge=16, le=4096),
) -> DrawingOut:
    """The shapes of an SVG file as a clip; nothing is kept."""
    told = {
        "name": (file.name or "Drawing").rsplit(".", 1)[0][:80],
        "length": round(seconds * TICKS_PER_SECOND),
        "fit": fit,
    }
    return DrawingOut.model_validate_json(read_apart("drawing", file, MOST_SVG, **told))
