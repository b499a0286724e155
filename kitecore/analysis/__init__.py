"""What is found out about takes. To add an analysis: a module here."""

from __future__ import annotations

from kitecore.analysis._base import (
    Analysis,
    NoParameters,
    analyse,
    analyses,
    place_of,
    result_of,
    standing_for,
)

__all__ = [
    "Analysis",
    "NoParameters",
    "analyse",
    "analyses",
    "place_of",
    "result_of",
    "standing_for",
]
