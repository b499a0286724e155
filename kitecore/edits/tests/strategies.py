"""Documents and edits by chance, for the invariants that hold for all of them."""

from __future__ import annotations

from typing import Any, get_args

from hypothesis import strategies as st

from kitecore.document import Document, Holding, empty_document
from kitecore.edits import EditBase
from kitecore.edits.fresh import fresh_layers
from kitecore.edits.settings import Group
from kitecore.edits.tests.exchange_makers import MAKERS
from kitecore.edits.tests.picks import (
    Pick,
    free,
    lengths,
    maker,
    modes,
    one,
    simple,
    some,
    takes,
    ticks,
)
from kitecore.edits.tests.populated import SECOND, edit, populated
from kitecore.rates import FrameRate
from kitecore.ticks import RATES

__all__ = ["MAKERS", "documents", "edit", "edits_for"]

TRACKER = {
    "views": [{"at": 5, "corners": [[0, 0], [0.1, 0], [0.1, 0.1], [0, 0.1]]}],
    "first": 0,
    "last": SECOND,
}
DRAWN_KINDS = ["solid", "text", "shape", "adjustment"]


def some_clip(draw: st.DrawFn) -> dict[str, Any]:
    kind = draw(st.sampled_from([*DRAWN_KINDS, "video", "still", "sound", "sequence"]))
    clip: dict[str, Any] = {"kind": kind, "name": kind, "length": draw(lengths)}
    if kind == "sequence":
        clip |= {"pictures": ["m1", "m2", "m3"], "each": draw(st.integers(1, SECOND))}
        clip["order"] = draw(st.sampled_from(["forward", "backward", "there_and_back"]))
    elif kind not in DRAWN_KINDS:
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
    """Mostly populated ones, as people have them; now and then an empty one."""
    rate = draw(st.sampled_from(RATES))
    if draw(st.integers(0, 5)) == 0:
        return empty_document(rate=FrameRate(num=rate.num, den=rate.den))
    return populated(rate.num, rate.den)


@st.composite
def edits_for(draw: st.DrawFn, document: Document, seed: str) -> EditBase:
    """An edit that could come from a page showing ``document``; it need not fit.

    ``seed`` is to be fresh: an edit of a known one is never done again.
    """
    return edit(seed=seed, **_fields(draw, document))


def _fields(draw: st.DrawFn, document: Document) -> dict[str, Any]:
    inner = [clip for _, clip in document.clips() if isinstance(clip, Holding)]
    if inner and draw(st.integers(0, 3)) == 0:
        group = draw(st.sampled_from(inner))
        return _fields(draw, document.inside(group.id)) | {"within": group.id}
    maker = draw(st.sampled_from([*sorted(MAKERS), "place", "place", "group"]))
    return {"kind": maker} | MAKERS[maker](draw, Pick(document))


speeds = st.sampled_from([0.25, 0.5, 1.0, 1.7, 3.0, 6.0, -1.0, -0.5, -2.0, 0.0])
keeps = st.sampled_from(["content", "length"])
layouts = st.sampled_from([[2], [1, 1], [1, 2], [3, 3, 3]])
lists = st.sampled_from(["masks", "effects", "strokes"])
steps = st.integers(-3 * SECOND, 3 * SECOND)
MAKERS |= {
    "trim": simple(
        clip=one,
        edge=free(st.sampled_from(["start", "end"])),
        to=free(ticks.map(lambda tick: tick - SECOND)),
        also=lambda pick: st.just([]) | pick.some,
    ),
    "cut_away": simple(clips=some, side=free(st.sampled_from(["left", "right"])), at=free(ticks)),
    "split": simple(clips=lambda pick: st.just([]) | pick.some, at=free(ticks)),
    "move": simple(clip=one, to=free(ticks), track=lambda pick: st.none() | pick.track),
    "shift": simple(clips=some, by=free(steps)),
    "raise": simple(clip=one),
    "lower": simple(clip=one),
    "close_gap": simple(clips=some),
    "remove": simple(clips=some, close=free(st.booleans())),
    "duplicate": simple(clips=some),
    "adjust": lambda draw, pick: {
        "clips": draw(pick.some),
        "values": {"opacity": draw(st.floats(0, 1))},
    },
    "set_track": simple(track=lambda pick: pick.track, closes_gaps=free(st.booleans())),
    "set_strip": simple(
        track=lambda pick: st.none() | pick.track,
        values=free(
            st.sampled_from(
                [
                    {"gain": -6.0, "pan": 0.5},
                    {"gain": {"keys": [{"at": 0, "value": -60}, {"at": SECOND, "value": 0}]}},
                    {"under": {"tracks": []}},
                    {"under/amount": 12.0},
                    {"chain": []},
                    {"kind": "x"},
                ]
            )
        ),
    ),
    "add_inserts": simple(
        track=lambda pick: st.none() | pick.track,
        inserts=free(st.sampled_from([[{"kind": "gate"}], [{"kind": "room"}, {"kind": "delay"}]])),
    ),
    "remove_insert": simple(
        track=lambda pick: st.none() | pick.track, insert=lambda pick: pick.insert
    ),
    "order_insert": simple(
        track=lambda pick: st.none() | pick.track,
        insert=lambda pick: pick.insert,
        to=free(st.integers(0, 3)),
    ),
    "mark_beats": simple(clip=one, at=free(st.lists(ticks, max_size=5))),
    "mark_places": simple(
        clip=one, at=free(st.lists(ticks, max_size=5)), name=free(st.just("Unsure"))
    ),
    "cut_out": simple(
        clip=one,
        spans=free(st.lists(st.tuples(ticks, ticks), min_size=1, max_size=4)),
    ),
    "add_track": simple(track=free(st.sampled_from(["picture", "sound"]))),
    "remove_track": simple(track=lambda pick: pick.track),
    "order_track": simple(track=lambda pick: pick.track, to=free(st.integers(-1, 4))),
    "set_rate": lambda draw, pick: {
        "rate": (lambda rate: {"num": rate.num, "den": rate.den})(draw(st.sampled_from(RATES)))
    },
    "set_canvas": simple(canvas=free(st.just({"width": 1080, "height": 1080}))),
    "set_speed": simple(clips=some, factor=free(speeds), keep=free(keeps)),
    "fit": simple(clip=one, length=free(lengths)),
    "reverse": simple(clips=some),
    "freeze": simple(clip=one, at=free(ticks), length=free(lengths)),
    "roll": simple(clip=one, by=free(steps)),
    "trim_by": simple(clips=some, edge=free(st.sampled_from(["start", "end"])), by=free(steps)),
    "slip": simple(clips=some, by=free(steps)),
    "group": simple(clips=some),
    "ungroup": simple(clip=lambda pick: pick.group | pick.clip),
    "take_out": simple(group=lambda pick: pick.group, clips=lambda pick: pick.inner),
    "put_in": simple(group=lambda pick: pick.group, clips=some),
    "add_marker": simple(at=free(ticks), clip=lambda pick: st.none() | pick.clip),
    "set_marker": simple(marker=lambda pick: pick.marker, at=free(ticks), name=free(st.just("x"))),
    "remove_marker": simple(marker=lambda pick: pick.marker),
    "split_screen": simple(clips=some, rows=free(layouts), upright=free(st.booleans())),
    "set_screen": simple(
        screen=lambda pick: pick.screen, rows=free(layouts), slant=free(st.floats(-60, 70))
    ),
    "size_cell": simple(
        screen=lambda pick: pick.screen,
        place=free(st.integers(0, 3)),
        way=free(st.sampled_from(["across", "down"])),
        percent=free(st.floats(2, 98)),
    ),
    "join_screen": simple(screen=lambda pick: pick.screen, clips=some),
    "swap_cells": simple(first=one, second=one),
    "to_cell": simple(clip=one, place=free(st.integers(0, 3))),
    "leave_screen": simple(clips=some),
    "detach_sound": simple(clips=some),
    "hear_take": simple(clip=one, others=some, at=free(ticks)),
    "resync": simple(clip=one),
    "set_grade": lambda draw, pick: {
        "clips": draw(pick.some),
        "values": {"light/exposure": draw(st.floats(-2, 2))},
    },
    "replace_grade": simple(
        clips=some, grade=free(st.none() | st.just({"colour": {"saturation": 30}}))
    ),
    "add_zone": simple(clips=some, zone=free(st.just({"masks": [{"kind": "ellipse"}]}))),
    "remove_zone": simple(clips=some, zone=lambda pick: pick.zone),
    "order_zone": simple(clips=some, zone=lambda pick: pick.zone, to=free(st.integers(0, 2))),
    "add_parts": lambda draw, pick: {
        "clips": draw(pick.some),
        **draw(
            st.sampled_from(
                [
                    {"list": "masks", "parts": [{"kind": "ellipse"}, {"kind": "path"}]},
                    {"list": "effects", "parts": [{"kind": "flicker"}], "instead": True},
                    {"list": "effects", "parts": [{"kind": "edge"}]},
                    {"list": "strokes", "parts": [{"kind": "heal_stroke", "points": [[0, 0]]}]},
                    {"list": "chain", "parts": [{"kind": "equaliser"}, {"kind": "compressor"}]},
                ]
            )
        ),
    },
    "set_part": simple(
        clips=some,
        list=free(lists),
        part=lambda pick: pick.part,
        values=free(st.sampled_from([{"on": False}, {"mix": 0.5}, {"turn": 3}, {"kind": "x"}])),
    ),
    "remove_part": simple(clips=some, list=free(lists), part=lambda pick: pick.part),
    "order_part": simple(
        clips=some, list=free(lists), part=lambda pick: pick.part, to=free(st.integers(0, 3))
    ),
    "strokes_along": simple(
        clip=one,
        strokes=lambda pick: pick.part.map(lambda part: [part]),
        tracked=free(st.just(TRACKER)),
        since=free(st.sampled_from([0, SECOND])),
    ),
    "gather_pieces": simple(clip=one),
    "take_off": simple(clip=one, name=free(st.sampled_from(["Strand", "Wing"]))),
    "order_layer": simple(clip=one, other=one, where=free(st.sampled_from(["in_front", "behind"]))),
    "copy_above": simple(clips=some),
    "to_path": simple(clip=one),
    "draw_freehand": simple(
        points=free(
            st.lists(st.tuples(st.floats(-500, 500), st.floats(-900, 900)), min_size=2, max_size=30)
        ),
        clip=lambda pick: st.none() | pick.clip,
        closed=free(st.booleans()),
        at=free(ticks),
    ),
    "shift_keys": lambda draw, pick: {"keys": draw(pick.keys), "by": draw(steps)},
    "stretch_keys": lambda draw, pick: {
        "keys": draw(pick.keys),
        "factor": draw(st.sampled_from([0.1, 0.5, 2.0])),
        "stays": draw(st.sampled_from(["first", "last"])),
    },
    "reverse_keys": lambda draw, pick: {"keys": draw(pick.keys)},
    "mirror_keys": lambda draw, pick: {"keys": draw(pick.keys)},
    "repeat_keys": lambda draw, pick: {
        "keys": draw(pick.keys),
        "way": draw(st.sampled_from(["again", "on", "back"])),
    },
    "ease_keys": lambda draw, pick: {
        "keys": draw(pick.keys),
        "ease": draw(st.sampled_from([{"kind": "spring"}, {"kind": "bounce"}, {"kind": "hold"}])),
    },
    "remove_keys": lambda draw, pick: {"keys": draw(pick.keys)},
    "later_keys": lambda draw, pick: {
        "clips": draw(st.lists(pick.clip, min_size=2, max_size=3)),
        "paths": draw(st.sampled_from([[], ["opacity"], ["place/turn"]])),
        "by": draw(steps),
    },
    "paste_keys": lambda draw, pick: {
        "clips": draw(pick.some),
        "at": draw(ticks),
        "copied": [
            {
                "path": draw(st.sampled_from(["opacity", "place/position/down"])),
                "keys": [{"at": 0, "value": 0}, {"at": 9, "value": 1}],
            }
        ],
    },
    "even_pace": simple(clip=one),
    "part_axes": simple(clip=one, path=free(st.sampled_from(["place/position", "place/size"]))),
    "join_axes": simple(clip=one, path=free(st.just("place/position"))),
    "fit_grid": simple(
        clip=one, area=free(st.none() | st.just([-0.2, -0.3, 0.2, 0.4])), aspect=free(st.just(0.5))
    ),
    "divide_grid": simple(
        clip=one, columns=free(st.integers(1, 12)), rows=free(st.integers(1, 12))
    ),
    "draw_motion": lambda draw, pick: {
        "clip": draw(pick.clip),
        "points": [[0, 0], [100, 30], [180, -60], [240, 10]],
        "length": draw(lengths),
    },
    "follow": lambda draw, pick: {
        "clips": draw(pick.some),
        "leader": draw(st.none() | pick.clip),
        "at": draw(ticks),
    },
    "cover_tracked": lambda draw, pick: {
        "clip": draw(pick.clip),
        "tracker": "t",
        "centre": [0, 0],
        "size": [0.1, 0.1],
        "at": draw(ticks),
        "how": draw(st.sampled_from(["mosaic", "soft_blur", "plain"])),
        "grows": draw(st.sampled_from([1.0, 3.0, 100.0])),
        "picture": draw(st.none() | st.just({"media": "photo", "aspect": 1.5})),
    },
    "moves_to_keys": lambda draw, pick: {
        "clips": draw(pick.some),
        "which": draw(st.sampled_from(["comes", "goes", "meanwhile"])),
    },
    "apply_motion": lambda draw, pick: {
        "clips": draw(pick.some),
        "motion": {
            "length": SECOND,
            "comes": {"kind": draw(st.sampled_from(["rise", "pop", "unfold", "squash"]))},
            "goes": {"kind": "spin", "length": SECOND // 3},
            "meanwhile": [{"id": "m", "kind": "float"}],
            "properties": [
                {
                    "path": "place/position",
                    "keys": [{"at": 0, "value": [0, 0]}, {"at": SECOND, "value": [50, 9]}],
                }
            ],
        },
    },
    "add_item": lambda draw, pick: {
        "clips": draw(pick.some),
        **draw(
            st.sampled_from(
                [
                    {"list": "fill/stops", "item": {"at": 0.5, "colour": "#112233"}},
                    {"list": "masks", "item": {"kind": "edge"}},
                    {"list": "opacity", "item": 1},
                    {"list": "masks", "item": {"kind": "nothing"}, "at": 0},
                    {"list": "trackers", "item": TRACKER},
                    {"list": "cutout/strokes", "item": {"points": [[0, 0]]}},
                    {"list": "cutout/views", "item": {"at": 9, "persons": [[0, 0]]}},
                    {"list": "cutout/views/0/strokes", "item": {"points": [[0, 0]]}},
                ]
            )
        ),
    },
    "remove_item": lambda draw, pick: {
        "clips": draw(pick.some),
        "item": draw(st.sampled_from(["masks/0", "effects/0", "opacity", "fill/stops/1"])),
    },
    "ride": simple(clips=some, on=lambda pick: st.none() | pick.clip),
    "set_transition": simple(
        clip=one,
        transition=lambda pick: (
            st.none() | st.builds(lambda length: {"kind": "dissolve", "length": length}, lengths)
        ),
        short=free(st.sampled_from(["refuse", "shorten", "hold"])),
    ),
}


@maker("place")
def _place(draw: st.DrawFn, pick: Pick) -> dict[str, Any]:
    mode = draw(st.sampled_from(["end", "push", "over", "above"]))
    track = draw(st.none() | pick.track)
    return {"clip": some_clip(draw), "mode": mode, "at": draw(ticks), "track": track}


@maker("place_takes")
def _place_takes(draw: st.DrawFn, pick: Pick) -> dict[str, Any]:
    rows = draw(st.lists(takes(), min_size=1, max_size=3))
    how = draw(st.sampled_from(["row", "stack"]))
    return {"takes": rows, "how": how, "mode": draw(modes), "at": draw(ticks)}


@maker("place_sequence")
def _place_sequence(draw: st.DrawFn, pick: Pick) -> dict[str, Any]:
    rows = draw(st.lists(takes(("still",)), min_size=1, max_size=4))
    order = draw(st.sampled_from(["forward", "backward", "there_and_back"]))
    each = draw(st.integers(1, 9))
    return {"takes": rows, "frames_each": each, "order": order, "mode": draw(modes)}


@maker("add_layer")
def _add_layer(draw: st.DrawFn, pick: Pick) -> dict[str, Any]:
    return {"layer": draw(st.sampled_from(sorted(fresh_layers))), "at": draw(ticks)}


@maker("replace")
def _replace(draw: st.DrawFn, pick: Pick) -> dict[str, Any]:
    return {"clip": draw(pick.clip), "take": draw(takes())}


@maker("apply_settings")
def _apply_settings(draw: st.DrawFn, pick: Pick) -> dict[str, Any]:
    kinds = st.sampled_from(get_args(Group))
    groups = draw(st.lists(kinds, min_size=1, unique=True))
    source = some_clip(draw) | {"id": "other"}
    return {"clips": draw(pick.some), "source": source, "groups": groups}


@maker("ramp")
def _ramp(draw: st.DrawFn, pick: Pick) -> dict[str, Any]:
    ats = draw(st.lists(st.integers(0, 4 * SECOND), min_size=1, max_size=4, unique=True))
    softs = st.sampled_from([None, True, False])
    points = [{"at": at, "speed": draw(speeds), "soft": draw(softs)} for at in ats]
    return {
        "clip": draw(pick.clip),
        "points": points,
        "keep": draw(keeps),
        "soft": draw(st.booleans()),
    }


@maker("paste")
def _paste(draw: st.DrawFn, pick: Pick) -> dict[str, Any]:
    copies = []
    for number in range(draw(st.integers(1, 3))):
        clip = some_clip(draw) | {"id": f"old{number}", "start": number * 5 * SECOND}
        of = draw(st.sampled_from(["main", "picture", "sound"]))
        copies.append({"clip": clip, "lane": draw(st.integers(0, 2)), "of": of})
    made_on = draw(st.none() | st.just({"width": 540, "height": 960}))
    return {"copies": copies, "at": draw(ticks), "made_on": made_on}
