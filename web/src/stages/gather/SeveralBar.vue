<script setup lang="ts">
/** What can be done with several takes at once. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import { TICKS_PER_SECOND, type Step } from '@/api/types'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import ValueField from '@/controls/ValueField.vue'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { useLibrary } from '@/stores/library'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { partsOf } from '@/takes/placing'
import { t } from '@/texts'
import { tickOf } from '@/time'
import { useFilling } from './useFilling'

const emit = defineEmits<{ done: [] }>()
const library = useLibrary()
const hand = useHand()
const project = useProject()
const notes = useNotes()
const { player } = useScreen()
const { filled, fits, fill } = useFilling()

const seconds = ref(3)
const each = ref(3)
const order = ref<'forward' | 'backward' | 'there_and_back'>('forward')
const ORDERS = [
  { id: 'forward', name: t('gather.severalBar.forward') },
  { id: 'backward', name: t('gather.severalBar.backward') },
  { id: 'there_and_back', name: t('gather.severalBar.thereAndBack') },
] as const

const usable = computed(() => library.several.filter((take) => take.facts && !take.problem))
const stills = computed(() => usable.value.filter((take) => take.facts?.kind === 'still'))
const allStills = computed(
  () => stills.value.length > 1 && stills.value.length === usable.value.length,
)

async function place(how: 'row' | 'stack') {
  const takes = partsOf(usable.value)
  const step: Step = {
    kind: 'place_takes',
    takes,
    how,
    mode: how === 'stack' ? 'push' : 'end',
    at: tickOf(player.frame.value, project.rate),
    still_length: Math.round(seconds.value * TICKS_PER_SECOND),
  }
  if (await project.edit(step))
    told(t('gather.severalBar.takesAreOnTheTimeline', { count: takes.length }))
}

/** Takes that run, at least one with a picture: the cameras of one thing. */
const cameras = computed(() => {
  const kinds = usable.value.map((take) => take.facts?.kind)
  return kinds.length > 1 && kinds.includes('video') && !kinds.includes('still')
})

async function angles() {
  const takes = partsOf(usable.value)
  if (await hand.bring({ kind: 'gather_angles', takes, name: t('words.cameras') }))
    told(t('gather.severalBar.anglesAreOn', { count: takes.length }))
}

async function fillIt() {
  if (await fill(usable.value)) emit('done')
}

async function sequence() {
  const takes = partsOf(stills.value)
  const frames = Math.round(each.value)
  const step: Step = {
    kind: 'place_sequence',
    takes,
    frames_each: frames,
    order: order.value,
  }
  if (await project.edit(step)) {
    told(t('gather.severalBar.stillsAreOnTheTimeline', { count: takes.length }))
  }
}

function told(message: string) {
  notes.told(message)
  emit('done')
}
</script>

<template>
  <section class="several" :aria-label="$t('gather.severalBar.severalTakes')">
    <div class="line">
      <strong>{{ $t('gather.severalBar.takes', { count: usable.length }) }}</strong>
      <span class="small quiet">{{ $t('gather.severalBar.tapToAddOrLeave') }}</span>
      <span class="spacer" />
      <BButton variant="secondary" @click="emit('done')">{{
        $t('gather.severalBar.done')
      }}</BButton>
    </div>
    <div class="line">
      <BButton
        variant="primary"
        :disabled="!usable.length"
        data-test="place-row"
        @click="place('row')"
      >
        {{ $t('gather.severalBar.oneAfterAnother') }}
      </BButton>
      <BButton
        variant="secondary"
        :disabled="!usable.length"
        :title="$t('gather.severalBar.fromThePlayheadEachOn')"
        data-test="place-stack"
        @click="place('stack')"
      >
        {{ $t('gather.severalBar.stacked') }}
      </BButton>
      <BButton
        v-if="cameras"
        variant="secondary"
        :title="$t('gather.severalBar.asAnglesHelp')"
        data-test="place-angles"
        @click="angles"
      >
        {{ $t('gather.severalBar.asAngles') }}
      </BButton>
      <BButton
        v-if="filled && fits(usable)"
        variant="secondary"
        :title="$t('gather.severalBar.intoHelp')"
        data-test="add-angles"
        @click="fillIt"
      >
        {{ $t('gather.severalBar.into', { name: filled.name }) }}
      </BButton>
      <BButton
        v-if="allStills"
        variant="secondary"
        :title="$t('gather.severalBar.numberedStillsAsOneClip')"
        data-test="place-sequence"
        @click="sequence"
      >
        {{ $t('gather.severalBar.asOneClip') }}
      </BButton>
    </div>
    <ValueField
      v-if="stills.length"
      :label="$t('gather.severalBar.aStillLasts')"
      :value="seconds"
      :low="0.2"
      :high="10"
      :step="0.1"
      :digits="1"
      unit="s"
      @set="seconds = Math.max(0.05, $event)"
    />
    <template v-if="allStills">
      <ValueField
        :label="$t('gather.severalBar.inOneClip')"
        :value="each"
        :low="1"
        :high="30"
        :step="1"
        unit="f"
        @set="each = Math.max(1, Math.round($event))"
      />
      <ChoiceGroup
        :label="$t('gather.severalBar.order')"
        :choices="ORDERS"
        :taken="order"
        @take="order = $event"
      />
    </template>
  </section>
</template>

<style scoped>
.several {
  display: grid;
  gap: 5px;
  justify-items: start;
  padding: 8px 10px;
  border-radius: var(--fold);
  background: var(--rail);
}
.several > :deep(.field) {
  width: 100%;
  min-height: 34px;
}
.line .btn {
  padding: 2px 10px;
}
.line {
  width: 100%;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.spacer {
  flex: 1;
}
</style>
