"""Captions from the words that are said in a film."""

from __future__ import annotations

import json
from typing import Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Schema

from kitecore.document.cues import Cue
from kitecore.render.captioning import Words
from studio.playback.asking import asked
from studio.playback.watched import PLAIN
from studio.problems import Problem

router = Router()


class CuesOut(Schema):
    cues: list[Cue]


@router.post(
    "/projects/{uuid:id}/revisions/{int:revision}/captioned",
    response={200: CuesOut, 404: Problem, 422: Problem},
)
def captioned(request: HttpRequest, id: UUID, revision: int, given: Words) -> Any:
    """The lines of a text, at the times at which they are said."""
    return json.loads(asked(request, id, revision, PLAIN, "captioned", 0, words=given.model_dump()))
