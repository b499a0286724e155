"""What a render process can be asked. To add a question: a line, or a function, here."""

from __future__ import annotations

import json
import struct
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from kitecore.document import Document
from kitecore.media.pixels import fitting
from kitecore.registry import Registry
from kitecore.render import (
    captioning,
    driving,
    freeing,
    hearing,
    layers,
    measuring,
    mouths,
    reducing,
    retouching,
    speaking,
    whose_turn,
)
from kitecore.render.instruments import ScopesWanted
from kitecore.render.levels import measured_stretch, sound_and_levels
from kitecore.render.pieces import aac_piece, metered_piece, picture_piece
from kitecore.render.sampling import effect_sample
from kitecore.render.sources import Sources
from kitecore.render.still import frame_file, measured_still, still


@dataclass(frozen=True)
class Request:
    """``what`` (one of `questions`) to make of the document known as ``document``.

    A still (JPEG, for watching) or a frame (PNG, to keep) is of frame ``first``; pieces are of
    frames ``first`` up to ``last``. ``long_side`` in pixels. A still shows the ``matte`` of a zone,
    or the ``onion`` skins of a clip, if one is named, and comes with ``scopes`` if they are wanted.
    Measures take the rest as ``of``.
    """

    what: str
    document: str
    first: int
    last: int = 0
    long_side: int = 0
    matte: str = ""
    onion: str = ""
    scopes: ScopesWanted | None = None
    of: Mapping[str, Any] = field(default_factory=dict)


_LENGTH = struct.Struct("<I")

Answerer = Callable[[Document, Request, Sources], bytes]


@dataclass(frozen=True)
class Question:
    """How something is answered; ``fine``: from the originals, since the answer is to be kept.

    ``apart``: made beside the others, so that nothing waits for it.
    """

    answer: Answerer
    fine: bool = False
    apart: bool = False


questions: Registry[Question] = Registry("question")


def _tick(document: Document, request: Request) -> int:
    return document.rate.exact.start_of(request.first)


def _still(document: Document, request: Request, sources: Sources) -> bytes:
    tick, side, matte = _tick(document, request), request.long_side, request.matte
    if request.scopes is not None:
        return measured_still(document, tick, side, sources, request.scopes, matte)
    return still(document, tick, side, sources, matte=matte, onion=request.onion)


def _sample(document: Document, request: Request, sources: Sources) -> bytes:
    clip, kind = request.of["clip"], request.of["kind"]
    return effect_sample(document, _tick(document, request), clip, kind, sources)


def _voice(document: Document, request: Request, sources: Sources) -> bytes:
    of = request.of
    ticks, tracks = (of["low"], of["high"]), of["tracks"]
    return mouths.voice_picture(document, of["clip"], ticks, tracks, request.long_side, sources)


def _poses(document: Document, request: Request, sources: Sources) -> bytes:
    return mouths.pose_pictures(document, request.of["clip"], sources)


def _frame(document: Document, request: Request, sources: Sources) -> bytes:
    return frame_file(document, _tick(document, request), request.long_side, sources)


def _picture(document: Document, request: Request, sources: Sources) -> bytes:
    size = fitting(document.canvas.width, document.canvas.height, request.long_side)
    return picture_piece(document, request.first, request.last, size, sources)


def _sound(document: Document, request: Request, sources: Sources) -> bytes:
    piece, levels = metered_piece(document, request.first, request.last, sources)
    return packed(piece, levels.model_dump_json().encode())


def packed(piece: bytes, levels: bytes) -> bytes:
    """A piece of sound, with its levels before it."""
    return _LENGTH.pack(len(levels)) + levels + piece


def unpacked(data: bytes) -> tuple[bytes, bytes]:
    """The piece, and the levels."""
    [length] = _LENGTH.unpack_from(data)
    end = _LENGTH.size + length
    return data[end:], data[_LENGTH.size : end]


def _levels(document: Document, request: Request, sources: Sources) -> bytes:
    _, levels = sound_and_levels(document, request.first, request.last, sources)
    return levels.model_dump_json().encode()


def _stretch(document: Document, request: Request, sources: Sources) -> bytes:
    """Of the stretch whose number is ``first``."""
    return measured_stretch(document, request.first, sources).model_dump_json().encode()


def _aac(document: Document, request: Request, sources: Sources) -> bytes:
    return aac_piece(document, request.first, request.last, sources)


def _measured(measure: Callable[..., Any], *facts: str) -> Question:
    """A question whose answer is text or JSON: ``measure(document, *facts, sources)``.

    Facts are what the request is ``of``, and moments: ``tick`` is that of its frame, ``ticks`` and
    ``other_ticks`` those of the frames that it names; ``side`` is the long side in pixels.
    """

    def answer(document: Document, request: Request, sources: Sources) -> bytes:
        told = {**request.of, "tick": _tick(document, request), "side": request.long_side}
        for name in ("frames", "other_frames"):
            moments = [document.rate.exact.start_of(frame) for frame in told.get(name, ())]
            told[name.replace("frames", "ticks")] = moments
        found = measure(document, *(told[fact] for fact in facts), sources)
        return found.encode() if isinstance(found, str) else json.dumps(found).encode()

    return Question(answer)


for _name, _question in {
    "still": Question(_still),
    "effect": Question(_sample),
    "voice_picture": Question(_voice, apart=True),
    "poses": Question(_poses),
    "frame": Question(_frame, fine=True, apart=True),
    "picture": Question(_picture, apart=True),
    "sound": Question(_sound, apart=True),
    "aac": Question(_aac, apart=True),
    "levels": Question(_levels, apart=True),
    "loudness": Question(_stretch, apart=True),
    "clip_loudness": _measured(hearing.clip_loudness, "clip"),
    "voice": _measured(speaking.spoken_stretches, "tracks"),
    "turns": _measured(whose_turn.turns, "clip"),
    "pauses": _measured(speaking.pauses, "clip", "shortest", "margin"),
    "freed": _measured(freeing.freed, "clip"),
    "driven": _measured(driving.driven, "clip", "driving"),
    "captioned": replace(_measured(captioning.captioned, "words"), apart=True),
    "mouthed": replace(_measured(mouths.mouthed, "clip", "voice"), apart=True),
    "stepping": _measured(speaking.stepping_keys, "track"),
    "beats": _measured(hearing.clip_beats, "clip"),
    "noise": _measured(hearing.learnt_noise, "track", "clip", "tick", "ticks"),
    "reduction": _measured(reducing.reductions, "owner", "insert", "tick", "ticks"),
    "neutral": _measured(measuring.neutral_spot, "clip", "tick", "spot"),
    "hue": _measured(measuring.hue_at, "clip", "tick", "spot"),
    "suggestion": _measured(measuring.suggestion, "clip", "tick"),
    "match": _measured(measuring.match, "clip", "ticks", "other", "other_ticks"),
    "cube": _measured(measuring.as_cube, "clip", "tick"),
    "screens": _measured(measuring.screens, "clip", "tick"),
    "colour": _measured(measuring.colour_at, "clip", "tick", "spot"),
    "under": _measured(layers.under_finger, "tick", "spot"),
    "extents": _measured(layers.extents, "tick"),
    "layers": _measured(layers.layer_pictures, "tick", "side"),
    "stroke_source": _measured(retouching.stroke_source, "clip", "tick", "stroke"),
    "bending": _measured(layers.bending_lines, "tick", "clip"),
}.items():
    questions.register(_name)(_question)
