"""What a project is: models, schema, invariants, differences."""

from kitecore.document.clips import Clip, ClipBase, Pictured, Place, Sounding, Sourced, clip_kinds
from kitecore.document.clips.solid import SolidClip
from kitecore.document.clips.sound import SoundClip
from kitecore.document.clips.still import StillClip
from kitecore.document.clips.video import VideoClip
from kitecore.document.document import SCHEMA, Canvas, Document, FrameRate, empty_document
from kitecore.document.invariants import check
from kitecore.document.model import Id, Model, derived_id, new_id
from kitecore.document.patch import diff
from kitecore.document.schema import dump, dumps, load, loads
from kitecore.document.track import Track

__all__ = [
    "SCHEMA",
    "Canvas",
    "Clip",
    "ClipBase",
    "Document",
    "FrameRate",
    "Id",
    "Model",
    "Pictured",
    "Place",
    "SolidClip",
    "SoundClip",
    "Sounding",
    "Sourced",
    "StillClip",
    "Track",
    "VideoClip",
    "check",
    "clip_kinds",
    "derived_id",
    "diff",
    "dump",
    "dumps",
    "empty_document",
    "load",
    "loads",
    "new_id",
]
