"""Easings against the browser's own (Web Animations)."""

from __future__ import annotations

from typing import Any

from pydantic import TypeAdapter

from browser_tests.site import SiteTest
from kitecore.document.ease import Ease
from kitecore.motion.easing import eased

PROGRESS = """
const [easing, shares] = arguments;
const way = document.body.animate([{ opacity: 0 }, { opacity: 1 }], { duration: 1000, easing });
way.pause();
const found = shares.map((share) => {
  way.currentTime = share * 1000;
  return way.effect.getComputedTiming().progress;
});
way.cancel();
return found;
"""
CURVES = (
    (0.25, 0.1, 0.25, 1.0),
    (0.42, 0.0, 1.0, 1.0),
    (0.42, 0.0, 0.58, 1.0),
    (0.3, 1.5, 0.6, 1.0),
    (0.5, -0.45, 0.5, 1.45),
    (0.0, 1.0, 1.0, 0.0),
    (0.9, 2.0, 0.1, -1.0),
)


class EasingTest(SiteTest):
    def assert_as_the_browser(self, css: str, ease: dict[str, Any]) -> None:
        model: Any = TypeAdapter(Ease).validate_python(ease)
        # Where steps jump, either side may hold.
        shares = [(number + 0.5) / 97 for number in range(97)]
        for share, wanted in zip(shares, self.browser.run(PROGRESS, css, shares), strict=True):
            self.assertAlmostEqual(wanted, eased(model, share), delta=1e-4, msg=f"{css} at {share}")

    def test_curves_and_steps_are_those_of_css(self) -> None:
        self.browser.open("/sign-in")
        for x1, y1, x2, y2 in CURVES:
            ease = {"kind": "bezier", "x1": x1, "y1": y1, "x2": x2, "y2": y2}
            self.assert_as_the_browser(f"cubic-bezier({x1}, {y1}, {x2}, {y2})", ease)
        for count in (1, 3, 7):
            steps: dict[str, Any] = {"kind": "steps", "count": count}
            self.assert_as_the_browser(f"steps({count}, end)", steps)
            self.assert_as_the_browser(f"steps({count}, start)", steps | {"backwards": True})
