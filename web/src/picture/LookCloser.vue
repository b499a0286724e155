<script setup lang="ts">
/** How large the picture is shown; closer, farther, and a hand to move it. */
import { BDropdown, BDropdownItemButton } from 'bootstrap-vue-next'
import IconHand from '~icons/tabler/hand-grab'
import { computed } from 'vue'
import { useSnapping } from '@/controls/useSnapping'
import { shapeName } from '@/api/shapes'
import { useProject } from '@/stores/project'

const props = defineProps<{ percent: number; zoom: number; moving: boolean; short?: boolean }>()
defineEmits<{ closer: []; farther: []; fit: []; move: [] }>()
const project = useProject()
const snapping = useSnapping()
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
      aria-label="Move the picture"
      title="A finger moves the picture, two zoom it"
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
        <span data-test="pace" title="Look closer (Ctrl and wheel)">{{ told }}</span>
      </template>
      <BDropdownItemButton data-test="closer" @click="$emit('closer')">
        Twice as close
      </BDropdownItemButton>
      <BDropdownItemButton :disabled="zoom === 1" @click="$emit('farther')">
        Half as close
      </BDropdownItemButton>
      <BDropdownItemButton :disabled="zoom === 1" data-test="fit" @click="$emit('fit')">
        All of it
      </BDropdownItemButton>
      <BDropdownItemButton
        data-test="snapping"
        role="menuitemcheckbox"
        :aria-checked="snapping.on.value"
        @click="snapping.on.value = !snapping.on.value"
      >
        {{ snapping.on.value ? 'Snapping is on: switch it off' : 'Snapping is off: switch it on' }}
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
