"""Posting over good lines and bad ones, against the practice feed itself, over real connections."""

from __future__ import annotations

import itertools
import os
import tempfile
from collections import Counter
from collections.abc import Iterator
from datetime import datetime, timedelta
from pathlib import Path
from typing import Any
from unittest.mock import patch

import urllib3
from django.test import LiveServerTestCase, override_settings
from django.utils import timezone

from kitecore.media.tests.material import make_video, tone
from kitecore.render.export import ExportSettings
from practice.faults import FAULTS
from practice.looking import facts_of
from practice.models import PART_BYTES, Member
from practice.models import Post as Published
from studio.exports import work as exports
from studio.exports.models import Export
from studio.feed import client, work
from studio.feed.models import Connection, Post
from studio.jobs import queue
from studio.jobs.models import Job, State
from studio.projects import history
from studio.tests.site import People, work_off

WORDS = {"title": "Four folds up", "caption": "Rain at three.", "tags": ["#kites", "rain"]}
PARTS = 4


class Killed(BaseException):
    """What ends a worker in the middle."""


class Posting(People, LiveServerTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.enterContext(override_settings(FEED_ADDRESS=f"{self.live_server_url}/practice/"))
        for where, value in (
            ("practice.receiving.LOOKING", 0.0),
            ("practice.faults.LATE", 0.01),
            ("practice.faults.BUSY", 0),
            ("studio.feed.work.AT_ONCE", (0.0, 0.0)),
            ("practice.faults.STALLED", 2.2),
            ("studio.feed.client._pool", urllib3.PoolManager(retries=False, timeout=2.0)),
            # In this process: a program takes longer to start than a busy machine has patience here.
            ("practice.receiving.look", facts_of),
        ):
            self.enterContext(patch(where, value))
        self.film = self.made()
        self.assertEqual(200, self.call("post", "/feed", {"name": "pip"}).status_code)
        self.member = Member.objects.get()

    def made(self, **how: Any) -> Export:
        """A film of some parts, as if it had been made."""
        film = exports.start(
            self.pip, self.project, history.head_of(self.project), ExportSettings()
        )
        with tempfile.TemporaryDirectory() as folder:
            how = {"frames": 75, "size": (540, 960), "sound": 0.1 * tone(3.0), **how}
            data = make_video(Path(folder) / "x", **how).read_bytes()
        rest = PARTS * PART_BYTES - 1000 - len(data)
        free = rest.to_bytes(4, "big") + b"free" + os.urandom(rest - 8)
        film.path.parent.mkdir(parents=True, exist_ok=True)
        film.path.write_bytes(data + free)
        Job.objects.filter(pk=film.job_id).update(state=State.DONE)
        return film

    def start(self, **more: Any) -> Post:
        answer = self.call("post", f"/exports/{self.film.id}/posts", WORDS | more)
        self.assertEqual(201, answer.status_code, answer.content)
        return Post.objects.get(pk=answer.json()["id"])

    def go_on(self, post: Post, times: int = 60) -> dict[str, Any]:
        """Work until it has ended, however long it would wait; how it is shown then."""
        for _ in range(times):
            Job.objects.filter(state=State.WAITING).update(due_at=None)
            if not work_off():
                break
        [shown] = [one for one in self.shown() if one["id"] == str(post.id)]
        return shown

    def shown(self) -> list[dict[str, Any]]:
        return self.call("get", f"/projects/{self.project.id}/posts").json()


class GoodLineTest(Posting):
    def test_a_film_is_posted_with_its_words(self) -> None:
        shown = self.go_on(self.start(cover_at=2.0))
        self.assertEqual(("done", "live"), (shown["job"]["state"], shown["there"]))
        published = Published.objects.get()
        self.assertEqual(self.film.path.read_bytes(), published.upload.film.read_bytes())
        self.assertEqual(("Rain at three.", ["kites", "rain"]), (published.caption, published.tags))
        self.assertTrue(published.upload.cover.stat().st_size)
        self.assertTrue(shown["address"].endswith(f"#{published.name}"))
        Published.objects.update(live_at=timezone.now() - timedelta(hours=1))
        look = self.call("post", f"/posts/{shown['id']}/look").json()
        self.assertLess(100, look["seen"])

    def test_while_the_feed_is_away_what_it_told_last_stands(self) -> None:
        shown = self.go_on(self.start())
        with patch("studio.feed.api.look", side_effect=client.Away("Nobody answers.")):
            answer = self.call("post", f"/posts/{shown['id']}/look")
        self.assertEqual((200, "live"), (answer.status_code, answer.json()["there"]))

    def test_a_film_that_is_being_made_is_posted_when_it_is_made(self) -> None:
        Job.objects.filter(pk=self.film.job_id).update(state=State.HOLDING)
        post = self.start()
        self.assertEqual(1, work_off())
        post.job.refresh_from_db()
        self.assertEqual(("waiting", "making"), (post.job.state, post.job.doing))
        Job.objects.filter(pk=self.film.job_id).update(state=State.DONE)
        self.assertEqual("live", self.go_on(post)["there"])

    def test_what_is_scheduled_is_there_when_the_time_comes(self) -> None:
        tomorrow = timezone.now() + timedelta(days=1)
        post = self.start(shown_at=tomorrow.isoformat())
        shown = self.go_on(post, times=3)
        self.assertEqual(("waiting", "waiting"), (shown["there"], shown["job"]["state"]))
        self.assertLess(timezone.now() + timedelta(minutes=50), due(shown))
        now = timezone.now()
        Published.objects.update(shown_at=now)
        shown = self.go_on(post)
        self.assertEqual(("live", "done"), (shown["there"], shown["job"]["state"]))
        self.assertEqual(now, Published.objects.get().live_at)

    def test_what_is_refused_says_why_and_is_posted_once_mended(self) -> None:
        post = self.start(caption="Free umbrellas here")
        shown = self.go_on(post)
        self.assertEqual(("failed", "refused"), (shown["job"]["state"], shown["there"]))
        self.assertEqual(["“free umbrellas” is not said here."], shown["reasons"])
        self.assertIn("umbrellas", shown["job"]["problem"]["message"])
        self.assertEqual(200, self.call("put", f"/posts/{post.id}", WORDS).status_code)
        self.call("post", f"/jobs/{shown['job']['id']}/again")
        self.assertEqual("live", self.go_on(post)["there"])
        states = sorted(Published.objects.values_list("state", flat=True))
        self.assertEqual(["live", "refused"], states)

    def test_taken_down_and_off_the_list(self) -> None:
        post = self.start()
        self.go_on(post)
        self.assertEqual(422, self.call("delete", f"/posts/{post.id}").status_code)
        self.assertEqual(422, self.call("put", f"/posts/{post.id}", WORDS).status_code)
        self.assertEqual(200, self.call("post", f"/posts/{post.id}/down").status_code)
        self.assertEqual("gone", self.go_on(post)["there"])
        self.assertEqual(0, Published.objects.count())
        self.assertEqual(204, self.call("delete", f"/posts/{post.id}").status_code)

    def test_a_post_taken_down_at_the_feed_is_known_to_be_gone(self) -> None:
        post = self.start()
        self.go_on(post)
        Published.objects.get().delete()
        self.assertEqual("gone", self.call("post", f"/posts/{post.id}/look").json()["there"])

    def test_words_that_no_post_can_have(self) -> None:
        far = (timezone.now() + timedelta(days=400)).isoformat()
        for wrong in (
            {"title": ""},
            {"title": "x" * 81},
            {"tags": ["two words"]},
            {"tags": ["a"] * 9},
            {"shown_at": far},
            {"shown_at": "2030-01-01T00:00:00"},
        ):
            with self.subTest(wrong):
                answer = self.call("post", f"/exports/{self.film.id}/posts", WORDS | wrong)
                self.assertEqual(422, answer.status_code)


class BadLineTest(Posting):
    def test_through_every_fault_it_is_posted_once_and_whole(self) -> None:
        for name in FAULTS:
            with self.subTest(name):
                Member.objects.update(line={name: 2}, calls=0)
                self.assertEqual("live", self.go_on(self.start())["there"])
                published = Published.objects.get()
                self.assertEqual(self.film.path.read_bytes(), published.upload.film.read_bytes())
                published.delete()

    def test_through_all_of_them_at_once(self) -> None:
        Member.objects.update(line=dict(zip(FAULTS, (3, 4, 5, 7, 11, 13), strict=True)))
        self.assertEqual("live", self.go_on(self.start(), times=200)["there"])
        self.assertEqual(1, Published.objects.count())

    def test_a_worker_killed_at_any_call_leaves_the_next_one_to_go_on(self) -> None:
        announcing, publishing = 1, PARTS + 2
        calls = (announcing, 2, 4, publishing, publishing + 1)
        for at, answered in itertools.product(calls, (False, True)):
            with self.subTest(call=at, answered=answered):
                asked: Counter[str] = Counter()
                post = self.start()
                with self._killed(at, answered, asked), self.assertRaises(Killed):
                    self.go_on(post)
                Job.objects.update(heartbeat=timezone.now() - 2 * queue.SILENT)
                queue.tend()
                with self._killed(99, False, asked):
                    self.assertEqual("live", self.go_on(post)["there"])
                self.assertEqual(1, Published.objects.count())
                again = [path for path, times in asked.items() if "/parts/" in path and times > 1]
                self.assertLessEqual(len(again), 1, "only what was under way is sent again")
                Published.objects.get().delete()

    def _killed(self, at: int, answered: bool, asked: Counter[str]) -> Any:
        """In place of asking: the worker dies at a call, before or after it was answered."""
        ask, calls = client.FeedClient._ask, itertools.count(1)

        def asking(self: client.FeedClient, method: str, path: str, *more: Any) -> Any:
            dies = next(calls) == at
            if dies and not answered:
                raise Killed
            asked[path] += 1
            told = ask(self, method, path, *more)
            if dies:
                raise Killed
            return told

        return patch.object(client.FeedClient, "_ask", asking)

    def test_pauses_grow_and_what_the_feed_asks_for_is_kept(self) -> None:
        post = self.start()
        with override_settings(FEED_ADDRESS="http://127.0.0.1:9/practice/"):
            pauses = list(itertools.islice(self._pauses(post), 11))
        for wanted, pause in zip([1, 2, 4, 8, 16, 32, 64, 128, 256, 300, 300], pauses, strict=True):
            self.assertAlmostEqual(wanted, pause, delta=1)
        self.assertEqual("The practice feed cannot be reached.", self.shown()[0]["trouble"])
        Post.objects.update(tries=0)
        Member.objects.update(line={"busy": 1})
        with patch("practice.faults.BUSY", 77):
            self.assertAlmostEqual(77, next(self._pauses(post)), delta=1)
        Member.objects.update(line={})
        shown = self.go_on(post)
        self.assertEqual(("live", ""), (shown["there"], shown["trouble"]))

    def _pauses(self, post: Post) -> Iterator[float]:
        while True:
            Job.objects.filter(pk=post.job_id).update(due_at=None)
            work_off()
            yield (due(self.shown()[0]) - timezone.now()).total_seconds()

    def test_giving_up_at_last_says_so_and_can_be_gone_on_with(self) -> None:
        post = self.start()
        Post.objects.update(tries=work.MOST_TRIES)
        with override_settings(FEED_ADDRESS="http://127.0.0.1:9/practice/"):
            shown = self.go_on(post)
        self.assertEqual(("failed", "service_away"), self._end(shown))
        self.call("post", f"/jobs/{shown['job']['id']}/again")
        self.assertEqual("live", self.go_on(post)["there"])

    def _end(self, shown: dict[str, Any]) -> tuple[str, str]:
        return shown["job"]["state"], shown["job"]["problem"]["code"]

    def test_a_file_that_arrives_damaged_is_sent_again(self) -> None:
        post = self.start()
        Member.objects.update(line={"cut": 5})
        Job.objects.update(due_at=None)
        work_off()
        upload = self.member.uploads.get()
        upload.part(0).write_bytes(b"\0" * PART_BYTES)
        Member.objects.update(line={})
        self.assertEqual("live", self.go_on(post)["there"])
        self.assertEqual(self.film.path.read_bytes(), upload.film.read_bytes())

    def test_cancelled_before_the_feed_knows_of_it_nothing_is_there(self) -> None:
        post = self.start()
        self.call("post", f"/jobs/{post.job_id}/cancel")
        shown = self.go_on(post)
        self.assertEqual(("", "cancelled"), (shown["there"], shown["job"]["state"]))
        self.assertEqual(0, Published.objects.count())

    def test_cancelled_when_it_may_be_there_it_is_taken_down(self) -> None:
        tomorrow = timezone.now() + timedelta(days=1)
        post = self.start(shown_at=tomorrow.isoformat())
        self.go_on(post, times=2)
        self.assertEqual(1, Published.objects.count())
        Member.objects.update(line={"lost": 2})
        post.refresh_from_db()
        self.call("post", f"/jobs/{post.job_id}/cancel")
        shown = self.go_on(post)
        self.assertEqual(("gone", "done"), (shown["there"], shown["job"]["state"]))
        self.assertEqual(0, Published.objects.count())


class KeyTest(Posting):
    def test_the_key_is_kept_sealed_and_of_no_use_elsewhere(self) -> None:
        connection = Connection.objects.get()
        with patch.object(client.FeedClient, "__init__", autospec=True, return_value=None) as made:
            work.client_of(self.pip)
        key = made.call_args.args[1]
        self.assertEqual("pip", client.FeedClient(key).who())
        self.assertNotIn(key, connection.sealed)
        self.start()
        with override_settings(SECRET_KEY="another"):
            work_off()
        [shown] = self.shown()
        self.assertEqual("failed", shown["job"]["state"])
        self.assertIn("not connected", shown["job"]["problem"]["message"])

    def test_connecting_by_a_key_or_a_name(self) -> None:
        _, key = Member.welcome("wren")
        for body, status in (
            ({"key": key}, 200),
            ({"key": "of nobody"}, 422),
            ({}, 422),
            ({"key": key, "name": "both"}, 422),
        ):
            with self.subTest(body):
                answer = self.call("post", "/feed", body, client=self.other)
                self.assertEqual(status, answer.status_code)
        self.assertEqual("wren", self.call("get", "/feed", client=self.other).json()["name"])
        self.assertEqual(204, self.call("delete", "/feed", client=self.other).status_code)
        self.assertIsNone(self.call("get", "/feed", client=self.other).json()["name"])

    def test_posts_are_nobody_elses(self) -> None:
        post = self.start()
        for method, path in (
            ("post", f"/posts/{post.id}/look"),
            ("post", f"/posts/{post.id}/down"),
            ("delete", f"/posts/{post.id}"),
        ):
            with self.subTest(path):
                self.assertEqual(404, self.call(method, path, client=self.other).status_code)

    def test_the_way_in_shows_what_is_posted_and_to_nobody_else(self) -> None:
        shown = self.go_on(self.start())
        address = self.call("post", "/feed/visit").json()["address"]
        published = Published.objects.get()
        page = self.mine.get(address, follow=True)
        self.assertContains(page, "Four folds up")
        film = f"/practice/posts/{published.name}/film"
        part = self.mine.get(film, headers={"Range": "bytes=10-19"})
        self.assertEqual(
            (206, self.film.path.read_bytes()[10:20]), (part.status_code, part.content)
        )
        self.assertEqual(403, self.stranger.get(film).status_code)
        self.assertEqual(403, self.stranger.get("/practice/").status_code)
        counts = self.mine.get("/practice/counts").json()
        self.assertEqual([str(published.name)], list(counts))
        self.assertIn(str(published.name), shown["address"])
        line = dict.fromkeys(FAULTS, "4") | {"cut": "3"}
        self.mine.post("/practice/line", line)
        self.member.refresh_from_db()
        self.assertEqual(dict.fromkeys(FAULTS, 4) | {"cut": 0}, self.member.line | {"cut": 0})


def due(shown: dict[str, Any]) -> datetime:
    return datetime.fromisoformat(shown["job"]["due_at"])
