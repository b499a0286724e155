"""What is to be seen to before a film goes out. To add a check: a module here."""

from kitecore.registry import import_all
from kitecore.render.checking._base import Check, Film, Finding, checks
from kitecore.render.checking.line import Line
from kitecore.render.checking.weight import weighed

import_all(__name__)

__all__ = ["Check", "Film", "Finding", "Line", "checks", "lines_of", "weighed", "worst_first"]

_ORDER = {"bad": 0, "doubt": 1}
MOST_FINDINGS = 50
"""Of one check."""


def lines_of(film: Film) -> list[Line]:
    """All checks that say something about a kind of file, those with findings first."""
    found = []
    for name, check in checks.items():
        if (check.of == "picture" and film.kind == "sound") or (
            check.of == "sound" and film.kind not in ("film", "sound")
        ):
            continue
        findings = [one for one in check.run(film) if _concerns(one, film)]
        findings.sort(key=lambda one: (_ORDER[one.grade], one.at or 0))
        line = Line(check=name, label=check.label, findings=tuple(findings[:MOST_FINDINGS]))
        found.append(line)
    return worst_first(found)


def worst_first(lines: list[Line]) -> list[Line]:
    return sorted(lines, key=_worst)


def _concerns(finding: Finding, film: Film) -> bool:
    """Whether it lies in the part of the timeline that goes into the file."""
    if finding.at is None:
        return True
    rate, numbers = film.work.rate, film.work.numbers
    begin, end = rate.start_of(numbers.start), rate.start_of(numbers.stop)
    return finding.at < end and (finding.until is None or finding.until > begin)


def _worst(line: Line) -> int:
    return min((_ORDER[one.grade] for one in line.findings), default=len(_ORDER))
