const TRIED = 'velvet-kite.reloaded'
/** Milliseconds within which the page is not loaded anew a second time. */
const PAUSE = 60_000

/** A part of the page that is not there any more comes with the newer page: it is loaded once. */
export function reloadWhenStale() {
  window.addEventListener('vite:preloadError', (event) => {
    const last = Number(sessionStorage.getItem(TRIED) ?? 0)
    if (Date.now() - last < PAUSE) return
    event.preventDefault()
    sessionStorage.setItem(TRIED, String(Date.now()))
    location.reload()
  })
}
