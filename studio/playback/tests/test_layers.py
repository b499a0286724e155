from __future__ import annotations

import io
from base64 import b64decode
from typing import Any

import numpy as np
from django.test import TestCase
from PIL import Image

from studio.tests.site import SECOND, People, clip_of, take_of


class LayersTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.edit(
            kind="place", clip=self.solid("ground", fill={"kind": "plain", "colour": "#2fa04c"})
        )
        form = {"kind": "ellipse", "size": [400, 400]}
        disc = {"kind": "shape", "name": "disc", "length": SECOND, "form": form}
        self.edit(kind="place", clip=disc, mode="above")
        tracks = self.document()["tracks"]
        self.ground, self.disc = (track["clips"][0]["id"] for track in tracks[:2])

    @property
    def base(self) -> str:
        self.project.refresh_from_db()
        return f"/projects/{self.project.id}/revisions/{self.project.head_id}"

    def under(self, x: float, y: float) -> Any:
        return self.call("post", f"{self.base}/under", {"frame": 3, "x": x, "y": y})

    def test_a_tap_finds_layers_from_the_front(self) -> None:
        self.assertEqual({"clips": [self.disc, self.ground]}, self.under(540, 960).json())
        self.assertEqual({"clips": [self.ground]}, self.under(20, 20).json())
        self.assertEqual(422, self.under(float("inf"), 1).status_code)

    def test_sizes_of_shapes_are_told(self) -> None:
        found = self.call("get", f"{self.base}/extents?frame=3").json()["extents"]
        self.assertEqual([self.disc], list(found))
        self.assertEqual([402, 402], [round(side) for side in found[self.disc]])

    def test_where_fresh_gradients_begin_and_end_is_told(self) -> None:
        words = {"kind": "text", "length": SECOND, "text": "Ab", "size": 100, "width": 900}
        self.edit(kind="place", clip=words, mode="above")
        bodies = self.call("get", f"{self.base}/extents?frame=3").json()["bodies"]
        self.assertEqual([-200, -200, 200, 200], [round(side) for side in bodies[self.disc]])
        [name] = set(bodies) - {self.disc}
        left, _, right, _ = bodies[name]
        # Two letters in the middle of a box that is much wider.
        self.assertLess(-100, left)
        self.assertLess(right, 100)
        self.assertGreater(right - left, 60)

    def test_where_a_moved_layer_is_shown_is_told(self) -> None:
        self.assertEqual({}, self.call("get", f"{self.base}/extents?frame=3").json()["moved"])
        comes = {"kind": "slide", "side": "left", "length": SECOND, "ease": {"kind": "steady"}}
        self.edit(kind="adjust", clips=[self.disc], values={"moves/comes": comes})
        moved = self.call("get", f"{self.base}/extents?frame=15").json()["moved"][self.disc]
        np.testing.assert_allclose([1, 0, 0, 1, -540, 0], moved, atol=1e-6)

    def test_a_follower_is_set_free_with_keys(self) -> None:
        way = [{"at": 0, "value": [0, 0]}, {"at": SECOND, "value": [60, -300]}]
        self.edit(kind="adjust", clips=[self.ground], values={"place/position": {"keys": way}})
        self.edit(kind="follow", clips=[self.disc], leader=self.ground, at=0)
        values = self.call("get", f"{self.base}/freed/{self.disc}").json()["values"]
        self.edit(kind="adjust", clips=[self.disc], values=values)
        disc = self.document()["tracks"][1]["clips"][0]
        self.assertIsNone(disc["moves"].get("follow"))
        keys = disc["place"]["position"]["keys"]
        self.assertEqual([0, 0], keys[0]["value"])
        np.testing.assert_allclose(keys[-1]["value"], np.array([60, -300]) * 29 / 30, atol=0.5)
        again = self.call("get", f"{self.base}/freed/{self.disc}")
        self.assertEqual("It follows nothing.", again.json()["message"])

    def test_the_mesh_of_a_warp_is_told(self) -> None:
        address = f"bending/{self.disc}?frame=3"
        nothing = self.call("get", f"{self.base}/{address}").json()
        self.assertEqual({"points": [], "rest": [], "lines": [], "pins": [], "seen": None}, nothing)
        pins = [{"id": "a", "rest": [0, -0.3], "at": [0, -0.3]}]
        pins.append({"id": "b", "rest": [0, 0.3], "at": [0.2, 0.3]})
        self.edit(kind="adjust", clips=[self.disc], values={"warp": {"kind": "pins", "pins": pins}})
        told = self.call("get", f"{self.base}/{address}").json()
        self.assertEqual([[0, -0.3], [0.2, 0.3]], told["pins"])
        self.assertEqual(told["pins"], told["points"][:2])
        self.assertEqual([[0, -0.3], [0, 0.3]], told["rest"][:2])
        self.assertLess(np.array(told["lines"]).max(), len(told["points"]))

    def test_skins_of_neighbouring_keys_are_drawn_on_request(self) -> None:
        keys = [{"at": 0, "value": [0, -500]}, {"at": SECOND, "value": [0, 500]}]
        self.edit(kind="adjust", clips=[self.disc], values={"place/position": {"keys": keys}})

        def at_top(**more: Any) -> Any:
            still = self.call("post", f"{self.base}/still", {"frame": 15, **more})
            return np.asarray(Image.open(io.BytesIO(still.content)))[154, 180].astype(int)

        plain, skinned = at_top(), at_top(onion=self.disc)
        self.assertGreater(np.abs(plain - skinned).max(), 30)

    def test_each_layer_of_a_frame_is_shown_alone(self) -> None:
        pictures = self.call("get", f"{self.base}/layers?frame=3").json()["pictures"]
        self.assertEqual({self.ground, self.disc}, set(pictures))
        head, data = pictures[self.disc].split(",")
        self.assertEqual("data:image/jpeg;base64", head)
        pixels = np.asarray(Image.open(io.BytesIO(b64decode(data))))
        self.assertEqual(128, max(pixels.shape[:2]))
        self.assertGreater(pixels[64, 64].min(), 200)

    def test_an_effect_is_shown_at_work_in_a_row_of_pictures(self) -> None:
        answer = self.call("get", f"{self.base}/effects/invert.jpg?frame=3&clip={self.disc}")
        self.assertEqual("image/jpeg", answer["Content-Type"])
        pixels = np.asarray(Image.open(io.BytesIO(answer.content)))
        self.assertEqual((128, 8 * 72), pixels.shape[:2])
        self.assertGreater(pixels[64, 36].min(), 200)
        self.assertLess(pixels[64, 4 * 72 + 36].max(), 60)

    def test_no_effect_of_that_name_or_no_such_clip_is_told(self) -> None:
        for kind, clip in (("nothing", self.disc), ("invert", "nobody")):
            answer = self.call("get", f"{self.base}/effects/{kind}.jpg?clip={clip}")
            self.assertIn(answer.status_code, (404, 422), kind)

    def test_a_screen_and_a_tapped_colour_are_found(self) -> None:
        at = {"clip": self.ground, "frame": 3}
        [screen] = self.call("post", f"{self.base}/screens", at).json()["screens"]
        self.assertEqual(("#2fa04c", 1.0), (screen["colour"], screen["share"]))
        colour = self.call("post", f"{self.base}/colour", {**at, "x": 540, "y": 960}).json()
        self.assertEqual({"colour": "#2fa04c"}, colour)

    def test_an_adjustment_has_no_colours_of_its_own(self) -> None:
        clip = {"kind": "adjustment", "name": "all", "length": SECOND}
        self.edit(kind="place", clip=clip, mode="above")
        adjustment = self.document()["tracks"][2]["clips"][0]["id"]
        answer = self.call("post", f"{self.base}/screens", {"clip": adjustment, "frame": 3})
        self.assertEqual(422, answer.status_code)

    def test_a_source_for_a_stroke_is_found_on_a_take(self) -> None:
        stroke = {"kind": "heal_stroke", "points": [[0, 0]], "width": 0.05}
        given = {"clip": self.ground, "frame": 3, "stroke": stroke}
        address = f"{self.base}/stroke-source"
        self.assertEqual(422, self.call("post", address, given).status_code)
        self.edit(kind="place", clip=clip_of(take_of(self.project)), mode="above")
        clip = next(
            clip["id"]
            for track in self.document()["tracks"]
            for clip in track["clips"]
            if clip["kind"] == "video"
        )
        given["clip"] = clip
        found = self.call("post", f"{self.base}/stroke-source", given).json()["source"]
        self.assertGreater(np.hypot(*found), 0.02)
        answer = self.call("post", f"{self.base}/stroke-source", given, client=self.other)
        self.assertEqual(404, answer.status_code)

    def test_only_for_its_owner(self) -> None:
        for path in (
            "extents",
            f"bending/{self.disc}",
            f"freed/{self.disc}",
            "layers",
            f"effects/glow.jpg?clip={self.disc}",
        ):
            answer = self.call("get", f"{self.base}/{path}", client=self.other)
            self.assertEqual(404, answer.status_code)
