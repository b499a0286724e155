"""Everything that can go wrong, in terms a person can act on.

KiteError
├── BadInput (ValueError)        what was handed in cannot be used
│   ├── UnknownName (KeyError)   a registry has no entry of that name
│   └── EditRefused              an edit does not fit the document
│       └── NothingChanges       what it asks for is so already
├── BrokenDocument               an edit of ours would have left a document that cannot be
├── NotThere (LookupError)       the thing asked for does not exist
├── MediaError                   a file cannot be used
│   ├── NotMedia                 it is no video, picture or sound we know
│   ├── BrokenMedia              it claims to be one, but cannot be decoded
│   └── MediaMissing             the file has gone
├── RenderFailed (RuntimeError)  drawing or encoding did not succeed
├── MachineFailed                there is no room to write, or no right to
├── TookTooLong (TimeoutError)   it was given up after a bounded time
├── ServiceAway                  another service cannot be reached, or asks to wait
└── Superseded                   nobody waits for this answer any more
"""

from __future__ import annotations

from collections.abc import Iterator


class KiteError(Exception):
    """Root of all our errors.

    Parameters
    ----------
    message
        What happened, as a plain sentence.
    safe
        What is not affected.
    todo
        What the person can do next.
    """

    code = "error"
    default_safe = "Your project is unchanged."
    default_todo = ""

    def __init__(self, message: str, *, safe: str | None = None, todo: str | None = None) -> None:
        super().__init__(message)
        self.message = message
        self.safe = self.default_safe if safe is None else safe
        self.todo = self.default_todo if todo is None else todo

    def __str__(self) -> str:
        return self.message


class BadInput(KiteError, ValueError):
    code = "bad_input"


class UnknownName(BadInput, KeyError):
    code = "unknown_name"


class EditRefused(BadInput):
    code = "edit_refused"


class NothingChanges(EditRefused):
    """What was asked for is so already."""

    code = "nothing_changes"


class TooLittleFootage(EditRefused):
    code = "too_little_footage"


class NoFootage(TooLittleFootage):
    """There is not even as much as could be shortened to."""

    code = "no_footage"


class BrokenDocument(KiteError):
    """A mistake of ours: edits refuse what does not fit before it comes to this."""

    code = "broken_document"
    default_todo = "Try it another way; if it happens again, tell whoever runs this site."


class NotThere(KiteError, LookupError):
    code = "not_there"


class MediaError(KiteError):
    code = "media"
    default_safe = "Your other takes and your project are unchanged."


class NotMedia(MediaError, ValueError):
    code = "not_media"
    default_todo = "Bring in a video, a picture or a sound file."


class BrokenMedia(MediaError, ValueError):
    code = "broken_media"
    default_todo = "Copy the file again from where it was recorded, then bring it in once more."


class MediaMissing(MediaError, LookupError):
    code = "media_missing"
    default_todo = "Bring the file in again."


class RenderFailed(KiteError, RuntimeError):
    code = "render_failed"
    default_todo = "Try again."


class MachineFailed(KiteError):
    """No room, no right to write: nothing of the person's, and nothing of the program's."""

    code = "machine_failed"


class TookTooLong(KiteError, TimeoutError):
    code = "took_too_long"
    default_todo = "Wait a moment, then try again."


class ServiceAway(KiteError):
    code = "service_away"
    default_todo = "Try again in a while."


class Superseded(KiteError):
    code = "superseded"


def kind_of(code: str) -> type[KiteError]:
    """The kind of error that another process told by its code; a failure of drawing if none is known."""
    return next((kind for kind in _kinds(KiteError) if kind.code == code), RenderFailed)


def _kinds(kind: type[KiteError]) -> Iterator[type[KiteError]]:
    """A kind and those below it, the more general first: some share a code."""
    yield kind
    for below in kind.__subclasses__():
        yield from _kinds(below)
