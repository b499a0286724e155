"""Values over time."""

from kitecore.motion.value import still_at, text_at, value_at

__all__ = ["still_at", "text_at", "value_at"]
