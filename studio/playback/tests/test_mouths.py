from __future__ import annotations

from typing import Any

from django.test import TestCase

from kitecore.document.poses import POSES
from studio.tests.site import SECOND, People, clip_of, take_of


class MouthTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.edit(kind="place", clip=clip_of(take_of(self.project), 1.5), mode="end")
        self.edit(kind="add_layer", layer="mouth", at=0, length=SECOND)
        [self.mouth] = [
            c for t in self.document()["tracks"] for c in t["clips"] if c["name"] == "Mouth"
        ]

    @property
    def base(self) -> str:
        self.project.refresh_from_db()
        return f"/projects/{self.project.id}/revisions/{self.project.head_id}"

    def led(self, **voice: Any) -> Any:
        return self.call("post", f"{self.base}/mouthed", {"clip": self.mouth["id"], "voice": voice})

    def test_words_become_cues(self) -> None:
        answer = self.call("post", f"{self.base}/captioned", {"text": "Hello"})
        self.assertEqual(200, answer.status_code, answer.content)
        for cue in answer.json()["cues"]:
            self.assertEqual("Hello", cue["text"])
        for wrong in ({"text": ""}, {"text": "Hello", "language": "moon"}):
            self.assertEqual(422, self.call("post", f"{self.base}/captioned", wrong).status_code)

    def test_poses_are_proposed_and_kept(self) -> None:
        for voice in ({"by": "sound"}, {"by": "words", "text": "Hello"}):
            found = self.led(**voice).json()
            self.assertEqual((0, SECOND), (found["turns"][0]["at"], found["until"]))
            self.assertLessEqual({turn["pose"] for turn in found["turns"]}, set(POSES))
            answer = self.edit(
                kind="propose_poses",
                clip=self.mouth["id"],
                **{name: found[name] for name in ("turns", "until")},
            )
            self.assertEqual(200, answer.status_code)

    def test_what_cannot_be_is_told_in_words(self) -> None:
        self.assertEqual(422, self.led(by="words", text=" ").status_code)
        self.assertEqual(422, self.led(by="song").status_code)
        for language in ("../../up", "mb/mb-en1", ""):
            refused = self.led(by="words", text="Hello", language=language)
            self.assertEqual(422, refused.status_code)
        self.assertEqual(422, self.led(by="words", text="x" * 7000).status_code)
        self.mouth["id"] = "nobody"
        self.assertEqual(404, self.led().status_code)

    def test_pictures_of_voice_and_poses(self) -> None:
        clip = f"{self.base}/clips/{self.mouth['id']}"
        for path in (f"voice.jpg?low=0&high={SECOND}&width=64", "poses.jpg"):
            answer = self.call("get", f"{clip}/{path}")
            self.assertEqual("image/jpeg", answer["Content-Type"])
            self.assertEqual(b"\xff\xd8", answer.content[:2])
            other = self.call("get", f"{clip}/{path}", client=self.other)
            self.assertEqual(404, other.status_code)

    def test_the_kit_tells_of_poses_ways_and_languages(self) -> None:
        told = self.call("get", "/kit/move").json()
        self.assertEqual(list(POSES), [one["name"] for one in told["poses"]])
        self.assertEqual(
            ["Swapped", "Bouncing", "Moving"], [one["title"] for one in told["mouth_ways"]]
        )
        self.assertIn("en", [one["name"] for one in told["languages"]])
