"""What of a page cannot be reached: controls outside the screen, cut off, or under something."""

from __future__ import annotations

from browser_tests.browser import Browser

_UNREACHABLE = """
const found = [];
const controls = arguments[0] + ' :is(button, a, input, select, textarea, [role=slider])';
const nameOf = (e) => e.getAttribute('aria-label') || e.dataset.test || e.textContent.trim() || e.getAttribute('class') || e.tagName;
for (const e of document.querySelectorAll(controls)) {
  const style = getComputedStyle(e), box = e.getBoundingClientRect();
  if (style.visibility === 'hidden' || style.pointerEvents === 'none') continue;
  if (!box.width || !box.height) continue;
  let away = false, cut = false;
  for (let p = e.parentElement; p && p !== document.body && !away && !cut; p = p.parentElement) {
    const over = getComputedStyle(p), room = p.getBoundingClientRect();
    const beside = box.left < room.left - 1 || box.right > room.right + 1;
    const beyond = box.top < room.top - 1 || box.bottom > room.bottom + 1;
    const scrolls = (way) => way === 'auto' || way === 'scroll';
    if ((beside && scrolls(over.overflowX)) || (beyond && scrolls(over.overflowY))) away = true;
    else if ((beside && over.overflowX !== 'visible') || (beyond && over.overflowY !== 'visible')) cut = true;
  }
  if (away) continue;
  const inside = box.left >= -1 && box.top >= -1 && box.right <= innerWidth + 1 && box.bottom <= innerHeight + 1;
  const over = document.elementFromPoint(box.left + box.width / 2, box.top + box.height / 2);
  if (cut) found.push(nameOf(e) + ' is cut off');
  else if (!inside) found.push(nameOf(e) + ' is outside the screen');
  else if (!over || !(e.contains(over) || [...(e.labels ?? [])].some((one) => one.contains(over)))) found.push(nameOf(e) + ' lies under ' + (over ? nameOf(over).slice(0, 40) : 'nothing'));
}
return found;
"""


def unreachable(browser: Browser, within: str = ".studio") -> list[str]:
    """Controls that a finger cannot reach; those that a row or a list scrolls to are reached."""
    found: list[str] = browser.run(_UNREACHABLE, within)
    return found


def share_of_picture(browser: Browser) -> float:
    """Share of the page's height that the picture has."""
    share: float = browser.run(
        "return document.querySelector('[data-test=still]').getBoundingClientRect().height / innerHeight"
    )
    return share


_SMALL = """
const found = [];
const controls = '.studio :is(button, a, input, select, [role=slider])';
for (const e of document.querySelectorAll(controls)) {
  const style = getComputedStyle(e), box = e.getBoundingClientRect();
  if (style.visibility === 'hidden' || style.pointerEvents === 'none' || e.closest('[data-clip], .box')) continue;
  if (!box.width || !box.height || e.disabled) continue;
  const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
  const hit = (dx, dy) => {
    const over = document.elementFromPoint(x + dx, y + dy);
    return over && (e.contains(over) || [...(e.labels ?? [])].some((one) => one.contains(over)));
  };
  if (!hit(0, 0)) continue;
  const reach = 21;
  // What a list or a row shows only in part is scrolled to first.
  let partly = false;
  for (let p = e.parentElement; p && p !== document.body; p = p.parentElement) {
    const over = getComputedStyle(p), room = p.getBoundingClientRect();
    const scrolls = (way) => way === 'auto' || way === 'scroll';
    if (scrolls(over.overflowY) && p.scrollHeight > p.clientHeight + 1) {
      partly ||= y - reach < room.top || y + reach > room.bottom;
    }
    if (scrolls(over.overflowX) && p.scrollWidth > p.clientWidth + 1) {
      partly ||= x - reach < room.left || x + reach > room.right;
    }
  }
  if (partly) continue;
  const across = x - reach < 0 || x + reach > innerWidth || (hit(-reach, 0) && hit(reach, 0)) || box.width >= 43.5;
  const down = hit(0, -reach) && hit(0, reach) || box.height >= 43.5;
  if (!across || !down) found.push(`${e.getAttribute('aria-label') || e.dataset.test || e.textContent.trim()} ${Math.round(box.width)} x ${Math.round(box.height)}`);
}
return found;
"""


def small(browser: Browser) -> list[str]:
    """Controls of which a finger of 44 pixels would not hit all; clips are as long as they last."""
    found: list[str] = browser.run(_SMALL)
    return found
