import { defineStore } from 'pinia'
import { ref } from 'vue'
import { ServerError } from '@/api/client'

export interface Note {
  id: number
  kind: 'told' | 'problem'
  message: string
  detail: string
}

/** Messages that are shown at once; older ones give way. */
const MOST = 3

/** Short messages at the edge of the screen. */
export const useNotes = defineStore('notes', () => {
  const notes = ref<Note[]>([])
  /** Where on the page they cover no control: the picture, while there is one. */
  const place = ref<{ left: number; bottom: number; width: number } | null>(null)
  let last = 0

  function add(kind: Note['kind'], message: string, detail = '') {
    if (notes.value.some((note) => note.message === message)) return
    const id = ++last
    notes.value = [...notes.value, { id, kind, message, detail }].slice(-MOST)
    // What went wrong stays until it is read.
    if (kind === 'told') window.setTimeout(() => drop(id), 4000)
  }

  function drop(id: number) {
    notes.value = notes.value.filter((note) => note.id !== id)
  }

  /** Show what went wrong, what is safe and what to do. */
  function problem(error: unknown) {
    // That the line is gone stands in the top bar, as long as it is true.
    if (error instanceof ServerError && error.status === 0) return
    if (error instanceof ServerError) {
      const { message, safe, todo } = error.problem
      add('problem', message, [safe, todo].filter(Boolean).join(' '))
    } else if (!(error instanceof DOMException && error.name === 'AbortError')) {
      add('problem', error instanceof Error ? error.message : String(error))
    }
  }

  return { notes, place, told: (message: string) => add('told', message), problem, drop }
})
