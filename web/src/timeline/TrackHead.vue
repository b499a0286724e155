<script setup lang="ts">
import { BDropdown, BDropdownDivider, BDropdownItemButton } from 'bootstrap-vue-next'
import { ref } from 'vue'
import IconEye from '~icons/tabler/eye'
import IconEyeOff from '~icons/tabler/eye-off'
import IconVolume from '~icons/tabler/volume'
import IconVolumeOff from '~icons/tabler/volume-off'
import IconLock from '~icons/tabler/lock'
import type { Track } from '@/api/types'
import { useProject } from '@/stores/project'

const props = defineProps<{ track: Track; height: number }>()
const project = useProject()
const naming = ref(false)

function set(
  change: Partial<Pick<Track, 'name' | 'hidden' | 'muted' | 'solo' | 'locked' | 'closes_gaps'>>,
) {
  project.edit({ kind: 'set_track', track: props.track.id ?? '', ...change })
}

function order(by: number) {
  const isSound = props.track.kind === 'sound'
  const sort = project.tracks.filter((one) => (one.kind === 'sound') === isSound)
  const to = sort.findIndex((one) => one.id === props.track.id) + (isSound ? -by : by)
  project.edit({ kind: 'order_track', track: props.track.id ?? '', to })
}

function rename(event: Event) {
  naming.value = false
  const name = (event.target as HTMLInputElement).value.trim()
  if (name && name !== props.track.name) set({ name })
}
</script>

<template>
  <div class="head" :style="{ height: `${height}px` }">
    <input
      v-if="naming"
      class="form-control form-control-sm"
      :value="track.name"
      maxlength="40"
      :aria-label="$t('timeline.trackHead.nameOfTheTrack')"
      autofocus
      @blur="rename"
      @keydown.enter="rename"
      @keydown.esc="naming = false"
    />
    <BDropdown
      v-else
      :variant="null"
      no-caret
      toggle-class="btn-bare name"
      teleport-to="body"
      strategy="fixed"
    >
      <template #button-content>
        <span class="clip-text">{{ track.name }}</span>
        <IconLock v-if="track.locked" class="lock" :aria-label="$t('timeline.trackHead.locked')" />
      </template>
      <BDropdownItemButton @click="naming = true">{{ $t('words.rename') }}</BDropdownItemButton>
      <BDropdownItemButton @click="set({ solo: !track.solo })">
        {{
          track.solo
            ? $t('timeline.trackHead.hearAndSeeAllAgain')
            : $t('timeline.trackHead.onlyThisOneSolo')
        }}
      </BDropdownItemButton>
      <BDropdownItemButton v-if="track.kind !== 'sound'" @click="set({ muted: !track.muted })">
        {{ track.muted ? $t('timeline.trackHead.soundOn') : $t('timeline.trackHead.muteItsSound') }}
      </BDropdownItemButton>
      <BDropdownItemButton @click="set({ locked: !track.locked })">
        {{ track.locked ? $t('timeline.trackHead.unlock') : $t('timeline.trackHead.lock') }}
      </BDropdownItemButton>
      <BDropdownItemButton
        v-if="track.kind === 'main'"
        @click="set({ closes_gaps: !track.closes_gaps })"
      >
        {{
          track.closes_gaps
            ? $t('timeline.trackHead.leaveGapsOpen')
            : $t('timeline.trackHead.closeGaps')
        }}
      </BDropdownItemButton>
      <BDropdownItemButton @click="order(1)">{{
        $t('timeline.trackHead.moveUp')
      }}</BDropdownItemButton>
      <BDropdownItemButton @click="order(-1)">{{
        $t('timeline.trackHead.moveDown')
      }}</BDropdownItemButton>
      <template v-if="track.kind !== 'main'">
        <BDropdownDivider />
        <BDropdownItemButton
          variant="danger"
          @click="project.edit({ kind: 'remove_track', track: track.id ?? '' })"
        >
          {{ $t('timeline.trackHead.deleteTheTrack') }}
        </BDropdownItemButton>
      </template>
    </BDropdown>
    <button
      v-if="track.kind === 'sound'"
      class="btn btn-bare switch"
      :aria-pressed="track.muted"
      :aria-label="
        track.muted
          ? $t('timeline.trackHead.unmute', { name: track.name })
          : $t('timeline.trackHead.mute', { name: track.name })
      "
      @click="set({ muted: !track.muted })"
    >
      <IconVolumeOff v-if="track.muted" /><IconVolume v-else />
    </button>
    <button
      v-else
      class="btn btn-bare switch"
      :aria-pressed="track.hidden"
      :aria-label="
        track.hidden
          ? $t('timeline.trackHead.show', { name: track.name })
          : $t('timeline.trackHead.hide', { name: track.name })
      "
      @click="set({ hidden: !track.hidden })"
    >
      <IconEyeOff v-if="track.hidden" /><IconEye v-else />
    </button>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  justify-content: space-between;
  padding: 0 2px 0 6px;
  border-bottom: 1px solid #241f29;
  min-width: 0;
}
.head :deep(.dropdown),
.head :deep(.btn-group) {
  min-width: 0;
  flex: 1;
}
.head :deep(.name) {
  width: 100%;
  justify-content: flex-start;
  font-weight: 600;
  font-size: 13px;
  padding: 0 6px;
  min-height: 32px;
}
.switch {
  min-height: 32px;
  min-width: 34px;
  padding: 0;
}
.switch[aria-pressed='true'] {
  color: var(--accent);
}
@media (pointer: coarse) {
  .head :deep(.name),
  .switch {
    min-height: var(--touch);
    min-width: var(--touch);
  }
}
.lock {
  width: 14px;
  height: 14px;
}
</style>
