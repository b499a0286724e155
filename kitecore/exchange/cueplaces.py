"""Where captions lie in the height of the picture (WebVTT, 6.3.2: the line setting), read and written."""

from __future__ import annotations

import re
from typing import Final

_TIMING: Final = re.compile(
    r"^([^\n]*-->[^\n]*?\bline:(-?\d+(?:\.\d+)?)(%?)[^\n]*)\n", re.MULTILINE
)
_OPEN, _CLOSE = "\ue002", "\ue003"
_MARK: Final = re.compile(f"{_OPEN}(\\d+){_CLOSE}\n?")
_AFTER_TIMING: Final = re.compile(f"(-->[^\\n]*)\n{_OPEN}(\\d+){_CLOSE}")
_TAG: Final = re.compile(r"\{\\an([1-9])\}")
_LINE: Final = 0.06
"""Of the picture's height: a line of text, as players count them from its top or its foot."""
_HALF: Final = _LINE / 2
_EDGE: Final = 0.06
"""Nothing lies nearer to the edges."""


def marked(text: str) -> str:
    """A file's text in which places of captions are marks at their beginning."""

    def mark(found: re.Match[str]) -> str:
        at, share = float(found.group(2)), found.group(3) == "%"
        top = at / 100 if share else at * _LINE if at >= 0 else 1 + at * _LINE
        return f"{found.group(1)}\n{_told(top + _HALF)}"

    return _TIMING.sub(mark, text)


def parted(text: str, tags: str) -> tuple[str, float | None]:
    """A caption without its mark, and where its middle lies, 0 at the top of the picture to 1.

    ``tags``: the same with what SubRip's files say of places in the manner of other formats.
    """
    bare = _MARK.sub("", text)
    if found := _MARK.search(text):
        return bare, _bounded(int(found.group(1)) / 1000)
    row = _TAG.search(tags)
    # Keys of a block of numbers: 1 to 3 is the foot, where captions lie anyhow.
    heights = {"7": _EDGE + _HALF, "4": 0.5}
    return bare, heights.get(str((int(row.group(1)) - 1) // 3 * 3 + 1)) if row else None


def before(text: str, height: float) -> str:
    """A caption with a mark of its place, for `written`."""
    return _told(height) + text


def written(file: str) -> str:
    """A file's text with settings in place of marks."""

    def setting(found: re.Match[str]) -> str:
        top = max(int(found.group(2)) / 1000 - _HALF, 0)
        return f"{found.group(1)} line:{top * 100:.1f}%\n"

    return _AFTER_TIMING.sub(setting, file)


def _told(height: float) -> str:
    return f"{_OPEN}{round(_bounded(height) * 1000)}{_CLOSE}"


def _bounded(height: float) -> float:
    return min(max(height, _EDGE), 1 - _EDGE)
