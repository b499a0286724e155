"""A mix as a person makes it: strips, a chain, music that steps back, the loudness of a place."""

from __future__ import annotations

from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

import av
import numpy as np
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys as Keyboard

from browser_tests.fingers import Fingers
from browser_tests.one_project import OneProjectTest
from demo.sounds import speak
from kitecore.document.inserts.equaliser import Equaliser
from kitecore.media.tests.material import make_wav, tone
from kitecore.sound import loudness
from kitecore.sound.ramps import RATE
from studio.library.arrival import new_take
from studio.library.models import Take
from studio.library.work import take_in
from studio.tests.site import SECOND


def _clicks() -> np.ndarray:
    """Quiet ones at 120 a minute, from a quarter of a second on."""
    rng = np.random.default_rng(1)
    sound = rng.normal(0, 0.0005, 6 * RATE)
    for at in range(12):
        begin = round((0.25 + at * 0.5) * RATE)
        fall = np.exp(-np.arange(2000) / 300)
        sound[begin : begin + 2000] += rng.normal(0, 0.01, 2000) * fall
    return sound


class MixingTest(OneProjectTest):
    def setUp(self) -> None:
        super().setUp()
        self.begin("Wind report", (180, 320))
        folder = Path(self.enterContext(TemporaryDirectory()))
        speak(folder / "line.wav")
        make_wav(folder / "music.wav", 0.5 * tone(6.0, frequency=330))
        self.step(kind="place", clip={"kind": "solid", "name": "dusk", "length": 6 * SECOND})
        make_wav(folder / "beat.wav", _clicks())
        for name, track in (("music", "music"), ("line", "voice"), ("beat", "beat")):
            self.step(kind="add_track", track="sound", seed=track)
            self.step(kind="set_track", track=track, name=name)
            self.lay(folder / f"{name}.wav", track)
        self.browser.open(f"/projects/{self.project.id}/mix")
        self.browser.find(".clip")
        self.browser.drawn(0)

    def lay(self, path: Path, track: str) -> None:
        take = new_take(self.project, path.name, path, 0)
        take_in(take)
        self.browser.wait(lambda: self._ready(take), what=f"{path.name} is not ready")
        length = take.facts["length"]
        clip = {"kind": "sound", "name": path.stem, "media": take.id.hex, "source_length": length}
        frames = min(length, 6 * SECOND) // (SECOND // 30)
        clip["length"] = frames * (SECOND // 30)
        self.step(kind="place", clip=clip, mode="over", at=0, track=track)

    def _ready(self, take: Take) -> bool:
        take.refresh_from_db()
        return take.state == Take.State.READY

    def part(self, strip: str, part: str) -> None:
        self.browser.find(f"[data-test=strip-{strip}] [data-test=strip-name]").click()
        self.browser.press(f"mix-part-{part}")

    def test_a_mix_from_strips_to_loudness(self) -> None:
        page = self.browser
        # A fader by the mouse, then by keys; undone as one step each.
        fader = page.find("[data-test=strip-music] [data-test=fader]")
        ActionChains(page.driver).drag_and_drop_by_offset(fader, 0, 40).perform()
        self.until(lambda: self.strip("music").gain < -3, "the fader is not down")
        low = self.strip("music").gain
        fader.send_keys(Keyboard.ARROW_UP)
        self.until(lambda: self.strip("music").gain == round(low + 0.5, 1), "no key moved it")
        page.run("document.activeElement.blur()")

        # An equaliser whose point is dragged on its curve.
        self.part("voice", "chain")
        page.press("add-insert")
        page.press("insert-equaliser")
        point = page.test("band-bell")
        self.until(lambda: len(self.strip("voice").chain) == 1, "no insert came")
        ActionChains(page.driver).drag_and_drop_by_offset(point, 30, -30).perform()
        self.until(lambda: self.bell().gain > 2, "the band is as it was")
        self.assertGreater(self.bell().frequency, 1000)

        # Music steps back under the voice that is found.
        self.part("music", "under")
        page.press("under-line")
        self.until(lambda: "speaks" in page.test("spoken").text, "nobody was heard speaking")
        self.assertEqual(("voice",), self.strip("music").under.tracks)

        # Levels move while it plays, and the music is quieter then than the voice's end.
        page.press("play")
        self.until(lambda: self.meter("film") > -30, "no level while it plays")
        page.press("play")

        # For a phone: what is promised is so in the samples.
        self.part("film", "loudness")
        page.press("purpose-phone")
        page.find("[data-test=make-it-so]:not([disabled])").click()
        self.until(lambda: self.document().strip.gain != 0, "the film is as loud as it was")
        self.assertEqual(-1, self.document().strip.ceiling)
        self.assert_clean_console()
        self.until(lambda: "LUFS" in page.find(".notes").text, "nobody says what was done")
        whole, seconds = self.loudness_of(self.exported())
        self.assertAlmostEqual(-14, whole, delta=0.5)
        self.assertAlmostEqual(6, seconds, delta=0.1)

    def test_fades_and_gain_on_the_clip_by_a_finger(self) -> None:
        page = self.browser
        page.resize((1280, 800), touch=True)
        page.find('.clip[aria-label^="music"] .face').click()
        corner = page.test("fade-in")
        x, y = Fingers(page).middle("[data-test=fade-in]")
        Fingers(page).drag(((x, y), (x + 60, y)))
        self.until(lambda: self.music().fade_in > 0, "there is no fade")
        self.assertEqual(0, self.music().fade_in % (SECOND // 30))
        box = page.find("[data-test=sound-line]").rect
        level = page.run(
            "const [, at] = document.querySelector('[data-test=sound-line] .line')"
            ".getAttribute('points').split(' ')[0].split(','); return Number(at)"
        )
        middle = (box["x"] + box["width"] / 2, box["y"] + level)
        Fingers(page).drag((middle, (middle[0], middle[1] + 8)))
        self.until(lambda: self.music().gain < 0, "the line is where it was")
        self.assertTrue(corner)

    def test_waves_are_seen_in_decibels_and_to_single_samples(self) -> None:
        self.take("line")
        plain = self.painted("line")
        self.browser.find("[data-test=waves-decibels] + label").click()
        self.until(lambda: self.painted("line") > 1.5 * plain, "decibels are not taller")
        for _ in range(26):
            self.browser.find("[aria-label='Zoom in']").click()
        asked = (
            "return performance.getEntriesByType('resource').some(e => e.name.endsWith('each=1'))"
        )
        self.until(lambda: self.browser.run(asked), "single samples are not asked for")

    def test_a_compressor_shows_by_how_much_it_turns_down(self) -> None:
        page = self.browser
        self.part("music", "chain")
        page.press("add-insert")
        page.press("insert-compressor")
        self.until(lambda: self.reduction() > 3, "nothing is turned down")
        field = page.find('input[aria-label="Threshold, exact"]')
        field.click()
        field.send_keys(Keyboard.CONTROL + "a" + Keyboard.NULL, "0", Keyboard.ENTER)
        self.until(lambda: self.strip("music").chain[0].threshold == 0, "it is as it was")
        self.until(lambda: self.reduction() < 0.5, "it is turned down still")

    def reduction(self) -> float:
        return float(self.browser.test("reduction").get_attribute("aria-valuenow"))

    def painted(self, name: str) -> int:
        """Pixels of a clip's face that something was drawn on."""
        count = """
        const face = document.querySelector(`.clip[aria-label^="${arguments[0]}"] canvas`)
        const { data } = face.getContext('2d').getImageData(0, 0, face.width, face.height)
        return data.filter((_, at) => at % 4 === 3).filter((alpha) => alpha > 60).length
        """
        return int(self.browser.driver.execute_script(count, name))

    def test_beats_are_marked_on_the_clip_and_counted_at_half(self) -> None:
        page = self.browser
        page.find('.clip[aria-label^="beat"] .face').click()
        page.press("mix-part-beats")
        page.press("find-beats")
        self.until(lambda: "120" in page.test("tempo").text, "no tempo is told")
        self.until(lambda: self.document().find_track("beat").clips[0].markers, "no marks")
        marked = self.document().find_track("beat").clips[0].markers
        self.assertEqual({"beat", "bar"}, {marker.beat for marker in marked})
        seconds = [marker.at / SECOND for marker in marked]
        self.assertLess(max(abs(a % 0.5 - 0.25) for a in seconds), 0.03)
        page.run(
            "[...document.querySelectorAll('.choices button')]"
            ".find((one) => one.textContent.trim() === 'Half').click()"
        )
        many = len(marked) // 2 + 1
        self.until(
            lambda: len(self.document().find_track("beat").clips[0].markers) <= many,
            "as many beats as before",
        )
        page.run(
            "[...document.querySelectorAll('.choices button')]"
            ".find((one) => one.textContent.trim() === 'Beginnings').click()"
        )
        marks = lambda: self.document().find_track("beat").clips[0].markers  # noqa: E731
        self.until(lambda: {one.beat for one in marks()} == {"beat"}, "bars are left")
        self.until(lambda: "beginnings" in page.test("tempo").text, "it is not told")
        # In their own row a tap goes to the nearest of them.
        [music] = self.document().find_track("beat").clips
        frames = {round(30 * (music.start + one.at) / SECOND) for one in music.markers}
        page.press("beat-row")
        self.until(lambda: page.frame() in frames - {0}, "no beat was gone to")
        page.press("beats-away")
        self.until(
            lambda: not self.document().find_track("beat").clips[0].markers, "marks are left"
        )
        self.until(lambda: not page.all("[data-test=beat-row]"), "their row is left")

    def strip(self, track: str) -> Any:
        return self.document().find_track(track).strip

    def bell(self) -> Any:
        [equaliser] = self.strip("voice").chain
        assert isinstance(equaliser, Equaliser)
        return equaliser.bell

    def music(self) -> Any:
        return self.document().find_track("music").clips[0]

    def meter(self, strip: str) -> float:
        meter = self.browser.find(f"[data-test=strip-{strip}] [data-test=meter]")
        return float(meter.get_attribute("aria-valuenow") or -60)

    def loudness_of(self, path: Path) -> tuple[float, float]:
        """Of a film's sound, in LUFS, and its seconds."""
        with av.open(str(path)) as film:
            parts = [frame.to_ndarray().T for frame in film.decode(audio=0)]
        samples = np.concatenate(parts).astype(np.float32)
        padded = np.pad(samples, ((loudness.LEAD, -len(samples) % loudness.PART), (0, 0)))
        return loudness.whole(loudness.powers(padded)), len(samples) / RATE
