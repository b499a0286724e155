"""How errors look in answers."""

from __future__ import annotations

from ninja import Schema

from kitecore.errors import KiteError


class Problem(Schema):
    """What happened, what is safe, what to do; ``code`` is for programs."""

    code: str
    message: str
    safe: str
    todo: str

    @classmethod
    def of(cls, error: KiteError) -> Problem:
        return cls(code=error.code, message=error.message, safe=error.safe, todo=error.todo)


class Stale(KiteError):
    """The step was based on a revision that is not the newest."""

    code = "stale"
    default_safe = "Nothing is lost: your step can be done again on the newest version."
