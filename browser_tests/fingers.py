"""Touches of a real browser, for tests."""

from __future__ import annotations

from browser_tests.browser import Browser

Point = tuple[float, float]


class Fingers:
    """Touches of a real browser, by its own protocol."""

    def __init__(self, browser: Browser) -> None:
        self.browser = browser

    def _send(self, kind: str, points: list[Point]) -> None:
        touches = [{"x": x, "y": y, "id": n} for n, (x, y) in enumerate(points)]
        self.browser.driver.execute_cdp_cmd(
            "Input.dispatchTouchEvent", {"type": kind, "touchPoints": touches}
        )

    def tap(self, at: Point) -> None:
        self._send("touchStart", [at])
        self._send("touchEnd", [])

    def drag(self, *paths: tuple[Point, Point], hold: bool = False) -> None:
        """Move one finger for each path from its first point to its second."""
        self._send("touchStart", [start for start, _ in paths])
        if hold:
            self.browser.find(".clip.lifted")
        for step in range(1, 9):
            self._send(
                "touchMove",
                [
                    (a[0] + (b[0] - a[0]) * step / 8, a[1] + (b[1] - a[1]) * step / 8)
                    for a, b in paths
                ],
            )
        self._send("touchEnd", [])

    def trace(self, *spots: Point) -> None:
        """One finger from each of the spots to the next."""
        self._send("touchStart", [spots[0]])
        for spot in spots[1:]:
            self._send("touchMove", [spot])
        self._send("touchEnd", [])

    def middle(self, selector: str) -> Point:
        box: dict[str, float] = self.browser.run(
            "return document.querySelector(arguments[0]).getBoundingClientRect().toJSON()", selector
        )
        return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
