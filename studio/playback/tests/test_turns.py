"""Whose picture is drawn next."""

from __future__ import annotations

from unittest import TestCase

from kitecore.errors import Superseded, TookTooLong
from kitecore.render.questions import Request
from studio.playback.turns import MOST_WAITING, Job, Turns


def job(person: int, frame: int = 0, lane: str = "", turn: int = 0) -> Job:
    return Job(Request("still", "d", frame), lambda: "", person, lane, turn)


class TurnsTest(TestCase):
    def setUp(self) -> None:
        self.turns = Turns()

    def put(self, *jobs: Job) -> list[Job]:
        for one in jobs:
            self.turns.put(one)
        return list(jobs)

    def take(self, count: int) -> list[Job]:
        return [self.turns.take() for _ in range(count)]

    def test_one_persons_many_do_not_hold_up_anothers_few(self) -> None:
        mine = self.put(*(job(1, frame) for frame in range(5)))
        theirs = self.put(job(2, 0), job(2, 1))
        taken = self.take(7)
        self.assertEqual([mine[0], theirs[0], mine[1], theirs[1], *mine[2:]], taken)

    def test_what_is_superseded_is_told_so_and_takes_no_turn(self) -> None:
        old, new = self.put(job(1, lane="scrub", turn=1), job(1, lane="scrub", turn=2))
        self.assertEqual([new], self.take(1))
        self.assertIsInstance(old.future.exception(1), Superseded)

    def test_late_ones_of_a_lane_are_not_drawn_either(self) -> None:
        new, old, other = self.put(
            job(1, lane="a", turn=9), job(1, lane="a", turn=3), job(1, lane="b", turn=1)
        )
        self.assertEqual([new, other], self.take(2))
        self.assertIsInstance(old.future.exception(1), Superseded)

    def test_nobody_supersedes_what_is_anothers(self) -> None:
        mine, theirs = self.put(job(1, lane="same", turn=1), job(2, lane="same", turn=99))
        self.assertEqual([mine, theirs], self.take(2))

    def test_of_one_person_only_so_many_wait(self) -> None:
        self.put(*(job(1) for _ in range(MOST_WAITING)))
        with self.assertRaises(TookTooLong):
            self.turns.put(job(1))
        self.put(job(2))

    def test_what_was_given_up_is_left_out(self) -> None:
        first, second = self.put(job(1), job(1))
        first.future.cancel()
        self.assertEqual([second], self.take(1))
