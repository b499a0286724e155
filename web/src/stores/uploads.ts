import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { DetailedError, Upload } from 'tus-js-client'
import { csrfToken, type Problem } from '@/api/client'
import { useLibrary } from '@/stores/library'
import { useNotes } from '@/stores/notes'
import { newSeed, useProject } from '@/stores/project'
import { t } from '@/texts'

export interface Arriving {
  id: number
  name: string
  size: number
  sent: number
  state: 'waiting' | 'sending' | 'failed'
  problem: string
  upload: Upload
}

const PIECE = 16 * 2 ** 20
const AT_ONCE = 2

/** Files on their way: in the order in which they were chosen, two at a time, resumable. */
export const useUploads = defineStore('uploads', () => {
  const project = useProject()
  const library = useLibrary()
  const notes = useNotes()
  const files = ref<Arriving[]>([])
  let last = 0

  const busy = computed(() => files.value.some((file) => file.state === 'sending'))

  /** `replaces` is the id of a take whose missing file this is; `into` the project, if not the open one. */
  function add(chosen: Iterable<File>, replaces = '', into = project.id) {
    const base = Date.now() * 1000
    for (const file of chosen) {
      const id = ++last
      files.value.push({
        id,
        name: file.name,
        size: file.size,
        sent: 0,
        state: 'waiting',
        problem: '',
        upload: make(id, file, base + id, replaces, into),
      })
    }
    next()
  }

  function make(id: number, file: File, order: number, replaces: string, into: string): Upload {
    return new Upload(file, {
      endpoint: '/api/uploads/',
      chunkSize: PIECE,
      retryDelays: [0, 1000, 3000, 6000, 12000],
      removeFingerprintOnSuccess: true,
      metadata: {
        filename: file.name,
        project: into,
        order: String(order),
        key: newSeed(),
        ...(replaces ? { replaces } : {}),
      },
      onBeforeRequest: (request) => request.setHeader('X-CSRFToken', csrfToken()),
      onShouldRetry: (error) => {
        const status = error.originalResponse?.getStatus() ?? 0
        return status === 0 || status >= 500 || [409, 423, 429].includes(status)
      },
      onProgress: (sent) => update(id, { sent }),
      onSuccess: () => {
        files.value = files.value.filter((one) => one.id !== id)
        library.refresh()
        next()
      },
      onError: (error) => {
        update(id, { state: 'failed', problem: reason(error) })
        notes.problem(new Error(`“${file.name}” was not brought in. ${reason(error)}`))
        library.refresh()
        next()
      },
    })
  }

  function update(id: number, change: Partial<Arriving>) {
    const file = files.value.find((one) => one.id === id)
    if (file) Object.assign(file, change)
  }

  function next() {
    const sending = files.value.filter((file) => file.state === 'sending').length
    const waiting = files.value.filter((file) => file.state === 'waiting')
    for (const file of waiting.slice(0, AT_ONCE - sending)) {
      file.state = 'sending'
      file.upload.start()
    }
  }

  async function cancel(id: number) {
    const file = files.value.find((one) => one.id === id)
    files.value = files.value.filter((one) => one.id !== id)
    try {
      if (file && file.state !== 'failed') await file.upload.abort(true)
    } catch {
      // The server forgets an upload that never began.
    }
    next()
  }

  function again(id: number) {
    update(id, { state: 'waiting', problem: '' })
    next()
  }

  return { files, busy, add, cancel, again }
})

function reason(error: Error | DetailedError): string {
  const body = error instanceof DetailedError ? error.originalResponse?.getBody() : ''
  try {
    const told = JSON.parse(body ?? '') as Partial<Problem>
    if (told.message) return [told.message, told.todo].filter(Boolean).join(' ')
  } catch {
    // Not an answer of ours: the line was cut.
  }
  return t('stores.uploads.theConnectionWasLostWhat')
}
