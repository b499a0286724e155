"""What a project is: models, schema, invariants, differences."""

from kitecore.document.blends import BLENDS, HOLDOUTS
from kitecore.document.canvas import Canvas
from kitecore.document.cell import Cell
from kitecore.document.clips import (
    Between,
    Clip,
    ClipBase,
    Paced,
    Pictured,
    Place,
    Sounding,
    Sourced,
    can_sound,
    clip_kinds,
)
from kitecore.document.clips._holding import Holding
from kitecore.document.clips.adjustment import AdjustmentClip
from kitecore.document.clips.group import GroupClip
from kitecore.document.clips.mouth import MouthClip, Turn
from kitecore.document.clips.multicam import MulticamClip, Switch
from kitecore.document.clips.sequence import SequenceClip
from kitecore.document.clips.shape import ShapeClip
from kitecore.document.clips.solid import SolidClip
from kitecore.document.clips.sound import SoundClip
from kitecore.document.clips.still import StillClip
from kitecore.document.clips.text import TextClip
from kitecore.document.clips.video import VideoClip
from kitecore.document.document import (
    SCHEMA,
    Document,
    all_clips,
    empty_document,
)
from kitecore.document.grade import Adjustments, Grade, Zone
from kitecore.document.invariants import check
from kitecore.document.marker import Marker, Tag
from kitecore.document.masks import Mask
from kitecore.document.patch import diff, made_by
from kitecore.document.schema import dump, dumps, load, loads
from kitecore.document.speed import Speed, SpeedPoint
from kitecore.document.track import Track
from kitecore.document.transitions import Transition, TransitionBase
from kitecore.model import Id, Model, derived_id, new_id
from kitecore.rates import FrameRate

__all__ = [
    "BLENDS",
    "HOLDOUTS",
    "SCHEMA",
    "AdjustmentClip",
    "Adjustments",
    "Between",
    "Canvas",
    "Cell",
    "Clip",
    "ClipBase",
    "Document",
    "FrameRate",
    "Grade",
    "GroupClip",
    "Holding",
    "Id",
    "Marker",
    "Mask",
    "Model",
    "MouthClip",
    "MulticamClip",
    "Paced",
    "Pictured",
    "Place",
    "SequenceClip",
    "ShapeClip",
    "SolidClip",
    "SoundClip",
    "Sounding",
    "Sourced",
    "Speed",
    "SpeedPoint",
    "StillClip",
    "Switch",
    "Tag",
    "TextClip",
    "Track",
    "Transition",
    "TransitionBase",
    "Turn",
    "VideoClip",
    "Zone",
    "all_clips",
    "can_sound",
    "check",
    "clip_kinds",
    "derived_id",
    "diff",
    "dump",
    "dumps",
    "empty_document",
    "load",
    "loads",
    "made_by",
    "new_id",
]
