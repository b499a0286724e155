"""Accessibility of a page as axe-core finds it (WCAG 2.2 AA)."""

from __future__ import annotations

from functools import cache
from pathlib import Path

from browser_tests.browser import Browser

AXE = Path(__file__).resolve().parent.parent / "web" / "node_modules" / "axe-core" / "axe.min.js"

_RUN = """
const done = arguments[arguments.length - 1];
axe.run(document, {
  runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
  resultTypes: ['violations'],
}).then((found) => done(found.violations
  .filter((one) => ['serious', 'critical'].includes(one.impact))
  .flatMap((one) => one.nodes.map((node) =>
    one.id + ': ' + node.target.join(' ') + ' | ' + node.html.slice(0, 120) + ' | ' + (node.any[0]?.message ?? '').slice(0, 160)))));
"""


@cache
def _source() -> str:
    return AXE.read_text()


def faults(browser: Browser) -> list[str]:
    """What is serious or critical, one line each."""
    if not browser.run("return Boolean(window.axe)"):
        browser.run(_source())
    found: list[str] = browser.driver.execute_async_script(_RUN)
    return found
