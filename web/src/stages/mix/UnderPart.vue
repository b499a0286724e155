<script setup lang="ts">
/** A track that steps back while somebody speaks on others. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref, shallowRef, watch } from 'vue'
import { client, need } from '@/api/client'
import { isSounding, TICKS_PER_SECOND } from '@/api/types'
import ControlFields from '@/controls/ControlFields.vue'
import { useKit } from '@/stores/kit'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import { useAsking } from '@/stores/useAsking'
import { useStrip } from './useStrip'

const props = defineProps<{ of: string }>()
const kit = useKit()
const notes = useNotes()
const project = useProject()
const strip = useStrip(() => props.of)
const { here, ask, busy } = useAsking()

const under = computed(() => strip.track.value?.strip?.under ?? null)
const leaders = computed(() => under.value?.tracks ?? [])
const others = computed(() =>
  project.tracks.filter(
    (track) =>
      track.id !== props.of && (track.kind === 'sound' || (track.clips ?? []).some(isSounding)),
  ),
)

function toggle(track: string) {
  const rest = leaders.value.filter((one) => one !== track)
  const tracks = rest.length < leaders.value.length ? rest : [...leaders.value, track]
  strip.setWhole(under.value ? { 'under/tracks': tracks } : { under: { tracks } })
}

const spoken = shallowRef<[number, number][]>([])
const known = ref(false)
watch(
  () => [leaders.value.join(), project.source.base, project.within].join(' '),
  async () => {
    if (!leaders.value.length) return
    const asked = await ask(() =>
      need(
        client.POST('/api/projects/{id}/revisions/{revision}/voice', {
          params: here(),
          body: { tracks: leaders.value },
        }),
      ),
    )
    if (asked) spoken.value = asked as [number, number][]
    known.value ||= asked !== null
  },
  { immediate: true },
)
const seconds = computed(
  () => spoken.value.reduce((sum, [from, to]) => sum + to - from, 0) / TICKS_PER_SECOND,
)
const share = (tick: number) => `${(tick / Math.max(1, project.length)) * 100}%`

async function toKeys() {
  const { path, query } = here()
  const keys = await ask(() =>
    need(
      client.GET('/api/projects/{id}/revisions/{revision}/tracks/{track}/stepping', {
        params: { path: { ...path, track: props.of }, query },
      }),
    ),
  )
  if (keys && (await strip.setWhole({ gain: { keys }, under: null })))
    notes.told(t('mix.underPart.areKeysNow', { n: keys.length }))
}

const set = (values: Record<string, unknown>) =>
  strip.setWhole(
    Object.fromEntries(Object.entries(values).map(([name, value]) => [`under/${name}`, value])),
  )
</script>

<template>
  <fieldset class="under">
    <TrayItem
      :name="$t('mix.underPart.under')"
      :told="leaders.length ? String(leaders.length) : $t('words.isOff')"
    >
      <p class="tiny quiet what">{{ $t('mix.underPart.whatItDoes') }}</p>
      <div class="several" role="group" :aria-label="$t('mix.underPart.under')">
        <button
          v-for="track in others"
          :key="track.id"
          type="button"
          class="leader"
          :aria-pressed="leaders.includes(track.id ?? '')"
          :data-test="`under-${track.name}`"
          @click="toggle(track.id ?? '')"
        >
          {{ track.name }}
        </button>
        <span v-if="!others.length" class="quiet tiny">{{ $t('mix.underPart.noOther') }}</span>
      </div>
      <template v-if="leaders.length">
        <div class="spoken" aria-hidden="true">
          <i
            v-for="[from, to] in spoken"
            :key="from"
            :style="{ left: share(from), width: share(to - from) }"
          />
        </div>
        <p class="tiny" role="status" data-test="spoken">
          <template v-if="busy">{{ $t('mix.underPart.looking') }}</template>
          <template v-else-if="known && !spoken.length">{{ $t('mix.underPart.nobody') }}</template>
          <template v-else-if="known">
            {{
              $t(
                'mix.underPart.speaks',
                { n: spoken.length, seconds: seconds.toFixed(1) },
                spoken.length,
              )
            }}
          </template>
        </p>
      </template>
    </TrayItem>
    <TrayItem v-if="leaders.length" :name="$t('mix.underPart.asKeys')" last>
      <div class="line">
        <BButton
          size="sm"
          variant="secondary"
          :disabled="!spoken.length"
          data-test="under-to-keys"
          @click="toKeys"
        >
          {{ $t('mix.underPart.toKeys') }}
        </BButton>
      </div>
    </TrayItem>
    <ControlFields
      v-if="under && leaders.length"
      :controls="kit.sound?.under ?? []"
      :values="under as unknown as Record<string, unknown>"
      :local="0"
      @set="set"
    />
  </fieldset>
</template>

<style scoped>
.under {
  display: grid;
  gap: 4px;
}
p {
  margin: 0;
}
.several {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 4px 0;
  flex: none;
}
.leader {
  border: 0;
  min-height: var(--touch);
  padding: 0 12px;
  border-radius: var(--fold);
  background: var(--raised);
  color: var(--soft);
  font-weight: 600;
}
.leader[aria-pressed='true'] {
  background: #2f7268;
  color: #fff;
}
.spoken {
  position: relative;
  flex: none;
  height: 10px;
  border-radius: 5px 5px 2px 5px;
  background: #100d13;
  overflow: hidden;
}
.spoken i {
  position: absolute;
  top: 0;
  bottom: 0;
  min-width: 2px;
  background: #8fd3c6;
}
</style>
