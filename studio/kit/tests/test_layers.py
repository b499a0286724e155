from __future__ import annotations

import io
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import TestCase
from PIL import Image

from kitecore.document import BLENDS
from kitecore.document.effects import effect_kinds
from kitecore.fonts import SHIPPED_FONTS, shipped_font
from studio.kit.models import font_folder
from studio.tests.site import SECOND, People, clip_of, take_of

FONT = shipped_font("caveat")[0].read_bytes()
DRAWING = b'<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0L9 0L9 9Z" fill="red"/></svg>'


class LayerKitTest(People, TestCase):
    def send(self, path: str, name: str, data: bytes, client: Any = None) -> Any:
        file = SimpleUploadedFile(name, data)
        return (client or self.mine).post(f"/api{path}", {"file": file})

    def words(self, **more: Any) -> dict[str, Any]:
        return {"kind": "text", "name": "words", "length": SECOND, **more}

    def test_the_bench_is_told_of_every_effect_blend_and_form(self) -> None:
        told = self.call("get", "/kit/layer").json()
        self.assertEqual(set(effect_kinds), {one["kind"] for one in told["effects"]})
        self.assertEqual(list(BLENDS), [one["name"] for one in told["blends"]])
        for one in told["effects"]:
            self.assertTrue(one["title"] and one["help"], one["kind"])
            self.assertIn("mix", [control["name"] for control in one["controls"]])
            for control in one["controls"]:
                self.assertTrue(control["help"], control)
                if control["control"] == "choice":
                    self.assertIn(control["default"], control["choices"])
        self.assertEqual("colour", told["keys"]["chroma"][0]["name"])
        self.assertEqual(401, self.call("get", "/kit/layer", client=self.stranger).status_code)

    def test_a_font_is_brought_in_used_and_taken_out(self) -> None:
        answer = self.send("/kit/fonts", "hand.ttf", FONT)
        self.assertEqual(201, answer.status_code)
        name = answer.json()["name"]
        fonts = self.call("get", "/kit/fonts").json()
        self.assertEqual([*SHIPPED_FONTS, name], [font["name"] for font in fonts])
        self.assertEqual(200, self.edit(kind="place", clip=self.words(font=name)).status_code)
        self.assertEqual(1, len(font_folder().find(name)))
        for path in (f"/kit/fonts/{name}/sample.jpg", "/kit/fonts/caveat/sample.jpg"):
            jpeg = self.call("get", path).content
            self.assertEqual(480, Image.open(io.BytesIO(jpeg)).width)
        self.assertEqual(
            404, self.call("delete", f"/kit/fonts/{name}", client=self.other).status_code
        )
        self.assertEqual(204, self.call("delete", f"/kit/fonts/{name}").status_code)
        self.assertEqual(len(SHIPPED_FONTS), len(self.call("get", "/kit/fonts").json()))

    def test_a_font_of_somebody_else_is_not_there(self) -> None:
        name = self.send("/kit/fonts", "hand.ttf", FONT, client=self.other).json()["name"]
        self.assertEqual(404, self.edit(kind="place", clip=self.words(font=name)).status_code)
        self.assertEqual(404, self.call("get", f"/kit/fonts/{name}/sample.jpg").status_code)

    def test_what_is_no_font_or_drawing_is_refused_with_a_reason(self) -> None:
        for path, data in (("/kit/fonts", b"<html>"), ("/kit/drawing", b"no svg")):
            answer = self.send(path, "x", data)
            self.assertEqual(422, answer.status_code)
            self.assertTrue(answer.json()["message"])

    def test_a_drawing_becomes_a_clip_that_can_be_placed(self) -> None:
        clip = self.send("/kit/drawing", "emblem.svg", DRAWING).json()["clip"]
        self.assertEqual(("shape", "emblem"), (clip["kind"], clip["name"]))
        self.assertEqual(200, self.edit(kind="place", clip=clip, mode="above").status_code)

    def test_effects_are_kept_and_given(self) -> None:
        content = {"effects": [{"kind": "shadow"}, {"kind": "glow", "width": 9}]}
        kept = {"kind": "effects", "name": "Soft", "content": content}
        self.assertEqual(201, self.call("post", "/kit/presets", kept).status_code)
        [preset] = self.call("get", "/kit/presets?kind=effects").json()
        self.assertEqual(["shadow", "glow"], [one["kind"] for one in preset["content"]["effects"]])
        bad = {**kept, "content": {"effects": [{"kind": "shadow", "nothing": 1}]}}
        self.assertEqual(422, self.call("post", "/kit/presets", bad).status_code)

    def element(self, clip: dict[str, Any]) -> dict[str, Any]:
        copies = [{"clip": clip, "lane": 0, "of": "picture"}]
        return {"kind": "element", "name": "Title", "content": {"copies": copies}}

    def test_an_element_comes_back_editable_in_another_project(self) -> None:
        kept = self.element(self.words(text="Wind", outline={"kind": "plain"}))
        self.assertEqual(201, self.call("post", "/kit/presets", kept).status_code)
        [preset] = self.call("get", "/kit/presets?kind=element").json()
        jpeg = self.call("get", f"/kit/presets/{preset['id']}/picture.jpg").content
        self.assertEqual(240, Image.open(io.BytesIO(jpeg)).height)
        pasted = self.edit(kind="paste", copies=preset["content"]["copies"], at=0)
        self.assertEqual(200, pasted.status_code)
        clip = self.document()["tracks"][1]["clips"][0]
        self.assertEqual(("Wind", "plain"), (clip["text"], clip["outline"]["kind"]))
        other = self.call("get", f"/kit/presets/{preset['id']}/picture.jpg", client=self.other)
        self.assertEqual(404, other.status_code)

    def test_a_mouth_is_kept_with_its_poses_and_what_it_says(self) -> None:
        self.edit(kind="add_layer", layer="mouth", at=0, length=2 * SECOND)
        mouth = self.mouth()
        turns = [{"at": 0, "pose": "closed"}, {"at": SECOND, "pose": "open"}]
        turned = {"turns": turns, "place/turn": 12}
        self.edit(kind="adjust", clips=[mouth["id"]], values=turned)
        kept = self.element(self.mouth())
        self.assertEqual(201, self.call("post", "/kit/presets", kept).status_code)
        [preset] = self.call("get", "/kit/presets?kind=element").json()
        other = self.call("post", "/projects", {"name": "Another"}).json()
        copies = preset["content"]["copies"]
        paste = {"kind": "paste", "copies": copies, "at": 0}
        edit = {"based_on": other["revision"], "edit": paste}
        pasted = self.call("post", f"/projects/{other['id']}/edits", edit)
        self.assertEqual(200, pasted.status_code)
        found = self.mouth(f"/projects/{other['id']}")
        self.assertEqual(turns, [{k: one[k] for k in ("at", "pose")} for one in found["turns"]])
        self.assertEqual(12, found["place"]["turn"])
        poses = [[track["name"] for track in one["tracks"]] for one in (mouth, found)]
        self.assertEqual(poses[0], poses[1])
        self.assertNotEqual(mouth["id"], found["id"])

    def mouth(self, path: str = "") -> dict[str, Any]:
        document = self.call("get", path).json()["document"] if path else self.document()
        clips = (clip for track in document["tracks"] for clip in track["clips"])
        return next(clip for clip in clips if clip["kind"] == "mouth")

    def test_an_element_does_not_reach_for_what_others_have(self) -> None:
        theirs = take_of(self.project, "theirs.mp4")
        kept = self.element(clip_of(theirs, 1))
        self.assertEqual(201, self.call("post", "/kit/presets", kept).status_code)
        refused = self.call("post", "/kit/presets", kept, client=self.other)
        self.assertEqual(404, refused.status_code)
