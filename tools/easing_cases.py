"""Writes the easings' values that the page's own easings are tested against."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from pydantic import TypeAdapter

from kitecore.document.ease import Ease
from kitecore.motion.easing import eased

FILE = Path(__file__).parents[1] / "web/src/motion/easing.cases.json"
EASES: list[dict[str, Any]] = [
    {"kind": "hold"},
    {"kind": "steady"},
    {"kind": "bezier", "x1": 0.42, "y1": 0, "x2": 0.58, "y2": 1},
    {"kind": "bezier", "x1": 0.3, "y1": 1.5, "x2": 0.6, "y2": 1},
    {"kind": "steps", "count": 4},
    {"kind": "steps", "count": 3, "backwards": True},
    {"kind": "bounce", "count": 3, "kept": 0.3},
    {"kind": "bounce", "count": 2, "kept": 0.5, "backwards": True},
    {"kind": "spring", "stiffness": 320, "damping": 16},
    {"kind": "spring", "stiffness": 100, "damping": 20},
    {"kind": "spring", "stiffness": 60, "damping": 40, "backwards": True},
]
SHARES = (0.0, 0.07, 0.21, 0.37, 0.52, 0.68, 0.83, 0.96, 1.0)


def main() -> None:
    adapter: TypeAdapter[Any] = TypeAdapter(Ease)
    cases = [
        {
            "ease": plain,
            "at": [[share, eased(adapter.validate_python(plain), share)] for share in SHARES],
        }
        for plain in EASES
    ]
    FILE.write_text(json.dumps(cases, indent=1) + "\n")


if __name__ == "__main__":
    main()
