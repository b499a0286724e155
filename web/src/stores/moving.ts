import { StorageSerializers, useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { isKeyed } from '@/motion/keys'
import type { Ease } from '@/motion/easing'
import { read } from '@/motion/props'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'

export type MovePart = 'keys' | 'ready' | 'warp' | 'path' | 'mouth'
/** What a finger does on the picture: place the layer, or one of the tools. */
export type MoveTool = '' | 'draw' | 'pin'

export type MoveAsk = 'key' | 'before' | 'next'

/** One key: of a property of a clip, at a tick of it. */
export interface KeyName {
  clip: string
  path: string
  at: number
}

/** What Move shows and works on, and the keys in hand. */
export const useMoving = defineStore('moving', () => {
  const project = useProject()
  const hand = useHand()
  const part = ref<MovePart>('keys')
  /** Whether the pivot is handled instead of the picture. */
  const pivoting = ref(false)
  const tool = ref<MoveTool>('')
  /** The property whose graph is shown. */
  const path = ref('place/position')
  /** Of a property of two numbers the one that is shown. */
  const axis = ref(0)
  const view = useLocalStorage<'value' | 'speed'>('velvet-kite.graph', 'value')
  /** Whether a key's two handles stay in line. */
  const linked = useLocalStorage('velvet-kite.handles-linked', true)
  /** Whether width and height change together. */
  const evenSize = useLocalStorage('velvet-kite.even-size', true)
  /** Whether keys are shown in lanes under the clip in hand. */
  const lanes = useLocalStorage('velvet-kite.key-lanes', false)
  const onion = useLocalStorage('velvet-kite.onion', false)
  const lastEase = useLocalStorage<Ease | null>('velvet-kite.last-ease', null, {
    serializer: StorageSerializers.object,
  })
  /** Frames by which each layer, or each pin of a chain, is later than the one before. */
  const later = useLocalStorage('velvet-kite.later', 3)
  const pin = ref('')
  /** Points of a grid, by number, or pins, by id, that are dragged together. */
  const points = ref<string[]>([])
  /** Of the layer that is bent: around what is seen of it, in its heights, and its shape. */
  const sheet = ref<{ seen: [number, number, number, number] | null; aspect: number } | null>(null)
  /** Whether a tap takes one more point. */
  const severalPoints = ref(false)
  /** What the keyboard asks the bench for; counted, so that the same can be asked again. */
  const asked = ref<{ what: MoveAsk; turn: number } | null>(null)
  const keys = ref<KeyName[]>([])

  function ask(what: MoveAsk) {
    asked.value = { what, turn: (asked.value?.turn ?? 0) + 1 }
  }

  function takePoint(id: string, more = false) {
    const others = points.value.filter((one) => one !== id)
    if (!more && !severalPoints.value)
      points.value = others.length === points.value.length ? [id] : []
    else points.value = others.length === points.value.length ? [...others, id] : others
  }

  const holds = (key: KeyName) => keys.value.some((one) => same(one, key))

  function take(key: KeyName, more = false) {
    if (!more) keys.value = [key]
    else if (holds(key)) keys.value = keys.value.filter((one) => !same(one, key))
    else keys.value = [...keys.value, key]
  }

  function takeAll(all: KeyName[]) {
    keys.value = all
  }

  function release() {
    keys.value = []
  }

  /** The keys in hand as steps name them. */
  const named = computed(() => {
    const groups = new Map<string, { clip: string; path: string; at: number[] }>()
    for (const { clip, path: of, at } of keys.value) {
      const name = `${clip} ${of}`
      const group = groups.get(name) ?? { clip, path: of, at: [] }
      group.at.push(at)
      groups.set(name, group)
    }
    return [...groups.values()]
  })

  // Keys are in hand as long as they are there, and their clip is.
  watch(
    () => [project.document, project.within, hand.ids],
    () => {
      if (keys.value.length) keys.value = keys.value.filter(isThere)
    },
  )

  watch(
    () => hand.one?.clip.id,
    () => (points.value = []),
  )

  function isThere({ clip, path: of, at }: KeyName): boolean {
    if (!hand.ids.includes(clip)) return false
    const prop = read(project.findClip(clip)?.clip, of)
    return isKeyed(prop) && prop.keys.some((key) => key.at === at)
  }

  function leave() {
    tool.value = ''
    points.value = []
    severalPoints.value = false
    pin.value = ''
    pivoting.value = false
  }

  return {
    part,
    pivoting,
    tool,
    path,
    axis,
    view,
    linked,
    evenSize,
    lanes,
    onion,
    lastEase,
    later,
    pin,
    points,
    sheet,
    severalPoints,
    takePoint,
    asked,
    ask,
    keys,
    named,
    holds,
    take,
    takeAll,
    release,
    leave,
  }
})

function same(a: KeyName, b: KeyName): boolean {
  return a.clip === b.clip && a.path === b.path && a.at === b.at
}
