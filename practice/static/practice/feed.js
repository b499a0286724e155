/* Films play while they are in view; counts are asked for again as long as the page is looked at. */
const films = document.querySelectorAll('video')
const seen = new IntersectionObserver(
  (changes) => {
    for (const { target, isIntersecting } of changes) {
      if (isIntersecting) target.play().catch(() => {})
      else target.pause()
    }
  },
  { threshold: 0.6 },
)
films.forEach((film) => seen.observe(film))

async function count() {
  if (document.hidden) return
  const answer = await fetch('/practice/counts')
  if (!answer.ok) return
  for (const [post, counts] of Object.entries(await answer.json())) {
    for (const [what, number] of Object.entries(counts)) {
      const shown = document.querySelector(`[data-post="${post}"] [data-count="${what}"]`)
      if (shown) shown.textContent = number
    }
  }
}
if (films.length) setInterval(count, 5000)
// What is being looked at is decided soon.
if (document.querySelector('[data-state="looked-at"]')) setTimeout(() => location.reload(), 4000)
