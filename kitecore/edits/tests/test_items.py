"""Items of lists come, change and go one by one."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from kitecore import edits
from kitecore.document import Document, empty_document
from kitecore.edits.tests.populated import edit
from kitecore.errors import EditRefused

SECOND = 705_600_000
FILL = {
    "kind": "straight",
    "stops": [{"at": 0, "colour": "#000000"}, {"at": 1, "colour": "#ffffff"}],
}
STROKE = {"points": [[0, 0], [0.1, 0.2]], "width": 0.1, "softness": 0.5, "erase": False}


class ItemsTest(TestCase):
    def setUp(self) -> None:
        self.document = empty_document()
        clip = {"kind": "solid", "name": "s", "length": SECOND, "fill": FILL}
        self.do(kind="place", clip=clip)
        [(_, self.clip)] = self.document.clips()

    def do(self, **fields: Any) -> None:
        self.document = edits.apply(self.document, edit(**fields))

    def now(self) -> Any:
        return next(self.document.clips())[1]

    def stops(self) -> list[tuple[float, str]]:
        return [(stop.at, stop.colour) for stop in self.now().fill.stops]

    def test_stops_of_a_gradient(self) -> None:
        clips = [self.clip.id]
        stop = {"at": 0.5, "colour": "#808080"}
        self.do(kind="add_item", clips=clips, list="fill/stops", item=stop, at=1)
        self.assertEqual([0, 0.5, 1], [at for at, _ in self.stops()])
        self.do(kind="adjust", clips=clips, values={"fill/stops/1/at": 0.6})
        self.assertEqual([0, 0.6, 1], [at for at, _ in self.stops()])
        self.do(kind="remove_item", clips=clips, item="fill/stops/0")
        self.assertEqual([(0.6, "#808080"), (1, "#ffffff")], self.stops())

    def test_two_who_add_strokes_at_once_keep_both(self) -> None:
        clips = [self.clip.id]
        self.do(kind="add_parts", clips=clips, list="masks", parts=[{"kind": "brush"}])
        mask = self.now().masks[0].id
        path = f"masks/{mask}/strokes"
        mine = edit(kind="add_item", clips=clips, list=path, item=STROKE)
        theirs = edit(kind="add_item", clips=clips, list=path, item=STROKE | {"erase": True})
        self.document = edits.apply(edits.apply(self.document, theirs), mine)
        self.assertEqual([True, False], [one.erase for one in self.now().masks[0].strokes])
        self.do(kind="remove_item", clips=clips, item=f"{path}/0")
        self.assertEqual([False], [one.erase for one in self.now().masks[0].strokes])

    def test_masks_of_a_zone(self) -> None:
        clips = [self.clip.id]
        self.do(kind="add_zone", clips=clips, zone={"masks": [{"kind": "ellipse"}]})
        zone = self.now().grade.zones[0].id
        path = f"grade/zones/{zone}/masks"
        self.do(kind="add_item", clips=clips, list=path, item={"kind": "edge"})
        values = {"masks/1/turn": 30}
        self.do(kind="set_grade", clips=clips, zone=zone, values=values)
        masks = self.now().grade.zones[0].masks
        self.assertEqual([("ellipse", 0.0), ("edge", 30.0)], [(m.kind, m.turn) for m in masks])
        self.do(kind="remove_item", clips=clips, item=f"{path}/{masks[0].id}")
        self.assertEqual(["edge"], [m.kind for m in self.now().grade.zones[0].masks])

    def test_a_pin_that_goes_leaves_the_chain_too(self) -> None:
        clips = [self.clip.id]
        self.do(kind="adjust", clips=clips, values={"warp": {"kind": "pins"}})
        for x in (-0.1, 0.1):
            pin = {"rest": [x, 0], "at": [x, 0]}
            self.do(kind="add_item", clips=clips, list="warp/pins", item=pin)
        first, second = (pin.id for pin in self.now().warp.pins)
        self.do(kind="adjust", clips=clips, values={"warp/chain": [first, second]})
        self.do(kind="remove_item", clips=clips, item=f"warp/pins/{first}")
        self.assertEqual((second,), self.now().warp.chain)
        self.assertEqual([second], [pin.id for pin in self.now().warp.pins])

    def test_what_does_not_fit_is_refused(self) -> None:
        clips = [self.clip.id]
        for step in (
            {"kind": "add_item", "list": "fill/stops", "item": {"at": "nine"}},
            {"kind": "add_item", "list": "opacity", "item": 1},
            {"kind": "add_item", "list": "nothing", "item": 1},
            {"kind": "add_item", "list": "markers/0/x", "item": 1},
            {"kind": "remove_item", "item": "fill/stops/7"},
            {"kind": "remove_item", "item": "opacity"},
            {"kind": "remove_item", "item": "masks/gone"},
            {"kind": "adjust", "values": {"fill/stops/9/at": 1}},
        ):
            with self.subTest(step), self.assertRaises(EditRefused):
                before: Document = self.document
                self.do(clips=clips, **step)
            self.assertIs(before, self.document)
