<script setup lang="ts" generic="Part extends string">
/**
 * What there is, beside the parts of what is in hand. Without room for both, one of all of them;
 * on a phone, one control of it.
 */
import { useElementSize } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { usePhone } from '@/look/phone'
import { usePage } from '@/stores/page'
import { useProject } from '@/stores/project'
import ToolTray from '@/tray/ToolTray.vue'
import ChoiceGroup from './ChoiceGroup.vue'

const props = defineProps<{
  /** Name of the panel of what is in hand. */
  label: string
  parts: readonly { id: Part; name: string; test?: string }[]
  part: Part | null
  /** Name of the first panel, as it stands among the parts on a phone. */
  left: string
  /** Whether something is in hand. */
  filled: boolean
  /** Whether the first panel takes less of the width. */
  narrow?: boolean
  /** Whether a phone shows the first panel to begin with. */
  leftFirst?: boolean
}>()
const emit = defineEmits<{ take: [part: Part] }>()
const project = useProject()
const page = usePage()
const { phone } = usePhone()

/** Pixels below which two panels beside each other have no room for names and sliders. */
const ROOM_FOR_TWO = 760
const pair = ref<HTMLElement | null>(null)
const { width } = useElementSize(pair)
const folded = computed(() => !phone.value && width.value > 0 && width.value < ROOM_FOR_TWO)

const onLeft = ref(props.leftFirst ?? false)
const LEFT = 'left'
const places = computed(() => [
  { id: LEFT, name: props.left, test: 'part-left' },
  ...(props.filled ? props.parts : []),
])
const place = computed<string>(() => (onLeft.value ? LEFT : (props.part ?? '')))
const leftAlone = computed(() => folded.value && onLeft.value)
watch(
  () => folded.value && !onLeft.value,
  (away) => (page.leftAway = away),
)
onBeforeUnmount(() => (page.leftAway = false))

function take(id: string) {
  onLeft.value = id === LEFT
  const part = props.parts.find((one) => one.id === id)
  if (part) emit('take', part.id)
}
watch(
  () => props.part,
  () => (onLeft.value = false),
)
</script>

<template>
  <ToolTray v-if="phone" :label="label" :parts="places" :part="place" @take="take">
    <slot v-if="onLeft" name="left" />
    <div v-else-if="filled" :key="project.refusals" class="in-tray"><slot /></div>
    <div v-else class="empty"><slot name="empty" /></div>
  </ToolTray>
  <div v-else ref="pair" class="pair" :class="{ narrow, folded }">
    <div v-if="!folded" class="left"><slot name="left" /></div>
    <section v-if="filled || folded" class="panel right" :aria-label="label">
      <div class="tools">
        <ChoiceGroup
          :label="label"
          :choices="folded ? places : parts"
          :taken="folded ? place : (part ?? '')"
          @take="take"
        />
      </div>
      <div v-if="$slots.tools && filled && !leftAlone" class="tools second">
        <slot name="tools" />
      </div>
      <div v-if="leftAlone" class="left"><slot name="left" /></div>
      <!-- Drawn anew when a step was refused: fields and switches show again what is. -->
      <div v-else-if="filled" :key="project.refusals" class="body"><slot /></div>
      <div v-else class="empty"><slot name="empty" /></div>
    </section>
    <section v-else class="panel right empty"><slot name="empty" /></section>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr);
  gap: 12px;
  padding: 12px 14px;
  min-height: 0;
}
.pair.narrow {
  grid-template-columns: minmax(292px, 0.7fr) minmax(0, 1.3fr);
}
.pair.folded {
  grid-template-columns: minmax(0, 1fr);
}
.folded :is(.left, .empty) {
  flex: 1;
}
.left {
  display: grid;
  min-height: 0;
  min-width: 0;
}
.right {
  display: flex;
  flex-direction: column;
  gap: 4px;
  padding-right: 6px;
}
.right.empty {
  display: grid;
}
.tools {
  display: flex;
  align-items: center;
  gap: 2px;
  min-width: 0;
}
.tools :deep(.choices) {
  width: 100%;
  flex-wrap: nowrap;
  overflow-x: auto;
  scrollbar-width: none;
}
.tools :deep(.choices button) {
  flex: 1 0 auto;
  padding: 4px 6px;
  white-space: nowrap;
}
.second {
  min-height: var(--touch);
}
.second :deep(.btn) {
  font-size: 13px;
  padding: 0 6px;
  gap: 5px;
}
.second :deep([aria-pressed='true']) {
  background: #453c4e;
  color: var(--text);
}
.second :deep(.grow) {
  flex: 1;
}
.body {
  flex: 1;
  overflow-y: auto;
  scrollbar-width: thin;
  padding: 0 8px 0 3px;
  margin-left: -3px;
  min-height: 0;
}
.body :deep(.field) {
  min-height: 34px;
}
.in-tray {
  display: grid;
  grid: minmax(0, 1fr) / minmax(0, 1fr);
  min-height: 0;
}
@media (pointer: coarse) {
  .body :deep(.field) {
    min-height: var(--touch);
  }
}
</style>
