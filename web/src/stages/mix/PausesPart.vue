<script setup lang="ts">
/** The pauses of a voice: found, listed, and cut out with the picture in one step. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref, shallowRef, watch } from 'vue'
import { client, need } from '@/api/client'
import { TICKS_PER_SECOND } from '@/api/types'
import ValueField from '@/controls/ValueField.vue'
import type { Properties } from '@/inhand/useProperties'
import { useScreen } from '@/player/inject'
import { useProject } from '@/stores/project'
import { clockOf, frameOf } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import { useAsking } from '@/stores/useAsking'

type Span = [number, number]

const props = defineProps<{ sound: Properties }>()
const project = useProject()
const { here, ask, busy } = useAsking()
const { player } = useScreen()

const shortest = ref(0.6)
const margin = ref(0.12)
const found = shallowRef<Span[] | null>(null)
/** Those that stay, by when they begin. */
const staying = ref(new Set<number>())

// What was found is true of the film as it was.
watch(
  () => `${props.sound.clip.value?.id}/${project.source.base}`,
  () => (found.value = null),
)

async function look() {
  const clip = props.sound.clip.value?.id
  if (!clip) return
  const { path, query } = here()
  const asked = await ask(() =>
    need(
      client.GET('/api/projects/{id}/revisions/{revision}/clips/{clip}/pauses', {
        params: {
          path: { ...path, clip },
          query: { ...query, shortest: shortest.value, margin: margin.value },
        },
      }),
    ),
  )
  if (!asked) return
  found.value = asked as Span[]
  staying.value = new Set()
}

const going = computed(() => (found.value ?? []).filter(([from]) => !staying.value.has(from)))
const seconds = (spans: Span[]) =>
  (spans.reduce((sum, [from, to]) => sum + to - from, 0) / TICKS_PER_SECOND).toFixed(1)
const clock = (tick: number) => clockOf(frameOf(tick, project.rate), project.rate)

function toggle(from: number) {
  const now = new Set(staying.value)
  if (!now.delete(from)) now.add(from)
  staying.value = now
}

const cut = () =>
  project.edit({
    kind: 'cut_out',
    clip: props.sound.clip.value?.id ?? '',
    spans: going.value,
  })
</script>

<template>
  <fieldset class="pauses" :disabled="sound.locked.value">
    <TrayItem :name="$t('mix.pausesPart.pauses')" :told="found ? String(found.length) : ''">
      <div class="line">
        <BButton
          size="sm"
          :variant="found?.length ? 'secondary' : 'primary'"
          :disabled="busy"
          data-test="find-pauses"
          @click="look"
        >
          {{ busy ? $t('mix.loudness.listening') : $t('mix.pausesPart.find') }}
        </BButton>
        <BButton
          v-if="found?.length"
          size="sm"
          variant="primary"
          :disabled="!going.length"
          data-test="cut-pauses"
          @click="cut"
        >
          {{
            $t('mix.pausesPart.cutOut', { n: going.length, seconds: seconds(going) }, going.length)
          }}
        </BButton>
        <span v-if="found && !found.length" class="tiny quiet" role="status">
          {{ $t('mix.pausesPart.none') }}
        </span>
        <span v-else-if="!found" class="tiny quiet">{{ $t('mix.pausesPart.whatItDoes') }}</span>
      </div>
      <ul v-if="found?.length" class="spans several">
        <li v-for="[from, to] in found" :key="from">
          <button
            type="button"
            role="switch"
            :aria-checked="!staying.has(from)"
            :title="$t('mix.pausesPart.goesOrStays')"
            data-test="pause"
            @click="(toggle(from), player.seek(frameOf(from, project.rate)))"
          >
            {{ clock(from) }}
            <span class="quiet">{{
              $t('mix.pausesPart.lasts', { seconds: seconds([[from, to]]) })
            }}</span>
          </button>
        </li>
      </ul>
    </TrayItem>
    <ValueField
      :label="$t('mix.pausesPart.shortest')"
      :help="$t('mix.pausesPart.shortestHelp')"
      :value="shortest"
      :low="0.2"
      :high="3"
      :step="0.1"
      :digits="1"
      unit="s"
      :reset="0.6"
      @set="((shortest = Math.max(0.1, $event)), found && look())"
    />
    <ValueField
      :label="$t('mix.pausesPart.margin')"
      :help="$t('mix.pausesPart.marginHelp')"
      :value="margin"
      :low="0"
      :high="1"
      :step="0.02"
      :digits="2"
      unit="s"
      :reset="0.12"
      @set="((margin = Math.max(0, $event)), found && look())"
    />
  </fieldset>
</template>

<style scoped>
.pauses {
  display: grid;
  gap: 4px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  padding: 4px 0;
}
.spans {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  list-style: none;
  margin: 0;
  padding: 4px 0;
  flex: none;
}
.spans button {
  border: 0;
  min-height: var(--touch);
  padding: 0 10px;
  border-radius: var(--fold);
  background: var(--panel);
  color: var(--quiet);
  text-decoration: line-through;
  font-variant-numeric: tabular-nums;
  box-shadow: inset 0 0 0 1px var(--line);
}
.spans button[aria-checked='true'] {
  background: var(--raised);
  color: var(--text);
  text-decoration: none;
}
</style>
