<script setup lang="ts">
/** Name, colour, start and length of the clip in hand, typed. */
import { BModal } from 'bootstrap-vue-next'
import { computed, ref, watch } from 'vue'
import type { Step, Tag } from '@/api/types'
import { useHand } from '@/stores/hand'
import { startOf, useProject } from '@/stores/project'
import { useViewing } from '@/stores/viewing'
import { frameOf, framesTyped, momentOf, tickOf } from '@/time'
import TagPicker from './TagPicker.vue'

const open = defineModel<boolean>({ required: true })
const hand = useHand()
const project = useProject()
const viewing = useViewing()
const name = ref('')
const tag = ref<Tag>('')
const start = ref('')
const length = ref('')

const clip = computed(() => hand.one?.clip ?? null)
/** On a track that closes gaps a clip begins where the one before it ends. */
const follows = computed(() => Boolean(hand.one?.track.closes_gaps))
const locked = computed(() => Boolean(hand.one?.track.locked))
const told = (ticks: number) => momentOf(frameOf(ticks, project.rate), project.rate, viewing.clock)

watch(open, (opens) => {
  if (!opens || !clip.value) return
  name.value = clip.value.name ?? ''
  tag.value = clip.value.tag ?? ''
  start.value = told(startOf(clip.value))
  length.value = told(clip.value.length)
})

/** Ticks that were typed; null if that is no time, or too short for a length. */
function typed(text: string, least: number): number | null {
  const plain = viewing.clock === 'frames' && /^\d+$/.test(text.trim()) ? `${text.trim()} f` : text
  const frames = framesTyped(plain, project.rate)
  return frames === null || frames < least ? null : tickOf(frames, project.rate)
}
const starts = computed(() => typed(start.value, 0))
const lasts = computed(() => typed(length.value, 1))

function steps(): Step[] {
  const one = clip.value
  if (!one) return []
  const id = one.id ?? ''
  const at = startOf(one)
  const found: Step[] = []
  if (name.value.trim() !== one.name || tag.value !== (one.tag ?? '')) {
    const values = { name: name.value.trim(), tag: tag.value }
    found.push({ kind: 'adjust', clips: [id], values })
  }
  if (lasts.value !== null && told(lasts.value) !== told(one.length)) {
    found.push({ kind: 'trim', clip: id, edge: 'end', to: at + lasts.value, also: [] })
  }
  if (!follows.value && starts.value !== null && told(starts.value) !== told(at)) {
    found.push({ kind: 'move', clip: id, to: starts.value, track: hand.one?.track.id ?? null })
  }
  return found
}

async function set(event: { preventDefault: () => void }) {
  if (starts.value === null || lasts.value === null) return event.preventDefault()
  for (const step of steps()) await project.edit(step)
}
</script>

<template>
  <BModal
    v-model="open"
    :title="$t('controls.clipDialog.thisClip')"
    :ok-title="$t('controls.clipDialog.set')"
    :cancel-title="$t('words.cancel')"
    cancel-variant="secondary"
    :ok-disabled="starts === null || lasts === null"
    @ok="set"
  >
    <label class="form-label" for="clip-name">{{ $t('words.name') }}</label>
    <input id="clip-name" v-model="name" data-first class="form-control mb-3" maxlength="200" />
    <TagPicker v-model="tag" />
    <div class="times mt-3">
      <div>
        <label class="form-label" for="clip-start">{{ $t('controls.clipDialog.startsAt') }}</label>
        <input
          id="clip-start"
          v-model="start"
          class="form-control"
          :class="{ 'is-invalid': starts === null }"
          :disabled="follows || locked"
          autocomplete="off"
          aria-describedby="clip-times"
        />
      </div>
      <div>
        <label class="form-label" for="clip-length">{{ $t('controls.clipDialog.lasts') }}</label>
        <input
          id="clip-length"
          v-model="length"
          class="form-control"
          :class="{ 'is-invalid': lasts === null }"
          :disabled="locked"
          autocomplete="off"
          aria-describedby="clip-times"
        />
      </div>
    </div>
    <p id="clip-times" class="tiny quiet mt-2 mb-0">
      {{
        starts === null || lasts === null
          ? $t('controls.clipDialog.thatIsNoTimeType')
          : follows
            ? $t('controls.clipDialog.onThisTrackAClip')
            : $t('controls.clipDialog.howToTypeATime')
      }}
    </p>
  </BModal>
</template>

<style scoped>
.times {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
</style>
