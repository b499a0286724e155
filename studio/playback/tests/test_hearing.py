from __future__ import annotations

from typing import Any
from unittest.mock import patch

from django.test import TestCase

from studio.playback import hearing
from studio.tests.site import People, clip_of, take_of


class HearingTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.edit(kind="place", clip=clip_of(take_of(self.project), 1.5), mode="end")

    @property
    def base(self) -> str:
        self.project.refresh_from_db()
        return f"/projects/{self.project.id}/revisions/{self.project.head_id}"

    def loud(self, *edits: dict[str, Any]) -> Any:
        answer = self.call("post", f"{self.base}/loudness", {"edits": list(edits)})
        self.assertEqual(200, answer.status_code, answer.content)
        return answer.json()

    def test_levels_come_with_the_piece_that_is_heard(self) -> None:
        heard = self.call("get", f"{self.base}/sound?first=0&last=15")
        self.assertEqual(b"ftyp", heard.content[4:8])
        with patch.object(hearing, "render", side_effect=AssertionError):
            found = self.call("get", f"{self.base}/levels?first=0&last=15").json()
        main = self.document()["tracks"][0]["id"]
        self.assertEqual({main, "film"}, set(found["strips"]) & {main, "film"})
        self.assertEqual(15, len(found["strips"][main]["peaks"]))
        self.assertLess(-20, found["strips"]["film"]["peaks"][5][0])
        fresh = self.call("get", f"{self.base}/levels?first=20&last=25").json()
        self.assertEqual(20, fresh["first"])
        bad = self.call("get", f"{self.base}/levels?first=20&last=20")
        self.assertEqual(422, bad.status_code)

    def test_loudness_of_the_film_and_as_it_would_be(self) -> None:
        found = self.loud()
        self.assertEqual((1, 1), (found["done"], found["of"]))
        whole = found["loudness"]["whole"]
        self.assertTrue(-30 < whole < 0)
        quieter = {"kind": "set_strip", "values": {"gain": -6.0}}
        tried = self.loud(quieter)["loudness"]["whole"]
        self.assertAlmostEqual(whole - 6, tried, delta=0.1)
        self.assertEqual(whole, self.loud()["loudness"]["whole"])
        self.edit(**quieter)
        with patch.object(hearing, "render", side_effect=AssertionError):
            self.assertEqual(tried, self.loud()["loudness"]["whole"])

    def test_clips_noise_and_curves(self) -> None:
        [clip] = self.document()["tracks"][0]["clips"]
        found = self.call("get", f"{self.base}/clips/{clip['id']}/loudness").json()
        self.assertTrue(-10 < found["peak"] < 0)
        noise = self.call(
            "post", f"{self.base}/noise", {"first": 0, "last": 30, "clip": clip["id"]}
        )
        self.assertEqual(40, len(noise.json()))
        given = {"kind": "equaliser", "bell": {"frequency": 1000, "gain": 6}}
        curve = self.call(
            "post", "/equaliser/curve", {"equaliser": given, "frequencies": [20, 1000]}
        ).json()
        self.assertAlmostEqual(0, curve[0], delta=0.1)
        self.assertAlmostEqual(6, curve[1], delta=0.01)

    def test_what_the_render_process_refuses_is_refused_with_its_words(self) -> None:
        [clip] = self.document()["tracks"][0]["clips"]
        answer = self.call("get", f"{self.base}/clips/{clip['id']}/pauses")
        self.assertEqual((422, "edit_refused"), (answer.status_code, answer.json()["code"]))
        self.assertIn("Nobody speaks", answer.json()["message"])
        gone = self.call("get", f"{self.base}/clips/gone/pauses")
        self.assertEqual((404, "not_there"), (gone.status_code, gone.json()["code"]))

    def test_a_value_is_led_by_the_sound_of_its_clip(self) -> None:
        [clip] = self.document()["tracks"][0]["clips"]
        given = {"clip": clip["id"], "driving": {"by": "level", "low": 2.0, "high": 5.0}}
        answer = self.call("post", f"{self.base}/driven", given)
        keys = answer.json()["keys"]
        self.assertAlmostEqual(5, max(key["value"] for key in keys), delta=0.2)
        part = {"kind": "soft_blur", "sigma": {"keys": keys}}
        self.edit(kind="add_parts", clips=[clip["id"]], list="effects", parts=[part])
        [clip] = self.document()["tracks"][0]["clips"]
        self.assertEqual(len(keys), len(clip["effects"][0]["sigma"]["keys"]))
        nobody = self.call("post", f"{self.base}/driven", given | {"clip": "nobody"})
        self.assertEqual(404, nobody.status_code)

    def test_others_hear_nothing(self) -> None:
        for path in ("levels?first=0&last=5", "clips/x/loudness"):
            answer = self.call("get", f"{self.base}/{path}", client=self.other)
            self.assertEqual(404, answer.status_code)
        bodies: dict[str, Any] = {
            "loudness": {},
            "noise": {"first": 0, "last": 5},
            "driven": {"clip": "x", "driving": {}},
        }
        for path, given in bodies.items():
            answer = self.call("post", f"{self.base}/{path}", given, client=self.other)
            self.assertEqual(404, answer.status_code)

    def test_a_chain_is_kept_in_the_kit(self) -> None:
        chain = [{"kind": "compressor", "threshold": -30}]
        kept = self.call(
            "post", "/kit/presets", {"kind": "chain", "name": "Even", "content": {"chain": chain}}
        )
        self.assertEqual(201, kept.status_code)
        told = self.call("get", "/kit/sounds").json()
        self.assertEqual(7, len(told["inserts"]))
        self.assertEqual("Low cut", told["bands"][0]["title"])
        main = self.document()["tracks"][0]["id"]
        inserts = kept.json()["content"]["chain"]
        answer = self.edit(kind="add_inserts", track=main, inserts=inserts, name="Even")
        self.assertEqual(200, answer.status_code)
        strip = self.document()["tracks"][0]["strip"]
        self.assertEqual(-30, strip["chain"][0]["threshold"])
