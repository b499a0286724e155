"""What edits of layers and their parts do."""

from __future__ import annotations

from typing import Any

from kitecore.document import ShapeClip, TextClip, dumps, loads
from kitecore.document.shapes import PathForm
from kitecore.edits.tests.cutcase import CutCase
from kitecore.edits.tests.populated import SECOND
from kitecore.errors import NotThere


class LayerCase(CutCase):
    def above(self, name: str, at: float = 0, **more: Any) -> str:
        clip = {"kind": "text", "name": name, "length": SECOND, **more}
        self.do(kind="place", clip=clip, mode="above", at=round(at * SECOND))
        return self.find(name).id

    def find(self, name: str) -> Any:
        return next(clip for _, clip in self.document.clips() if clip.name == name)

    def order(self) -> list[str]:
        """Names of the first clips of the tracks of pictures, from the back to the front."""
        pictures = [track for track in self.document.tracks if track.kind != "sound"]
        return [track.clips[0].name for track in pictures if track.clips]


class PartsTest(LayerCase):
    def setUp(self) -> None:
        super().setUp()
        self.ids = [self.find("a").id, self.find("b").id]

    def add(self, which: str, *parts: dict[str, Any], **more: Any) -> None:
        self.do(kind="add_parts", clips=self.ids, list=which, parts=parts, **more)

    def test_parts_come_at_the_end_and_have_the_same_ids_on_all(self) -> None:
        self.add("effects", {"kind": "shadow"})
        self.add("effects", {"kind": "glow"}, {"kind": "grain"})
        rows = [self.find(name).effects for name in "ab"]
        self.assertEqual(["shadow", "glow", "grain"], [one.kind for one in rows[0]])
        self.assertEqual([one.id for one in rows[0]], [one.id for one in rows[1]])
        self.assertEqual(self.document, loads(dumps(self.document)))

    def test_instead_takes_the_place_of_all(self) -> None:
        self.add("masks", {"kind": "ellipse"})
        self.add("masks", {"kind": "edge"}, instead=True)
        self.assertEqual(["edge"], [one.kind for one in self.find("a").masks])

    def test_one_part_is_set_ordered_and_removed(self) -> None:
        self.add("effects", {"kind": "shadow"}, {"kind": "glow"})
        first, second = self.find("a").effects
        which = {"clips": self.ids, "list": "effects"}
        self.do(kind="set_part", part=second.id, values={"width": 3, "mix": 0.5}, **which)
        self.assertEqual((3, 0.5), (self.find("b").effects[1].width, self.find("b").effects[1].mix))
        self.do(kind="order_part", part=second.id, to=0, **which)
        self.assertEqual([second.id, first.id], [one.id for one in self.find("a").effects])
        self.do(kind="remove_part", part=first.id, **which)
        self.assertEqual([second.id], [one.id for one in self.find("b").effects])

    def test_what_does_not_fit_is_refused(self) -> None:
        self.refused(kind="add_parts", clips=self.ids, list="masks", parts=[{"kind": "shadow"}])
        self.add("effects", {"kind": "glow"})
        part = self.find("a").effects[0].id
        which = {"clips": self.ids, "list": "effects"}
        for values in ({"kind": "shadow"}, {"id": "x"}, {"width": "wide"}, {"nothing": 1}):
            self.refused(kind="set_part", part=part, values=values, **which)
        with self.assertRaises(NotThere):
            self.do(kind="set_part", part="gone", values={"on": False}, **which)
        self.refused(kind="add_parts", clips=self.ids, list="masks", parts=[{"kind": "edge"}] * 17)

    def test_running_effects_run_on_over_a_cut(self) -> None:
        self.add("effects", {"kind": "flicker"})
        self.do(kind="split", clips=[self.ids[0]], at=SECOND)
        later = next(c for c in self.document.main.clips if c.start == SECOND)
        self.assertEqual(-SECOND, later.effects[0].since)  # type: ignore[attr-defined]


class OrderTest(LayerCase):
    def setUp(self) -> None:
        super().setUp()
        self.one, self.two, self.three = (self.above(name) for name in ("one", "two", "three"))

    def test_a_layer_goes_in_front_or_behind_with_its_track(self) -> None:
        self.assertEqual(["a", "one", "two", "three"], self.order())
        self.do(kind="order_layer", clip=self.one, other=self.three)
        self.assertEqual(["a", "two", "three", "one"], self.order())
        self.do(kind="order_layer", clip=self.one, other=self.find("a").id, where="behind")
        self.assertEqual(["one", "a", "two", "three"], self.order())

    def test_one_of_several_on_a_track_gets_its_own(self) -> None:
        track, _ = self.document.find_clip(self.one)
        self.do(
            kind="place", clip={"kind": "text", "name": "later", "length": SECOND},
            mode="over", at=2 * SECOND, track=track.id,
        )  # fmt: skip
        self.do(kind="order_layer", clip=self.one, other=self.three)
        self.assertEqual(["a", "later", "two", "three", "one"], self.order())
        self.assertEqual(0, self.find("one").start)

    def test_not_beside_itself_nor_on_one_track(self) -> None:
        self.refused(kind="order_layer", clip=self.one, other=self.one)
        self.refused(kind="order_layer", clip=self.find("a").id, other=self.find("b").id)

    def test_a_copy_in_front_lies_at_the_same_time(self) -> None:
        self.do(kind="copy_above", clips=[self.one])
        copies = [clip for _, clip in self.document.clips() if clip.name == "one"]
        self.assertEqual(2, len({clip.id for clip in copies}))
        self.assertEqual([0, 0], [clip.start for clip in copies])
        self.assertEqual(["a", "one", "one", "two", "three"], self.order())


class ShapeEditTest(LayerCase):
    points = tuple((float(x), float((x / 20) ** 2)) for x in range(0, 200, 5))

    def test_a_line_by_hand_becomes_a_clip_about_its_own_middle(self) -> None:
        self.do(kind="draw_freehand", points=self.points, at=SECOND, width=9)
        clip = self.find("Drawing")
        assert isinstance(clip, ShapeClip)
        self.assertEqual((SECOND, 9), (clip.start, clip.stroke.width))  # type: ignore[union-attr]
        nodes = clip.form.contours[0].nodes  # type: ignore[union-attr]
        xs = [node.at[0] for node in nodes]
        self.assertAlmostEqual(0, min(xs) + max(xs), delta=0.1)
        self.assertAlmostEqual(97.5, clip.place.position[0], delta=0.1)  # type: ignore[index]
        self.assertLess(len(nodes), 8)

    def test_more_lines_join_a_path(self) -> None:
        self.do(kind="draw_freehand", points=self.points)
        clip = self.find("Drawing").id
        self.do(kind="draw_freehand", points=self.points, clip=clip, closed=True)
        self.assertEqual(2, len(self.find("Drawing").form.contours))

    def test_a_shape_becomes_a_path_and_only_a_shape(self) -> None:
        star = self.above("star", kind="shape", form={"kind": "star"})
        self.do(kind="to_path", clip=star)
        form = self.find("star").form
        assert isinstance(form, PathForm)
        self.assertEqual(10, len(form.contours[0].nodes))  # type: ignore[union-attr]
        self.refused(kind="to_path", clip=self.above("words"))
        keyed = {"keys": [{"at": 0, "value": 9}]}
        moving = self.above("moving", kind="shape", form={"kind": "polygon", "radius": keyed})
        self.refused(kind="to_path", clip=moving)

    def test_a_line_does_not_join_what_is_no_path(self) -> None:
        star = self.above("star", kind="shape", form={"kind": "star"})
        self.refused(kind="draw_freehand", points=self.points, clip=star)


class TextTest(LayerCase):
    def test_words_and_their_fills_are_adjusted_by_path(self) -> None:
        clip = self.above("words", text="Wind")
        values = {
            "text": "Paper",
            "fill/colour": "#ff0000",
            "plate": {},
            "outline": {"kind": "round"},
        }
        self.do(kind="adjust", clips=[clip], values=values)
        found = self.find("words")
        assert isinstance(found, TextClip)
        self.assertEqual(("Paper", "#ff0000"), (found.text, found.fill.colour))  # type: ignore[union-attr]
        self.do(kind="adjust", clips=[clip], values={"plate/radius": 3, "place/mirrored": True})
        self.assertEqual(3, self.find("words").plate.radius)
        self.refused(kind="adjust", clips=[clip], values={"font": "../../etc"})
        self.refused(kind="adjust", clips=[clip], values={"blend": "unheard"})
