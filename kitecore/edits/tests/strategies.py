"""Documents and edits by chance, for the invariants that hold for all of them."""

from __future__ import annotations

from typing import Any

from hypothesis import strategies as st
from pydantic import TypeAdapter

from kitecore.document import Document, empty_document
from kitecore.document.document import FrameRate
from kitecore.edits import Edit, EditBase
from kitecore.ticks import RATES

SECOND = 705_600_000
_edits: TypeAdapter[Any] = TypeAdapter(Edit)

ticks = st.integers(0, 12 * SECOND)
lengths = st.integers(SECOND // 10, 4 * SECOND)


def edit(**fields: Any) -> EditBase:
    """An edit from plain data, as it comes from a page."""
    made: EditBase = _edits.validate_python(fields)
    return made


def some_clip(draw: st.DrawFn) -> dict[str, Any]:
    kind = draw(st.sampled_from(["video", "still", "sound", "solid"]))
    clip: dict[str, Any] = {"kind": kind, "name": kind, "length": draw(lengths)}
    if kind != "solid":
        clip["media"] = draw(st.sampled_from(["m1", "m2"]))
    if kind in ("video", "sound"):
        clip["source_in"] = draw(st.integers(0, 2 * SECOND))
        clip["source_length"] = clip["source_in"] + clip["length"] + draw(st.integers(0, SECOND))
    if kind != "sound" and draw(st.booleans()):
        key = {"at": draw(st.integers(-SECOND, SECOND)), "value": 0.5}
        clip["opacity"] = {"keys": [key]}
    return clip


@st.composite
def documents(draw: st.DrawFn) -> Document:
    rate = draw(st.sampled_from(RATES))
    return empty_document(rate=FrameRate(num=rate.num, den=rate.den))


@st.composite
def edits_for(draw: st.DrawFn, document: Document) -> EditBase:
    """An edit that could come from a page showing ``document``; it need not fit."""
    clips = [clip.id for _, clip in document.clips()]
    tracks = [track.id for track in document.tracks]
    clip = st.sampled_from(clips or ["gone"])
    some = st.lists(clip, min_size=1, max_size=3, unique=True)
    track = st.sampled_from(tracks)
    maker = draw(
        st.sampled_from(
            [
                "place",
                "place",
                "trim",
                "cut_away",
                "split",
                "move",
                "shift",
                "raise",
                "lower",
                "remove",
                "duplicate",
                "adjust",
                "set_track",
                "tracks",
                "set_rate",
            ]
        )
    )
    seed = f"s{draw(st.integers(0, 2**40))}"
    fields: dict[str, Any] = {"kind": maker, "seed": seed}
    match maker:
        case "place":
            fields["clip"] = some_clip(draw)
            fields["mode"] = draw(st.sampled_from(["end", "push", "over", "above"]))
            fields["at"] = draw(ticks)
            fields["track"] = draw(st.none() | track)
        case "trim":
            fields |= {
                "clip": draw(clip),
                "edge": draw(st.sampled_from(["start", "end"])),
                "to": draw(ticks) - SECOND,
            }
        case "cut_away":
            fields |= {
                "clips": draw(some),
                "side": draw(st.sampled_from(["left", "right"])),
                "at": draw(ticks),
            }
        case "split":
            fields |= {"clips": draw(st.just([]) | some), "at": draw(ticks)}
        case "move":
            fields |= {"clip": draw(clip), "to": draw(ticks), "track": draw(st.none() | track)}
        case "shift":
            fields |= {"clips": draw(some), "by": draw(st.integers(-3 * SECOND, 3 * SECOND))}
        case "raise" | "lower":
            fields["clip"] = draw(clip)
        case "remove":
            fields |= {"clips": draw(some), "close": draw(st.booleans())}
        case "duplicate":
            fields["clips"] = draw(some)
        case "adjust":
            fields |= {"clips": draw(some), "values": {"opacity": draw(st.floats(0, 1))}}
        case "set_track":
            fields |= {"track": draw(track), "closes_gaps": draw(st.booleans())}
        case "tracks":
            kind = draw(st.sampled_from(["add_track", "remove_track", "order_track"]))
            fields["kind"] = kind
            if kind == "add_track":
                fields["track"] = draw(st.sampled_from(["picture", "sound"]))
            else:
                fields["track"] = draw(track)
            if kind == "order_track":
                fields["to"] = draw(st.integers(-1, 4))
        case "set_rate":
            rate = draw(st.sampled_from(RATES))
            fields["rate"] = {"num": rate.num, "den": rate.den}
    return edit(**fields)
