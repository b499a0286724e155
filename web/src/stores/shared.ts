import { defineStore } from 'pinia'
import { ref } from 'vue'
import { FILE_NAME, KNOWN, SHARED } from '@/worker/names'

const hasCaches = () => typeof caches !== 'undefined'

/** Files that other applications shared to us; they wait until a project takes them. */
export const useShared = defineStore('shared', () => {
  const waiting = ref(0)

  async function look() {
    if (hasCaches()) waiting.value = (await (await caches.open(SHARED)).keys()).length
  }

  /** The files; they do not wait any longer. */
  async function take(): Promise<File[]> {
    if (!hasCaches()) return []
    const cache = await caches.open(SHARED)
    const files: File[] = []
    for (const key of await cache.keys()) {
      const found = await cache.match(key)
      if (!found) continue
      const name = decodeURIComponent(found.headers.get(FILE_NAME) ?? 'shared')
      const type = found.headers.get('Content-Type') ?? ''
      files.push(new File([await found.blob()], name, { type }))
      await cache.delete(key)
    }
    waiting.value = 0
    return files
  }

  return { waiting, look, take }
})

/** Nothing that a person has seen stays on the device once they have signed out. */
export async function forgetKnown() {
  if (hasCaches()) await Promise.all([caches.delete(KNOWN), caches.delete(SHARED)])
}
