<script setup lang="ts">
/** One layer of the frame: its small picture, how it is laid, and what can be done with it. */
import { BDropdown, BDropdownItemButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import IconDots from '~icons/tabler/dots-vertical'
import IconEye from '~icons/tabler/eye'
import IconEyeOff from '~icons/tabler/eye-off'
import IconGrip from '~icons/tabler/grip-vertical'
import IconLock from '~icons/tabler/lock'
import IconLockOpen from '~icons/tabler/lock-open'
import IconSolo from '~icons/tabler/focus-2'
import type { PicturedClip, Track } from '@/api/types'
import { useHand } from '@/stores/hand'
import { useKit } from '@/stores/kit'
import { useProject } from '@/stores/project'
import { KIND_ICONS, KIND_NAMES } from '@/api/kinds'
import { t } from '@/texts'

const props = defineProps<{
  clip: PicturedClip
  track: Track
  away: boolean
  /** Address of its small picture, once that is there. */
  picture?: string
}>()
const emit = defineEmits<{
  grab: [event: PointerEvent]
  nudge: [event: KeyboardEvent]
  rename: []
  keep: []
}>()
const project = useProject()
const hand = useHand()
const kit = useKit()

const id = computed(() => props.clip.id ?? '')
const here = computed(() => hand.ids.includes(id.value))
const name = computed(() => props.clip.name || KIND_NAMES[props.clip.kind])
const signs = computed(() => {
  const { clip } = props
  const masks = clip.masks?.length ?? 0
  const effects = clip.effects?.length ?? 0
  return [
    KIND_NAMES[clip.kind],
    clip.key ? t('layer.layerRow.key') : '',
    clip.grade ? t('layer.layerRow.graded') : '',
    masks ? t('layer.layerRow.masks', masks) : '',
    effects ? t('layer.layerRow.effects', effects) : '',
    clip.clipped ? t('layer.layerRow.clipped') : '',
  ]
    .filter(Boolean)
    .join(' · ')
})
const blend = computed(() => {
  const found = kit.layer?.blends.find((one) => one.name === props.clip.blend)
  return found?.group === 'holdout'
    ? t('layer.layerRow.holdout')
    : (found?.title ?? props.clip.blend ?? t('layer.layerRow.normal'))
})
const opacity = computed(() =>
  typeof props.clip.opacity === 'number'
    ? `${Math.round(props.clip.opacity * 100)}`
    : t('layer.layerRow.keys'),
)

const setTrack = (values: { hidden?: boolean; solo?: boolean; locked?: boolean }) =>
  project.edit({ kind: 'set_track', track: props.track.id ?? '', ...values })
const toMain = () => project.edit({ kind: 'lower', clip: id.value })
const toOwn = () => project.edit({ kind: 'raise', clip: id.value })
const copyAbove = () => hand.bring({ kind: 'copy_above', clips: [id.value] })
</script>

<template>
  <li :class="{ here, away }" data-test="layer-row">
    <button
      class="grip"
      :aria-label="$t('layer.layerRow.orderOfDragOrArrow', { name })"
      :title="$t('layer.layerRow.dragToPutItIn')"
      @pointerdown="emit('grab', $event)"
      @keydown="emit('nudge', $event)"
    >
      <IconGrip aria-hidden="true" />
    </button>
    <button class="what" :aria-pressed="here" :data-test="`layer-${name}`" @click="hand.take(id)">
      <img v-if="clip.kind !== 'adjustment' && picture" :src="picture" alt="" />
      <span v-else class="glyph"><component :is="KIND_ICONS[clip.kind]" aria-hidden="true" /></span>
      <span class="words">
        <span class="name clip-text">{{ name }}</span>
        <span class="tiny quiet clip-text">{{ signs }}</span>
      </span>
      <span class="blend tiny clip-text">{{ blend }}</span>
      <span class="opacity tiny">{{ opacity }}</span>
    </button>
    <button
      class="btn btn-bare small"
      role="switch"
      :aria-checked="!track.hidden"
      :aria-label="$t('layer.layerRow.showTheTrack', { name: track.name })"
      :title="track.hidden ? $t('layer.layerRow.showItsTrack') : $t('layer.layerRow.hideItsTrack')"
      @click="setTrack({ hidden: !track.hidden })"
    >
      <IconEyeOff v-if="track.hidden" aria-hidden="true" />
      <IconEye v-else aria-hidden="true" />
    </button>
    <BDropdown
      :variant="null"
      no-caret
      size="sm"
      toggle-class="btn-bare small"
      teleport-to="body"
      strategy="fixed"
    >
      <template #button-content>
        <IconDots :aria-label="$t('layer.layerRow.whatToDoWith', { name })" />
      </template>
      <BDropdownItemButton @click="emit('rename')">{{ $t('words.rename') }}</BDropdownItemButton>
      <BDropdownItemButton data-test="copy-above" @click="copyAbove()">
        {{ $t('layer.layerRow.copyInFront') }}
      </BDropdownItemButton>
      <BDropdownItemButton v-if="track.kind === 'main'" @click="toOwn()">
        {{ $t('layer.layerRow.raise') }}
      </BDropdownItemButton>
      <BDropdownItemButton v-else @click="toMain()">{{
        $t('layer.layerRow.lower')
      }}</BDropdownItemButton>
      <BDropdownItemButton @click="setTrack({ solo: !track.solo })">
        <IconSolo aria-hidden="true" />
        {{
          track.solo ? $t('layer.layerRow.showTheOthersToo') : $t('layer.layerRow.showOnlyItsTrack')
        }}
      </BDropdownItemButton>
      <BDropdownItemButton @click="setTrack({ locked: !track.locked })">
        <component :is="track.locked ? IconLockOpen : IconLock" aria-hidden="true" />
        {{ track.locked ? $t('layer.layerRow.unlockItsTrack') : $t('layer.layerRow.lockItsTrack') }}
      </BDropdownItemButton>
      <BDropdownItemButton data-test="keep-element" @click="emit('keep')">
        {{ $t('layer.layerRow.keepInTheKit') }}
      </BDropdownItemButton>
    </BDropdown>
  </li>
</template>

<style scoped>
li {
  display: flex;
  align-items: center;
  background: var(--raised);
  border-radius: var(--fold);
  min-width: 0;
}
.here {
  outline: 2px solid var(--accent);
  background: #3d2a35;
}
.away .what {
  opacity: 0.45;
}
.grip {
  border: 0;
  background: none;
  color: var(--quiet);
  padding: 0;
  width: 24px;
  align-self: stretch;
  cursor: grab;
  touch-action: none;
}
.what {
  flex: 1;
  min-width: 0;
  display: grid;
  grid-template-columns: 38px minmax(0, 1fr) minmax(0, max-content) 30px;
  align-items: center;
  gap: 8px;
  border: 0;
  background: none;
  color: var(--text);
  text-align: left;
  padding: 4px 0;
  min-height: 50px;
}
.what img,
.glyph {
  width: 38px;
  height: 42px;
  object-fit: cover;
  border-radius: 7px 7px 2px 7px;
  background: var(--neutral);
}
.glyph {
  display: grid;
  place-items: center;
  background: var(--adjustment);
}
.words {
  display: grid;
  min-width: 0;
}
.name {
  font-weight: 600;
}
.blend {
  color: var(--soft);
  max-width: 78px;
}
.opacity {
  text-align: right;
  font-weight: 600;
}
.small {
  min-width: 34px;
  padding: 0 4px;
}
@media (pointer: coarse) {
  .small,
  .grip {
    min-width: var(--touch);
    min-height: var(--touch);
  }
}
/* On a phone a picture in a row: held and drawn aside it goes in front or behind. */
.phone li {
  position: relative;
  flex-direction: column;
  align-items: stretch;
  min-height: 0;
}
.phone .what {
  flex: 1;
  grid: minmax(0, 1fr) auto / minmax(0, 1fr);
  gap: 1px;
  padding: 0;
  min-height: 0;
}
.phone .what :is(img, .glyph) {
  width: 100%;
  height: 100%;
  min-height: 0;
}
@container (height > 200px) {
  .phone .what :is(img, .glyph) {
    height: auto;
    aspect-ratio: var(--shape);
  }
}
.phone .words {
  padding: 0 6px;
}
.phone .words .quiet,
.phone .blend,
.phone .opacity {
  display: none;
}
.phone .name {
  font-size: 12px;
}
.phone .grip {
  position: absolute;
  left: 0;
  top: 0;
  width: 44px;
  height: 44px;
  z-index: 1;
  color: #fff;
  filter: drop-shadow(0 0 2px #000);
}
.phone .small {
  display: none;
}
.phone li :deep(.dropdown),
.phone li :deep(.btn-group) {
  position: absolute;
  right: 0;
  top: 0;
  filter: drop-shadow(0 0 2px #000);
}
.phone li :deep(.small) {
  display: inline-flex;
}
</style>
