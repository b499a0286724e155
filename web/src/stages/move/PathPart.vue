<script setup lang="ts">
/** The way a layer goes: a path drawn by hand, its pace, what it follows, its blur. */
import { BButton, BFormCheckbox } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import { client, need } from '@/api/client'
import { isPictured, TICKS_PER_SECOND } from '@/api/types'
import ValueField from '@/controls/ValueField.vue'
import { isKeyed } from '@/motion/keys'
import type { Layer } from '@/inhand/useLayer'
import { useScreen } from '@/player/inject'
import { useMoving } from '@/stores/moving'
import { useProject } from '@/stores/project'
import { useAsking } from '@/stores/useAsking'
import { KIND_NAMES } from '@/api/kinds'
import { t } from '@/texts'
import { tickOf } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import SwitchField from '@/controls/SwitchField.vue'

const props = defineProps<{ layer: Layer }>()
const moving = useMoving()
const project = useProject()
const { player } = useScreen()
const { here, ask, busy } = useAsking()

const clip = computed(() => props.layer.clip.value)
const moves = computed(() => clip.value?.moves)
const path = computed(() => {
  const prop = props.layer.prop('place/position')
  return isKeyed(prop) && prop.keys.length > 1 ? prop.keys : null
})
const told = computed(() => {
  const keys = path.value
  const [first, last] = [keys?.[0], keys?.at(-1)]
  if (!keys || !first || !last) return t('move.pathPart.noPathYet')
  return t('move.pathPart.pointsInS', {
    count: keys.length,
    at: ((last.at - first.at) / TICKS_PER_SECOND).toFixed(2),
  })
})

const layers = computed(() =>
  project.tracks.flatMap((track) =>
    track.kind === 'sound'
      ? []
      : track.clips
          .filter((one) => isPictured(one) && !props.layer.ids.value.includes(one.id ?? ''))
          .flatMap((one) => {
            const [id, name] = [one.id ?? '', one.name || KIND_NAMES[one.kind]]
            const followed = one.kind === 'video' ? (one.trackers ?? []) : []
            return [
              { id, name: `${name} · ${track.name}` },
              ...followed.map((tracker) => ({
                id: `${id}/${tracker.id}`,
                name: t('move.pathPart.followedIn', { tracker: tracker.name, name }),
              })),
            ]
          }),
  ),
)
const follow = computed(() => moves.value?.follow ?? null)
/** The leader, and its tracker if it follows one, as the choices name them. */
const leads = computed(() => {
  const now = follow.value
  return now ? [now.clip, now.tracker].filter(Boolean).join('/') : ''
})
const INHERITS = ['position', 'turn', 'size'] as const
type Inherited = (typeof INHERITS)[number]
const chosen = ref<Inherited[]>([...INHERITS])
const inherits = computed<Inherited[]>(() => follow.value?.inherits ?? chosen.value)

function lead(leader: string, from: Inherited[] = inherits.value) {
  chosen.value = from
  const [clip, tracker] = leader.split('/')
  props.layer.send({
    kind: 'follow',
    clips: props.layer.ids.value,
    leader: clip || null,
    tracker: tracker ?? null,
    inherits: from,
    at: tickOf(player.shown.value, project.rate),
  })
}

/** It follows nothing any more, and goes on as it did. */
async function letGo() {
  const { path: at, query } = here()
  const params = { path: { ...at, clip: clip.value?.id ?? '' }, query }
  const made = await ask(() =>
    need(client.GET('/api/projects/{id}/revisions/{revision}/freed/{clip}', { params })),
  )
  if (made) props.layer.setWhole(made.values)
}

/** What is inherited may change without the layer jumping to another rest. */
function inherit(what: Inherited[]) {
  chosen.value = what
  if (follow.value) props.layer.setWhole({ 'moves/follow': { ...follow.value, inherits: what } })
}
</script>

<template>
  <fieldset v-if="clip" class="path" :disabled="layer.locked.value">
    <TrayItem :name="$t('move.pathPart.path')">
      <div class="line">
        <span class="name">{{ $t('move.pathPart.path') }}</span>
        <BButton
          size="sm"
          :variant="moving.tool === 'draw' ? 'primary' : 'secondary'"
          :aria-pressed="moving.tool === 'draw'"
          :title="$t('move.pathPart.drawOnThePictureWhere')"
          data-test="draw-path"
          @click="moving.tool = moving.tool === 'draw' ? '' : 'draw'"
        >
          {{
            moving.tool === 'draw'
              ? $t('move.pathPart.drawOnThePicture')
              : $t('move.pathPart.drawIt')
          }}
        </BButton>
        <BButton
          size="sm"
          variant="secondary"
          :disabled="!path"
          :title="$t('move.pathPart.movesItsKeysInTime')"
          data-test="even-pace"
          @click="layer.send({ kind: 'even_pace', clip: clip.id ?? '' })"
        >
          {{ $t('move.pathPart.evenPace') }}
        </BButton>
        <span class="tiny quiet" role="status">{{ told }}</span>
      </div>
      <SwitchField
        :on="moves?.along ?? false"
        data-test="along"
        @update:on="layer.setWhole({ 'moves/along': $event })"
      >
        {{ $t('move.pathPart.turnsAlongThePath') }}
      </SwitchField>
      <p class="tiny quiet">
        {{ $t('move.pathPart.theDotsOfThePath') }}
      </p>
    </TrayItem>
    <TrayItem :name="$t('move.pathPart.follows')">
      <div class="line">
        <span class="name" aria-hidden="true">{{ $t('move.pathPart.follows') }}</span>
        <select
          class="form-select form-select-sm"
          :aria-label="$t('move.pathPart.follows')"
          :value="leads"
          data-test="follow"
          @change="lead(($event.target as HTMLSelectElement).value)"
        >
          <option value="">{{ $t('move.pathPart.noOtherLayer') }}</option>
          <option v-if="follow && !layers.some((one) => one.id === leads)" :value="leads">
            {{ $t('move.pathPart.aLayerThatIsGone') }}
          </option>
          <option v-for="one in layers" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select>
        <BButton
          v-if="follow"
          size="sm"
          variant="secondary"
          :disabled="busy || layer.ids.value.length !== 1"
          :title="$t('move.pathPart.letGoHelp')"
          data-test="let-go"
          @click="letGo"
        >
          {{ $t('move.pathPart.letGo') }}
        </BButton>
      </div>
      <div class="line" role="group" :aria-label="$t('move.pathPart.whatItTakesOver')">
        <span class="name">{{ $t('move.pathPart.takesOver') }}</span>
        <BFormCheckbox
          v-for="one in INHERITS"
          :key="one"
          :model-value="inherits"
          :value="one"
          :disabled="!follow"
          @update:model-value="inherit($event as Inherited[])"
        >
          {{ one }}
        </BFormCheckbox>
      </div>
    </TrayItem>
    <ValueField
      :label="$t('move.pathPart.shutter')"
      :help="$t('move.pathPart.blursWhatMovesAsA')"
      :value="layer.now('moves/shutter', 0)"
      :low="0"
      :high="360"
      :step="5"
      :reset="0"
      unit="°"
      :keyed="layer.keyed('moves/shutter')"
      data-test="shutter"
      @trying="layer.trying({ 'moves/shutter': $event })"
      @set="layer.set({ 'moves/shutter': $event })"
      @key="layer.toggleKey('moves/shutter', 0)"
    />
    <p class="tiny quiet">{{ $t('move.pathPart.n180LooksLikeAFilm') }}</p>
  </fieldset>
</template>

<style scoped>
.path {
  display: grid;
  gap: 6px;
  min-width: 0;
  align-content: start;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  min-height: 38px;
}
.name {
  min-width: 74px;
  color: var(--soft);
}
.form-select {
  flex: 1;
  min-width: 0;
  min-height: var(--touch);
}
p {
  margin: 0;
}
</style>
