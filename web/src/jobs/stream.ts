import { reachable } from '@/api/reach'

const AGAIN = 2000

export interface JobChange {
  job: string
  kind: string
}

/**
 * Hear of changed jobs for as long as they are watched. `missed` is called where changes may have
 * been: after the line was gone.
 */
export function openStream(told: (change: JobChange) => void, missed: () => void) {
  let source: EventSource | null = null
  let timer = 0
  let opened = false

  function open() {
    source = new EventSource('/api/events')
    source.onopen = () => {
      reachable.value = true
      if (opened) missed()
      opened = true
    }
    source.onmessage = (event: MessageEvent<string>) => told(JSON.parse(event.data) as JobChange)
    source.onerror = () => {
      // A browser opens a stream again by itself unless it was answered with an error.
      if (source?.readyState !== EventSource.CLOSED) return
      timer = window.setTimeout(() => {
        missed()
        open()
      }, AGAIN)
    }
  }

  open()
  return () => {
    window.clearTimeout(timer)
    source?.close()
  }
}
