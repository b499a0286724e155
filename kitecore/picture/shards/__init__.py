"""A picture in pieces that fly apart: how it breaks, how each flies, how they are drawn."""

from __future__ import annotations

from kitecore.picture.shards.drawn import draw_faces
from kitecore.picture.shards.faces import Faces, faces_of
from kitecore.picture.shards.flight import Flight, flown
from kitecore.picture.shards.pieces import Breaking, Polygon, pieces_of

__all__ = ["Breaking", "Faces", "Flight", "Polygon", "draw_faces", "faces_of", "flown", "pieces_of"]
