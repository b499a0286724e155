"""What the sound of a project measures: levels, loudness, noise, curves."""

from __future__ import annotations

import json
from time import monotonic
from typing import Annotated, Final
from uuid import UUID

import numpy as np
from django.http import HttpRequest, HttpResponse
from ninja import Field, Query, Router, Schema

from kitecore.document import Document, dumps
from kitecore.document.inserts.equaliser import Equaliser
from kitecore.document.properties import NumberKeys, PointKeys
from kitecore.document.track import MOST_TRACKS
from kitecore.edits import Edit
from kitecore.model import Tick
from kitecore.render.driving import Driving
from kitecore.render.levels import Loudness, PieceLevels, Stretch, loudness_of, stretches_of
from kitecore.render.questions import Request
from kitecore.sound.inserts.equaliser import curve_of
from studio.playback.asking import asked
from studio.playback.levels import levels_key, stretch_key
from studio.playback.service import render
from studio.playback.store import keep, store
from studio.playback.turns import Job
from studio.playback.watched import Frames, Look, project_document, tried
from studio.problems import Problem

router = Router()

PATIENCE: Final = 0.6
"""Seconds after which what was measured so far is told."""
MOST_POINTS: Final = 400
MOST_TRIED: Final = 20


@router.get(
    "/projects/{uuid:id}/revisions/{int:revision}/levels",
    response={200: PieceLevels, 404: Problem, 422: Problem},
)
def levels(
    request: HttpRequest, id: UUID, revision: int, given: Query[Frames], look: Query[Look]
) -> HttpResponse:
    """Levels of tracks and film for some frames; those of a piece that was heard are there already."""
    name, document = project_document(request, id, revision)
    name, document = f"{name}/{look.name}", look.of(document)
    key = levels_key(document, given.within(document))
    data = store().get(key)
    if data is None:
        wanted = Request("levels", name, given.first, given.last)
        data = render(Job(wanted, lambda: dumps(document), request.user.pk))
        keep(key, data)
    return HttpResponse(data, content_type="application/json")


class LoudnessIn(Schema):
    """With ``edits`` as it would be after those, which are not kept."""

    edits: list[Edit] = Field(default=[], max_length=MOST_TRIED)


class LoudnessOut(Schema):
    """``done`` of ``of`` stretches were measured; until all are, ask again. ``loudness`` is of those
    from the start that are."""

    done: int
    of: int
    loudness: Loudness


@router.post(
    "/projects/{uuid:id}/revisions/{int:revision}/loudness",
    response={200: LoudnessOut, 404: Problem, 422: Problem},
)
def loudness(request: HttpRequest, id: UUID, revision: int, given: LoudnessIn) -> LoudnessOut:
    """How loud the film is. Only what changed is measured anew, and that not longer than a moment."""
    name, document = project_document(request, id, revision)
    name, document = tried(request, name, document, given.edits)
    found: list[Stretch] = []
    began = monotonic()
    for number in range(stretches_of(document)):
        key = stretch_key(document, number)
        data = store().get(key)
        if data is None:
            if found and monotonic() - began > PATIENCE:
                break
            data = _measured(request, name, document, number)
            keep(key, data)
        found.append(Stretch.model_validate_json(data))
    return LoudnessOut(done=len(found), of=stretches_of(document), loudness=loudness_of(found))


def _measured(request: HttpRequest, name: str, document: Document, number: int) -> bytes:
    wanted = Request("loudness", name, number)
    return render(Job(wanted, lambda: dumps(document), request.user.pk))


class ClipLoudness(Schema):
    """Of a clip's sound before its gain: loudness in LUFS, highest true peak in dB."""

    whole: float
    peak: float


@router.get(
    "/projects/{uuid:id}/revisions/{int:revision}/clips/{clip}/loudness",
    response={200: ClipLoudness, 404: Problem, 422: Problem},
)
def clip_loudness(
    request: HttpRequest, id: UUID, revision: int, clip: str, look: Query[Look]
) -> ClipLoudness:
    data = asked(request, id, revision, look, "clip_loudness", 0, clip=clip)
    return ClipLoudness(**json.loads(data))


class BeatsOut(Schema):
    """Ticks of the timeline; ``first`` of them begins a bar; ``tempo`` in beats a minute.

    ``onsets`` are those at which anything begins.
    """

    at: list[int]
    first: int
    tempo: float
    onsets: list[int]


@router.get(
    "/projects/{uuid:id}/revisions/{int:revision}/clips/{clip}/beats",
    response={200: BeatsOut, 404: Problem, 422: Problem},
)
def beats(request: HttpRequest, id: UUID, revision: int, clip: str, look: Query[Look]) -> BeatsOut:
    data = asked(request, id, revision, look, "beats", 0, clip=clip)
    return BeatsOut(**json.loads(data))


class NoiseIn(Frames):
    """A stretch of the timeline on which only noise is heard, on a track or in a clip of it."""

    track: str = Field(default="", max_length=40)
    clip: str = Field(default="", max_length=40)


@router.post(
    "/projects/{uuid:id}/revisions/{int:revision}/noise",
    response={200: list[float], 404: Problem, 422: Problem},
)
def noise(
    request: HttpRequest, id: UUID, revision: int, given: NoiseIn, look: Query[Look]
) -> list[float]:
    """What a noise reduction learns there: the level in each of its bands, in dB."""
    data = asked(
        request,
        id,
        revision,
        look,
        "noise",
        given.first,
        frames=[given.last],
        track=given.track,
        clip=given.clip,
    )
    found: list[float] = json.loads(data)
    return found


class ReductionIn(Frames):
    """An insert of the chain of a clip or a track; ``owner`` is empty for the film's."""

    owner: str = Field(default="", max_length=40)
    insert: str = Field(max_length=40)


@router.post(
    "/projects/{uuid:id}/revisions/{int:revision}/reduction",
    response={200: list[float], 404: Problem, 422: Problem},
)
def reduction(
    request: HttpRequest, id: UUID, revision: int, given: ReductionIn, look: Query[Look]
) -> list[float]:
    """By how many dB it turns each frame down, at most."""
    of = {"owner": given.owner, "insert": given.insert, "frames": [given.last]}
    found: list[float] = json.loads(
        asked(request, id, revision, look, "reduction", given.first, **of)
    )
    return found


class VoiceIn(Schema):
    tracks: list[Annotated[str, Field(max_length=40)]] = Field(max_length=MOST_TRACKS)


@router.post(
    "/projects/{uuid:id}/revisions/{int:revision}/voice",
    response={200: list[tuple[int, int]], 404: Problem, 422: Problem},
)
def voice(
    request: HttpRequest, id: UUID, revision: int, given: VoiceIn, look: Query[Look]
) -> list[tuple[int, int]]:
    """Ticks from which and until which somebody speaks on tracks."""
    data = asked(request, id, revision, look, "voice", 0, tracks=given.tracks)
    found: list[tuple[int, int]] = json.loads(data)
    return found


class PausesQuery(Schema):
    """Seconds that a pause lasts at least, and that are left of it on either side."""

    shortest: float = Field(default=0.6, ge=0.1, le=30)
    margin: float = Field(default=0.12, ge=0, le=5)


@router.get(
    "/projects/{uuid:id}/revisions/{int:revision}/clips/{clip}/pauses",
    response={200: list[tuple[int, int]], 404: Problem, 422: Problem},
)
def pauses(
    request: HttpRequest,
    id: UUID,
    revision: int,
    clip: str,
    given: Query[PausesQuery],
    look: Query[Look],
) -> list[tuple[int, int]]:
    """Ticks from which and until which nobody speaks in a clip."""
    of = {"clip": clip, "shortest": given.shortest, "margin": given.margin}
    found: list[tuple[int, int]] = json.loads(asked(request, id, revision, look, "pauses", 0, **of))
    return found


class TurnOut(Schema):
    """From a tick on, an angle."""

    at: int
    angle: int


@router.get(
    "/projects/{uuid:id}/revisions/{int:revision}/clips/{clip}/turns",
    response={200: list[TurnOut], 404: Problem, 422: Problem},
)
def turns(
    request: HttpRequest, id: UUID, revision: int, clip: str, look: Query[Look]
) -> list[TurnOut]:
    """Which angle of a multicam clip hears best who speaks, from when on."""
    data = asked(request, id, revision, look, "turns", 0, clip=clip)
    return [TurnOut(**one) for one in json.loads(data)]


class KeyOut(Schema):
    at: int
    value: float


@router.get(
    "/projects/{uuid:id}/revisions/{int:revision}/tracks/{track}/stepping",
    response={200: list[KeyOut], 404: Problem, 422: Problem},
)
def stepping(
    request: HttpRequest, id: UUID, revision: int, track: str, look: Query[Look]
) -> list[KeyOut]:
    """A track's gain with its stepping back, as keys."""
    data = asked(request, id, revision, look, "stepping", 0, track=track)
    return [KeyOut(**key) for key in json.loads(data)]


class DrivingIn(Schema):
    """A clip of which a value is led, and by what."""

    clip: str
    driving: Driving


@router.post(
    "/projects/{uuid:id}/revisions/{int:revision}/driven",
    response={200: NumberKeys | PointKeys, 404: Problem, 422: Problem},
)
def driven(
    request: HttpRequest, id: UUID, revision: int, given: DrivingIn, look: Query[Look]
) -> NumberKeys | PointKeys:
    """Keys of a value that is led by the sound, a wave, or something that is followed; of a point by
    the last.
    """
    told = given.driving.model_dump()
    data = asked(request, id, revision, look, "driven", 0, clip=given.clip, driving=told)
    led = PointKeys if told["measure"] == "place" and told["by"] == "followed" else NumberKeys
    return led.model_validate({"keys": json.loads(data)})


class CurveIn(Schema):
    """``tick`` counts from where the keys of the equaliser count from."""

    equaliser: Equaliser
    tick: Tick = 0
    frequencies: list[float] = Field(min_length=1, max_length=MOST_POINTS)


@router.post("/equaliser/curve", response={200: list[float], 422: Problem})
def curve(request: HttpRequest, given: CurveIn) -> list[float]:
    """The gain in dB at frequencies in Hz."""
    return curve_of(given.equaliser, given.tick, np.array(given.frequencies))
