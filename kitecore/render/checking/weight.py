"""Whether a destination takes a file of this weight: told by trials, which end when they end."""

from kitecore.render.checking._base import Finding
from kitecore.render.checking.line import Line
from kitecore.render.destinations import Destination

_MB = 1_000_000


def weighed(destination: Destination, bytes: int) -> Line | None:
    """What is said of a file that is likely to weigh so much; None if the place takes any."""
    most = destination.most_bytes
    if not most:
        return None
    findings: tuple[Finding, ...] = ()
    if bytes > most:
        found = Finding(
            check="size",
            grade="bad",
            message=f"The file will weigh about {bytes / _MB:.0f} MB: "
            f"{destination.title} takes {most / _MB:.0f} MB.",
        )
        findings = (found,)
    return Line(check="size", label="The size suits the place", findings=findings)
