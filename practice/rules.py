"""What the practice feed takes. A rule answers why it refuses a post, or nothing."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Final

from practice.looking import Facts
from practice.models import Post

MOST_BYTES: Final = 200_000_000
SHORTEST, LONGEST = 2.0, 180.0
LEAST_SIDE: Final = 480
QUIETEST, LOUDEST = -30.0, -9.0
MOST_TITLE, MOST_CAPTION, MOST_TAGS = 80, 600, 8
UNWANTED: Final = ("free umbrellas", "guaranteed sunshine", "umbrella sale")
"""Words of those who only want to sell."""

Rule = Callable[[Post, Facts], str | None]


def _readable(post: Post, facts: Facts) -> str | None:
    return None if facts.codec in ("h264", "vp9", "av1", "hevc") else "The file is no film we play."


def _length(post: Post, facts: Facts) -> str | None:
    if facts.seconds < SHORTEST:
        return f"It lasts {facts.seconds:.1f} s; at least {SHORTEST:g} s are needed."
    if facts.seconds > LONGEST + 0.5:
        return f"It lasts {facts.seconds:.0f} s; at most {LONGEST:g} s are taken."
    return None


def _shape(post: Post, facts: Facts) -> str | None:
    return "It is wide; this feed stands upright." if facts.width > facts.height else None


def _size(post: Post, facts: Facts) -> str | None:
    side = min(facts.width, facts.height)
    return f"It is {side} pixels narrow; {LEAST_SIDE} are needed." if side < LEAST_SIDE else None


def _loudness(post: Post, facts: Facts) -> str | None:
    if facts.loudness is None or QUIETEST <= facts.loudness <= LOUDEST:
        return None
    how = "loud" if facts.loudness > LOUDEST else "quiet"
    return f"It is too {how}: {facts.loudness:.0f} LUFS, taken are {QUIETEST:g} to {LOUDEST:g}."


def _words(post: Post, facts: Facts) -> str | None:
    said = re.sub(r"\s+", " ", f"{post.title} {post.caption} {' '.join(post.tags)}".lower())
    found = next((one for one in UNWANTED if one in said), None)
    return f"“{found}” is not said here." if found else None


RULES: Final[tuple[Rule, ...]] = (_readable, _length, _shape, _size, _loudness, _words)


def reasons_against(post: Post, facts: Facts) -> list[str]:
    if not facts.codec:
        return ["The file is no film we play."]
    return [reason for rule in RULES if (reason := rule(post, facts))]
