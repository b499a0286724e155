"""Layers that follow what is tracked in a real file: on the picture where the thing is."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Any, Final
from unittest import TestCase

import av
import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.analysis.track import read_track
from kitecore.document.properties import NumberKeys
from kitecore.document.trackers import Tracked, Tracker, View
from kitecore.edits.tests.populated import SECOND
from kitecore.errors import EditRefused
from kitecore.media.folder import MediaFolder
from kitecore.motion import value_at
from kitecore.render.driving import driven
from kitecore.render.extract import content_key
from kitecore.render.frame import render
from kitecore.render.freeing import freed
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import SIZE, Scene
from kitecore.ticks import Span
from kitecore.tracking.quads import Quad, between, carried
from kitecore.tracking.tests import scenes

FRAME: Final = SECOND // 30
COUNT: Final = 50
LINES: Final = scenes.SIZE[1]
SCALE: Final = SIZE[1] / LINES


def view(quad: Quad, number: int) -> dict[str, Any]:
    corners = (quad - np.array(scenes.SIZE) / 2) / LINES
    return {"at": number * FRAME, "corners": corners.tolist()}


def made_video(made: scenes.Scene, number: int) -> av.VideoFrame:
    grey = made.frame(number)
    return av.VideoFrame.from_ndarray(cv2.cvtColor(grey, cv2.COLOR_GRAY2RGB), format="rgb24")


def _turned(degrees: float) -> NDArray[np.float64]:
    cos, sin = np.cos(np.radians(degrees)), np.sin(np.radians(degrees))
    return np.array([[cos, -sin], [sin, cos]])


class TrackedFilm(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.root = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        scene = Scene(cls.root)
        cls.made = {change: scenes.Scene(change) for change in ("turns", "leans")}
        for name, made in cls.made.items():
            scene.video(
                name,
                frames=COUNT,
                size=scenes.SIZE,
                options={"preset": "ultrafast", "crf": "20"},
                draw=lambda number, made=made: made_video(made, number),
            )
        scene.still("red", (255, 0, 0, 255), (30, 40))

    def setUp(self) -> None:
        self.scene = Scene(self.root)
        self.sources = Sources(self.scene.find)
        self.addCleanup(self.sources.close)

    def tracked(self, take: str, **how: Any) -> str:
        """A clip of a take with a tracker on its thing; the id of the clip."""
        self.scene.place(take, COUNT / 30, **how)
        clip = self.scene.document.main.clips[0]
        tracker = {
            "change": take,
            "views": [view(self.made[take].quad(0), 0)],
            "first": 0,
            "last": (COUNT - 1) * FRAME,
        }
        self.scene.do(kind="add_item", clips=[clip.id], list="trackers", item=tracker)
        [self.thing] = [one.id for one in self.scene.document.main.clips[0].trackers]  # type: ignore[attr-defined]
        return clip.id

    def put(self, leader: str, **place: Any) -> str:
        """The red still above, following from the first frame on."""
        self.scene.place("red", COUNT / 30, mode="above", place={"fit": "own", **place})
        [red] = [c for _, c in self.scene.document.clips() if c.name == "red"]
        self.scene.do(kind="follow", clips=[red.id], leader=leader, tracker=self.thing, at=0)
        return red.id

    def reds(self, number: int) -> NDArray[np.bool_]:
        picture = render(self.scene.document, number * FRAME, SIZE, self.sources)
        return np.asarray((picture[..., 0] > 150) & (picture[..., 1] < 90))

    def middle(self, number: int) -> NDArray[np.float64]:
        """Of what is red, in pixels of the canvas."""
        rows, columns = np.nonzero(self.reds(number))
        return np.array([columns.mean() + 0.5, rows.mean() + 0.5])

    def there(self, take: str, number: int) -> NDArray[np.float64]:
        return np.asarray(self.made[take].quad(number).mean(axis=0) * SCALE)

    def on_thing(self, take: str) -> tuple[float, float]:
        x, y = self.there(take, 0) - np.array(SIZE) / 2
        return float(x), float(y)


class TrackedTest(TrackedFilm):
    def test_what_is_found_in_a_file_is_where_it_is(self) -> None:
        for take, made in self.made.items():
            wanted = Tracked.model_validate(
                {"change": take, "views": [view(made.quad(20), 20)], "first": 0, "last": 49 * FRAME}
            )
            track = read_track(MediaFolder(self.root / take), wanted)
            self.assertEqual((COUNT, 0), (len(track.quads), track.first))
            for number in range(COUNT):
                quad = track.at(number) * LINES + np.array(scenes.SIZE) / 2
                self.assertLess(np.abs(quad - made.quad(number)).max(), 2.0, (take, number))
            self.assertTrue((track.sure > 128).all())

    def test_a_layer_goes_along(self) -> None:
        self.put(self.tracked("turns"), position=self.on_thing("turns"))
        for number in (0, 12, 30, 49):
            off = np.hypot(*(self.middle(number) - self.there("turns", number)))
            self.assertLess(off, 0.8, number)

    def test_a_tracker_that_is_trimmed_stays_where_it_begins_and_ends(self) -> None:
        leader = self.tracked("turns")
        self.put(leader, position=self.on_thing("turns"))
        ends = {
            f"trackers/{self.thing}/{name}": at
            for name, at in (("begins", 0), ("ends", 20 * FRAME))
        }
        self.scene.do(kind="adjust", clips=[leader], values=ends)
        for number, there in ((12, 12), (20, 20), (35, 20), (49, 20)):
            off = np.hypot(*(self.middle(number) - self.there("turns", there)))
            self.assertLess(off, 0.8, number)
        ends = {
            f"trackers/{self.thing}/{name}": at
            for name, at in (("begins", 60 * FRAME), ("ends", 0))
        }
        self.scene.do(kind="adjust", clips=[leader], values=ends)
        np.testing.assert_allclose(self.middle(0), self.middle(49), atol=0.5)

    def test_it_goes_along_faster_backwards_trimmed_and_moved(self) -> None:
        leader = self.tracked("turns")
        self.put(leader, position=self.on_thing("turns"))
        self.scene.do(kind="set_speed", clips=[leader], factor=2)
        self.assertLess(np.hypot(*(self.middle(10) - self.there("turns", 20))), 0.8)
        self.scene.do(kind="set_speed", clips=[leader], factor=1)
        place = {"place/position": [20, -10], "place/size": [0.8, 0.8]}
        self.scene.do(kind="adjust", clips=[leader], values=place)
        middle = np.array(SIZE) / 2
        for number in (5, 40):
            wanted = (self.there("turns", number) - middle) * 0.8 + (20, -10) + middle
            self.assertLess(np.hypot(*(self.middle(number) - wanted)), 0.8)

    def test_set_free_it_goes_on_by_keys_of_its_own(self) -> None:
        leader = self.tracked("turns")
        red = self.put(leader, position=self.on_thing("turns"), pivot=(8, -5), turn=30)
        numbers = (0, 7, 12, 30, 49)
        before = [render(self.scene.document, n * FRAME, SIZE, self.sources) for n in numbers]
        values = freed(self.scene.document, red, self.sources)
        self.scene.do(kind="adjust", clips=[red], values=values)
        self.scene.do(kind="adjust", clips=[leader], values={"trackers": []})
        for number, was in zip(numbers, before, strict=True):
            now = render(self.scene.document, number * FRAME, SIZE, self.sources)
            off = np.abs(now[..., :3].astype(int) - was[..., :3])
            self.assertLess(float(off.mean()), 0.3, number)
        self.assertLess(len(values["place/position"]["keys"]), COUNT)
        with self.assertRaisesRegex(EditRefused, "follows nothing"):
            freed(self.scene.document, red, self.sources)

    def test_what_leans_in_space_cannot_be_set_free_but_its_place_can(self) -> None:
        leader = self.tracked("leans")
        red = self.put(leader, position=self.on_thing("leans"))
        with self.assertRaisesRegex(EditRefused, "leans in space"):
            freed(self.scene.document, red, self.sources)
        follow = {"kind": "follow", "clips": [red], "leader": leader, "tracker": self.thing}
        self.scene.do(**follow, inherits=["position"], at=0)
        values = freed(self.scene.document, red, self.sources)
        self.assertEqual(0, values["place/turn"])
        self.assertIn("keys", values["place/position"])

    def test_place_alone_leaves_it_upright(self) -> None:
        leader = self.tracked("turns")
        red = self.put(leader, position=self.on_thing("turns"))
        self.scene.do(
            kind="follow",
            clips=[red],
            leader=leader,
            tracker=self.thing,
            inherits=["position"],
            at=0,
        )
        rows, columns = np.nonzero(self.reds(40))
        # A soft edge may or may not count.
        self.assertAlmostEqual(40, np.ptp(rows) + 1, delta=1)
        self.assertAlmostEqual(30, np.ptp(columns) + 1, delta=1)
        self.assertLess(np.hypot(*(self.middle(40) - self.there("turns", 40))), 0.8)

    def test_all_four_corners_go_along_in_perspective(self) -> None:
        leader = self.tracked("leans")
        size = np.ptp(self.made["leans"].quad(0), axis=0) * SCALE / (30, 40)
        low = self.made["leans"].quad(0).min(axis=0) * SCALE
        middle = low + size * (30, 40) / 2 - np.array(SIZE) / 2
        self.put(leader, position=middle.tolist(), size=size.tolist())
        for number in (0, 25, 49):
            quad = self.made["leans"].quad(number) * SCALE
            wanted = cv2.fillConvexPoly(
                np.zeros(SIZE[::-1], np.uint8), np.rint(quad * 16 - 8).astype(np.int32), 1, shift=4
            ).astype(np.bool_)
            red = self.reds(number)
            share = (red & wanted).sum() / (red | wanted).sum()
            self.assertGreater(share, 0.9, number)

    def test_an_even_way_trembles_less(self) -> None:
        views = (View.model_validate(view(self.made["turns"].quad(0), 0)),)
        facts: dict[str, Any] = {"id": "t", "views": views, "first": 0, "last": 49 * FRAME}
        plain, smooth = (
            self.sources.track("turns", Tracker(**facts, smooth=smooth)) for smooth in (0.0, 0.5)
        )
        trembles = [np.abs(np.diff(track.quads, 2, axis=0)).mean() for track in (plain, smooth)]
        self.assertLess(trembles[1], 0.5 * trembles[0])

    def test_pieces_depend_on_the_tracker_of_the_leader(self) -> None:
        leader = self.tracked("turns")
        span = Span(0, 10 * FRAME)

        def key() -> str:
            return content_key(self.scene.document, span, self.scene.find)

        alone = key()
        self.scene.do(kind="adjust", clips=[leader], values={f"trackers/{self.thing}/smooth": 1.0})
        self.assertEqual(alone, key())
        self.put(leader)
        before = key()
        self.scene.do(kind="adjust", clips=[leader], values={f"trackers/{self.thing}/smooth": 0.5})
        self.assertNotEqual(before, key())

    def test_masks_go_along_moved_turned_and_sized(self) -> None:
        leader = self.tracked("turns")
        quad = self.made["turns"].quad(0)
        centre = ((quad.mean(axis=0) - np.array(scenes.SIZE) / 2) / LINES).tolist()
        half = (np.ptp(quad, axis=0) / 2 / LINES).tolist()
        along = {"tracker": self.thing, "since": 0, "centre": centre}
        turn = self.turn(0)
        box = {"kind": "rectangle", "size": half, "turn": turn, **along}
        corners = (quad - quad.mean(axis=0)) / LINES @ _turned(-turn).T
        nodes = [{"at": corner} for corner in corners.tolist()]
        pen = {"kind": "path", "contours": [{"nodes": nodes}], "turn": turn, **along}
        for mask in (box, pen):
            before = self.scene.document
            self.scene.do(kind="add_parts", clips=[leader], list="masks", parts=[mask])
            for number in (0, 20, 45):
                there = self.made["turns"].quad(number) * SCALE
                wanted = cv2.fillConvexPoly(
                    np.zeros(SIZE[::-1], np.uint8),
                    np.rint(there * 16 - 8).astype(np.int32),
                    1,
                    shift=4,
                ).astype(np.bool_)
                picture = render(self.scene.document, number * FRAME, SIZE, self.sources)
                seen = picture[..., :3].max(axis=2) > 8
                share = (seen & wanted).sum() / (seen | wanted).sum()
                self.assertGreater(share, 0.9, (mask["kind"], number))
            self.scene.document = before

    def test_points_of_a_pen_mask_go_along_by_themselves(self) -> None:
        leader = self.tracked("turns")
        quad = self.made["turns"].quad(0)
        corners = (quad - np.array(scenes.SIZE) / 2) / LINES
        # The mask lies askew, and stays; two of its points are held to the thing.
        centre, turn = np.array([0.05, -0.1]), 30.0
        own = (corners - centre) @ _turned(-turn).T
        led = {"tracker": self.thing, "since": 0}
        nodes = [{"at": spot, **(led if n < 2 else {})} for n, spot in enumerate(own.tolist())]
        for keyed in (False, True):
            before = self.scene.document
            paths: Any = [{"nodes": nodes}]
            if keyed:
                paths = {"keys": [{"at": at, "value": paths} for at in (0, SECOND)]}
            mask = {"kind": "path", "contours": paths, "turn": turn, "centre": centre.tolist()}
            self.scene.do(kind="add_parts", clips=[leader], list="masks", parts=[mask])
            for number in (0, 20, 45):
                there = self.made["turns"].quad(number)
                shape = np.concatenate([there[:2], quad[2:]]) * SCALE
                wanted = cv2.fillPoly(
                    np.zeros(SIZE[::-1], np.uint8),
                    [np.rint(shape * 16 - 8).astype(np.int32)],
                    1,
                    shift=4,
                ).astype(np.bool_)
                picture = render(self.scene.document, number * FRAME, SIZE, self.sources)
                seen = picture[..., :3].max(axis=2) > 8
                share = (seen & wanted).sum() / (seen | wanted).sum()
                self.assertGreater(share, 0.85, (keyed, number))
            self.scene.document = before

    def turn(self, number: int) -> float:
        """Of the thing, in degrees."""
        side = np.subtract(*self.made["turns"].quad(number)[[1, 0]])
        return float(np.degrees(np.arctan2(side[1], side[0])))

    def test_masks_of_zones_go_along_and_pieces_depend_on_that(self) -> None:
        leader = self.tracked("turns")
        mask = {"kind": "ellipse", "id": "m", "tracker": self.thing, "since": 0, "size": [0.1, 0.1]}
        zone = {"id": "z", "masks": [mask], "adjust": {"light": {"exposure": -4}}}
        plain = self.scene.document
        self.scene.do(kind="adjust", clips=[leader], values={"grade": {"zones": [zone]}})

        def dark(number: int) -> NDArray[np.float64]:
            with_zone, without = (
                render(document, number * FRAME, SIZE, self.sources)[..., 1].astype(int)
                for document in (self.scene.document, plain)
            )
            rows, columns = np.nonzero(without - with_zone > 12)
            return np.array([columns.mean(), rows.mean()])

        went = dark(45) - dark(0)
        wanted = self.middle_of(np.zeros(2), 45) - self.middle_of(np.zeros(2), 0)
        self.assertLess(np.hypot(*(went - wanted)), 1.5)
        span = Span(0, 10 * FRAME)
        before = content_key(self.scene.document, span, self.scene.find)
        self.scene.do(kind="adjust", clips=[leader], values={f"trackers/{self.thing}/smooth": 0.5})
        self.assertNotEqual(before, content_key(self.scene.document, span, self.scene.find))

    def middle_of(self, spot: NDArray[np.float64], number: int) -> NDArray[np.float64]:
        """Where a spot of the first frame (heights, from the middle) is in another, on the canvas."""
        made = self.made["turns"]
        change = between("turns", made.quad(0), made.quad(number))
        there = carried(change, spot[None] * LINES + np.array(scenes.SIZE) / 2)
        return np.asarray(there[0] * SCALE)

    def test_a_tracker_that_is_not_there_is_refused_and_one_that_goes_leaves_it_where_it_is(
        self,
    ) -> None:
        leader = self.tracked("turns")
        red = self.put(leader, position=self.on_thing("turns"))
        with self.assertRaises(EditRefused):
            self.scene.do(kind="follow", clips=[red], leader=leader, tracker="other", at=0)
        self.scene.do(kind="remove_item", clips=[leader], item=f"trackers/{self.thing}")
        np.testing.assert_allclose(self.middle(0), self.middle(40), atol=0.1)


class LeadingTest(TrackedFilm):
    """Values that are led by what is followed."""

    def led(self, measure: str, **more: Any) -> list[float]:
        layer = {"kind": "solid", "length": COUNT * FRAME}
        if not any(clip.kind == "solid" for _, clip in self.scene.document.clips()):
            self.scene.do(kind="place", clip=layer, mode="above", at=0, seed="led")
        [ground] = [c for _, c in self.scene.document.clips() if c.kind == "solid"]
        driving = {"by": "followed", "tracker": self.thing, "measure": measure} | more
        found = driven(self.scene.document, ground.id, driving, self.sources)
        keys = NumberKeys.model_validate({"keys": found})
        return [value_at(keys, number * FRAME) for number in range(COUNT)]

    def test_they_go_as_the_thing_goes(self) -> None:
        self.tracked("turns")
        where = np.array([self.made["turns"].quad(number).mean(axis=0) for number in range(COUNT)])
        for measure, way in (("across", where[:, 0]), ("down", where[:, 1])):
            with self.subTest(measure):
                values = np.array(self.led(measure, low=2.0, high=6.0))
                wanted = 2 + 4 * (way - way.min()) / np.ptp(way)
                self.assertLess(np.abs(values - wanted).max(), 0.4)

    def test_what_does_not_change_or_is_not_there_is_refused(self) -> None:
        self.tracked("turns")
        self.thing = "nobody"
        with self.assertRaises(EditRefused):
            self.led("across")


class PointsAlongTest(TrackedFilm):
    """Points of effects that go along with what is followed, seen where they shine."""

    def light(self, clip: str) -> None:
        effect = {"kind": "point_light", "id": "p", "reach": 40, "strength": 3, "around": 0}
        self.scene.do(kind="add_item", clips=[clip], list="effects", item=effect)
        driving = {"by": "followed", "tracker": self.thing, "measure": "place"}
        keys = driven(self.scene.document, clip, driving, self.sources)
        [effect_id] = [one.id for one in self.scene.document.find_clip(clip)[1].effects]  # type: ignore[attr-defined]
        values = {f"effects/{effect_id}/centre": {"keys": keys}}
        self.scene.do(kind="adjust", clips=[clip], values=values)

    def brightest(self, number: int) -> NDArray[np.float64]:
        picture = render(self.scene.document, number * FRAME, SIZE, self.sources)
        light = cv2.GaussianBlur(picture[..., :3].astype(np.float32).sum(axis=2), (0, 0), 5)
        y, x = np.unravel_index(light.argmax(), light.shape)
        return np.array([x, y], float) + 0.5

    def lit(self, **place: Any) -> str:
        white = {"kind": "plain", "colour": "#ffffff"}
        layer = {"kind": "solid", "length": COUNT * FRAME, "fill": white, "place": place}
        self.scene.do(kind="place", clip=layer, mode="above", at=0, seed="lit")
        [solid] = [c for _, c in self.scene.document.clips() if c.kind == "solid"]
        return solid.id

    def test_the_light_is_where_the_thing_is_on_its_own_picture_and_on_another(self) -> None:
        for place in ({}, {"turn": 25, "size": [0.9, 0.9], "mirrored": True, "pivot": [10, 20]}):
            self.scene = Scene(self.root)
            self.tracked("turns")
            self.light(self.lit(**place))
            for number in (0, 20, COUNT - 1):
                with self.subTest(place, number=number):
                    off = self.brightest(number) - self.there("turns", number)
                    self.assertLess(np.hypot(*off), 4)

    def test_the_middle_of_a_gradient_is_where_the_thing_is(self) -> None:
        for place in ({}, {"turn": 25, "size": [0.6, 0.5], "mirrored": True, "pivot": [10, 20]}):
            self.scene = Scene(self.root)
            self.tracked("turns")
            stops = [{"at": 0, "colour": "#ffffff"}, {"at": 1, "colour": "#000000"}]
            fill = {"kind": "round", "begin": [0, 0], "end": [60, 0], "stops": stops}
            form = {"kind": "rectangle", "size": [900, 900]}
            layer = {"kind": "shape", "length": COUNT * FRAME, "fill": fill, "form": form}
            self.scene.do(kind="place", clip=layer | {"place": place}, mode="above", at=0)
            [shape] = [c for _, c in self.scene.document.clips() if c.kind == "shape"]
            driving = {"by": "followed", "tracker": self.thing, "measure": "place", "drawn": True}
            keys = driven(self.scene.document, shape.id, driving, self.sources)
            rim = [{**key, "value": [key["value"][0] + 60, key["value"][1]]} for key in keys]
            values = {"fill/begin": {"keys": keys}, "fill/end": {"keys": rim}}
            self.scene.do(kind="adjust", clips=[shape.id], values=values)
            for number in (0, 20, COUNT - 1):
                with self.subTest(place, number=number):
                    off = self.brightest(number) - self.there("turns", number)
                    self.assertLess(np.hypot(*off), 4)

    def test_a_sound_has_no_points(self) -> None:
        self.tracked("turns")
        self.scene.sound("tone", 1)
        self.scene.place("tone", 1, mode="above")
        [clip] = [c for _, c in self.scene.document.clips() if c.kind == "sound"]
        driving = {"by": "followed", "tracker": self.thing, "measure": "place"}
        with self.assertRaises(EditRefused):
            driven(self.scene.document, clip.id, driving, self.sources)
