"""Values over time."""

from kitecore.motion.value import value_at

__all__ = ["value_at"]
