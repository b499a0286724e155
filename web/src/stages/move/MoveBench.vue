<script setup lang="ts">
/** Move: where the layer in hand is, and how that changes over time. */
import { computed, onBeforeUnmount, watch } from 'vue'
import IconBefore from '~icons/tabler/chevron-left'
import IconNext from '~icons/tabler/chevron-right'
import BenchPair from '@/controls/BenchPair.vue'
import { useScreen } from '@/player/inject'
import { useLayer } from '@/inhand/useLayer'
import { useKit } from '@/stores/kit'
import { useMoving } from '@/stores/moving'
import { useNotes } from '@/stores/notes'
import KeysPart from './KeysPart.vue'
import MoveTools from './MoveTools.vue'
import PathPart from './PathPart.vue'
import PlacePanel from './PlacePanel.vue'
import ReadyPart from './ReadyPart.vue'
import WarpPart from './WarpPart.vue'

const kit = useKit()
const notes = useNotes()
const moving = useMoving()
const layer = useLayer()
const { player } = useScreen()

kit.open().catch((error: unknown) => notes.problem(error))

const PARTS = [
  { id: 'keys', name: 'Keys', test: 'move-part-keys' },
  { id: 'ready', name: 'In and out', test: 'move-part-ready' },
  { id: 'warp', name: 'Warp', test: 'move-part-warp' },
  { id: 'path', name: 'Path', test: 'move-part-path' },
] as const

const skinOf = computed(() => (moving.onion ? (layer.clip.value?.id ?? '') : ''))
watch(skinOf, (onion) => player.ask(onion ? { onion } : {}), { immediate: true })
watch(
  () => moving.asked,
  (asked) => {
    if (!layer.clip.value || !asked) return
    if (asked.what !== 'key') layer.jump(asked.what === 'next' ? 1 : -1)
    else if (!layer.locked.value) layer.toggleKey(moving.path, 0)
  },
)
watch(
  () => [layer.clip.value?.id, moving.part],
  () => moving.leave(),
)
onBeforeUnmount(() => {
  moving.leave()
  player.ask({})
})
</script>

<template>
  <BenchPair
    label="How it moves"
    left="Place"
    narrow
    :parts="PARTS"
    :part="moving.part"
    :filled="Boolean(layer.clip.value)"
    @take="moving.part = $event"
  >
    <template #left><PlacePanel :layer="layer" /></template>
    <template #tools>
      <button
        class="btn btn-bare"
        :disabled="!layer.hasKeys.value"
        data-test="key-before"
        @click="layer.jump(-1)"
      >
        <IconBefore aria-hidden="true" /> Key
      </button>
      <button
        class="btn btn-bare"
        :disabled="!layer.hasKeys.value"
        data-test="key-next"
        @click="layer.jump(1)"
      >
        Key <IconNext aria-hidden="true" />
      </button>
      <span v-if="!layer.over.value" class="tiny quiet">not at the playhead</span>
      <span class="grow" />
      <MoveTools />
    </template>
    <KeysPart v-if="moving.part === 'keys'" :layer="layer" />
    <ReadyPart v-else-if="moving.part === 'ready'" :layer="layer" />
    <WarpPart v-else-if="moving.part === 'warp'" :layer="layer" />
    <PathPart v-else :layer="layer" />
    <template #empty>
      <strong>No layer in hand</strong>
      <span>
        Tap a layer on the picture or the timeline. Move it with a finger; set keys to move it over
        time.
      </span>
    </template>
  </BenchPair>
</template>
