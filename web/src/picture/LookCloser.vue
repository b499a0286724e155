<script setup lang="ts">
/** How large the picture is shown; closer, farther, and a hand to move it. */
import { BDropdown, BDropdownDivider, BDropdownItemButton } from 'bootstrap-vue-next'
import IconCheck from '~icons/tabler/check'
import IconHand from '~icons/tabler/hand-grab'
import { computed } from 'vue'
import { useSnapping } from '@/controls/useSnapping'
import { shapeName } from '@/api/shapes'
import { useProject } from '@/stores/project'
import { useViewing, type Guide, type Quality } from '@/stores/viewing'
import { t } from '@/texts'

const props = defineProps<{ percent: number; zoom: number; moving: boolean; short?: boolean }>()
defineEmits<{ closer: []; farther: []; fit: []; move: [] }>()
const project = useProject()
const snapping = useSnapping()
const viewing = useViewing()

const GUIDES: { id: Guide; name: string }[] = [
  { id: 'thirds', name: t('picture.lookCloser.linesAtThirds') },
  { id: 'safe', name: t('picture.lookCloser.areasThatAreSurelySeen') },
  { id: 'grid', name: t('picture.lookCloser.aGrid') },
]
const QUALITIES: { id: Quality; name: string }[] = [
  { id: 'auto', name: t('picture.lookCloser.playsAsWellAsIt') },
  { id: 'full', name: t('picture.lookCloser.playsInFullSize') },
  { id: 'half', name: t('picture.lookCloser.playsInHalfSize') },
  { id: 'quarter', name: t('picture.lookCloser.playsInQuarterSize') },
]
const told = computed(() => {
  const canvas = project.document?.canvas
  const shape = canvas && !props.short ? `${shapeName(canvas.width, canvas.height)} · ` : ''
  return `${shape}${props.percent} %`
})
</script>

<template>
  <div class="closer">
    <button
      v-if="zoom > 1"
      class="btn btn-bare hand"
      :aria-pressed="moving"
      :aria-label="$t('picture.lookCloser.moveThePicture')"
      :title="$t('picture.lookCloser.aFingerMovesThePicture')"
      data-test="hand-tool"
      @click="$emit('move')"
    >
      <IconHand aria-hidden="true" />
    </button>
    <BDropdown
      :variant="null"
      no-caret
      size="sm"
      toggle-class="btn-bare look-closer"
      teleport-to="body"
      strategy="fixed"
      placement="top-end"
      data-test="look-closer"
    >
      <template #button-content>
        <span data-test="pace" :title="$t('picture.lookCloser.lookCloserCtrlAndWheel')">{{
          told
        }}</span>
      </template>
      <BDropdownItemButton data-test="closer" @click="$emit('closer')">
        {{ $t('picture.lookCloser.twiceAsClose') }}
      </BDropdownItemButton>
      <BDropdownItemButton :disabled="zoom === 1" @click="$emit('farther')">
        {{ $t('picture.lookCloser.halfAsClose') }}
      </BDropdownItemButton>
      <BDropdownItemButton :disabled="zoom === 1" data-test="fit" @click="$emit('fit')">
        {{ $t('picture.lookCloser.allOfIt') }}
      </BDropdownItemButton>
      <BDropdownItemButton
        data-test="snapping"
        role="menuitemcheckbox"
        :aria-checked="snapping.on.value"
        @click="snapping.on.value = !snapping.on.value"
      >
        {{
          snapping.on.value
            ? $t('picture.lookCloser.snappingIsOnSwitchIt')
            : $t('picture.lookCloser.snappingIsOffSwitchIt')
        }}
      </BDropdownItemButton>
      <BDropdownDivider />
      <BDropdownItemButton
        v-for="one in GUIDES"
        :key="one.id"
        role="menuitemcheckbox"
        :aria-checked="viewing.guides.includes(one.id)"
        :data-test="`show-${one.id}`"
        @click="viewing.toggleGuide(one.id)"
      >
        <IconCheck v-if="viewing.guides.includes(one.id)" aria-hidden="true" />
        {{ one.name }}
      </BDropdownItemButton>
      <BDropdownDivider />
      <BDropdownItemButton
        v-for="one in QUALITIES"
        :key="one.id"
        role="menuitemradio"
        :aria-checked="viewing.quality === one.id"
        :data-test="`quality-${one.id}`"
        @click="viewing.quality = one.id"
      >
        <IconCheck v-if="viewing.quality === one.id" aria-hidden="true" />
        {{ one.name }}
      </BDropdownItemButton>
    </BDropdown>
  </div>
</template>

<style scoped>
.closer {
  display: inline-flex;
  align-items: center;
}
.phone .beside .closer {
  flex-direction: column;
}
.hand {
  min-width: 34px;
  padding: 0;
}
.hand[aria-pressed='true'] {
  background: var(--accent);
  color: var(--ink);
}
.closer :deep(.look-closer) {
  font-size: 12px;
  color: var(--quiet);
  padding: 0 4px;
}
</style>
