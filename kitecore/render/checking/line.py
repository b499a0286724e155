"""What a check says."""

from kitecore.document import Model
from kitecore.render.checking._base import Finding


class Line(Model):
    """A check, what it says if all is well, and what it found, the worst first."""

    check: str
    label: str
    findings: tuple[Finding, ...]
