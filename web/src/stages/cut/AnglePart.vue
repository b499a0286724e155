<script setup lang="ts">
/** One angle: its name, colour and place, by what it is lined up, more files, its look. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import type { MulticamClip, Tag } from '@/api/types'
import ChoiceRow from '@/controls/ChoiceRow.vue'
import TagPicker from '@/controls/TagPicker.vue'
import { anglesOf } from '@/motion/angles'
import { useScreen } from '@/player/inject'
import { useHand } from '@/stores/hand'
import { useLibrary } from '@/stores/library'
import { useProject } from '@/stores/project'
import { partOf } from '@/takes/placing'
import { useInside } from '@/timeline/useInside'
import TrayItem from '@/tray/TrayItem.vue'
import { WAY_NAMES, type Way } from './useLining'

const props = defineProps<{ clip: MulticamClip; angle: number; first: number; way: Way }>()
const emit = defineEmits<{ way: [way: Way]; first: [angle: number]; take: [angle: number] }>()
const project = useProject()
const library = useLibrary()
const hand = useHand()
const inside = useInside(useScreen().player)

const WAYS = (['auto', 'sound', 'clap', 'marker', 'timecode', 'clock', 'hand'] as const).map(
  (id) => ({
    id,
    name: WAY_NAMES[id],
    test: `line-up-by-${id}`,
  }),
)
const mine = computed(() => anglesOf(props.clip)[props.angle])
const group = computed(() => props.clip.tracks[props.angle]?.clips?.[0])
const before = computed(() => anglesOf(props.clip)[props.angle - 1])
const part = computed(() => {
  const take = library.take
  const kind = take?.facts?.kind
  return take && (kind === 'video' || kind === 'sound') ? partOf(take) : null
})
const id = () => props.clip.id ?? ''

const rename = (name: string) =>
  name && project.edit({ kind: 'name_angle', clip: id(), angle: props.angle, name })
const colour = (tag: Tag) =>
  project.edit({
    kind: 'name_angle',
    clip: id(),
    angle: props.angle,
    name: mine.value?.name ?? '',
    tag,
  })

function add(angle: number | null) {
  if (part.value) project.edit({ kind: 'add_angles', clip: id(), takes: [part.value], angle })
}

async function move(by: number) {
  const to = props.angle + by
  const good = await project.edit({ kind: 'move_angle', clip: id(), angle: props.angle, to })
  if (good) emit('take', to)
}

/** Its look: within the clip it is one clip, which all benches work on. */
function openLook() {
  const inner = group.value?.id ?? ''
  inside.enter(id())
  hand.take(inner)
}
</script>

<template>
  <ChoiceRow
    :name="$t('cut.anglePart.by')"
    :help="$t('cut.anglePart.byHelp')"
    :choices="WAYS"
    :taken="way"
    @take="emit('way', $event)"
  >
    <div>
      <BButton
        variant="secondary"
        size="sm"
        :aria-pressed="first === angle"
        :title="$t('cut.anglePart.staysHelp')"
        data-test="angle-stays"
        @click="emit('first', angle)"
      >
        {{ $t('cut.anglePart.stays') }}
      </BButton>
    </div>
  </ChoiceRow>
  <TrayItem :name="$t('cut.anglePart.angle')" :told="mine?.name">
    <label class="line">
      <span>{{ $t('words.name') }}</span>
      <input
        class="form-control"
        maxlength="200"
        :value="mine?.name"
        data-test="angle-name"
        @change="rename(($event.target as HTMLInputElement).value.trim())"
      />
    </label>
    <TagPicker :model-value="(mine?.tag ?? '') as Tag" @update:model-value="colour" />
    <div class="verbs">
      <BButton variant="secondary" size="sm" data-test="angle-look" @click="openLook">
        {{ $t('cut.anglePart.look') }}
      </BButton>
      <BButton variant="secondary" size="sm" :disabled="!angle" @click="move(-1)">
        {{ $t('cut.anglePart.earlier') }}
      </BButton>
      <BButton
        variant="secondary"
        size="sm"
        :disabled="angle + 1 >= clip.tracks.length"
        @click="move(1)"
      >
        {{ $t('cut.anglePart.later') }}
      </BButton>
      <BButton
        v-if="before"
        variant="secondary"
        size="sm"
        data-test="join-angles"
        :title="$t('cut.anglePart.joinHelp')"
        @click="project.edit({ kind: 'join_angles', clip: id(), angle, into: angle - 1 })"
      >
        {{ $t('cut.anglePart.join', { name: before.name }) }}
      </BButton>
      <BButton
        variant="secondary"
        size="sm"
        :disabled="clip.tracks.length < 2"
        data-test="remove-angle"
        @click="project.edit({ kind: 'remove_angle', clip: id(), angle })"
      >
        {{ $t('cut.anglePart.remove') }}
      </BButton>
    </div>
  </TrayItem>
  <TrayItem :name="$t('cut.anglePart.add')" last>
    <div class="verbs">
      <template v-if="part">
        <BButton variant="secondary" size="sm" data-test="add-angle" @click="add(null)">
          {{ $t('cut.anglePart.addAngle', { name: part.name }) }}
        </BButton>
        <BButton variant="secondary" size="sm" @click="add(angle)">
          {{ $t('cut.anglePart.addFile', { name: part.name }) }}
        </BButton>
      </template>
      <span v-else class="tiny quiet">{{ $t('cut.anglePart.chooseTake') }}</span>
    </div>
  </TrayItem>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: 84px minmax(0, 1fr);
  align-items: center;
  gap: 10px;
  color: var(--soft);
}
.verbs {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}
</style>
