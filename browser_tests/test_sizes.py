"""Pages with a bench beside the picture: every size keeps names, sliders and controls whole."""

from __future__ import annotations

from browser_tests.boxes import unreachable
from browser_tests.test_phone import PhoneCase
from kitecore.document import Canvas

SIZES = ((1280, 800), (1024, 768), (1366, 768), (1920, 1080), (768, 1024))
STAGES = ("cut", "grade", "layer", "move")

_CRAMPED = """
const found = [];
for (const e of document.querySelectorAll('.bench .slider')) {
  const width = e.getBoundingClientRect().width;
  if (width && width < 80) found.push(`${e.getAttribute('aria-label')} is ${width} wide`);
}
for (const e of document.querySelectorAll('.bench .field .name, .bench .layer .name')) {
  if (e.scrollWidth > e.clientWidth + 1) found.push(`${e.textContent.trim()} is cut off`);
}
return found;
"""


class UprightTest(PhoneCase):
    size = (1280, 800)
    touch = False

    def test_every_part_keeps_its_room(self) -> None:
        browser = self.browser
        for track, kind in ((0, "video"), (2, "shape")):
            browser.find(f'[data-clip="{self.clips(track)[0].id}"] .face').click()
            for size in SIZES if track == 0 else SIZES[:1]:
                browser.resize(size)
                for stage in STAGES:
                    with self.subTest(kind=kind, size=size, stage=stage):
                        browser.press(f"stage-{stage}")
                        self._every_part()
        self.assert_clean_console()

    def _every_part(self) -> None:
        browser = self.browser
        chips = ".right > .tools:first-child button"
        browser.find(chips)
        for part in range(len(browser.all(chips))):
            browser.run("arguments[0].click()", browser.all(chips)[part])
            name = browser.all(chips)[part].text
            self.assertEqual([], unreachable(browser), name)
            self.assertEqual([], browser.run(_CRAMPED), name)


class WideTest(UprightTest):
    canvas = Canvas(width=1920, height=1080)
