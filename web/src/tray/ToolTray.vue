<script setup lang="ts" generic="Part extends string">
/** What is done to what is in hand, on a phone: one control, the names of its part, the parts. */
import { nextTick, provide, ref, shallowRef, watch } from 'vue'
import { TRAY, type Entry } from './tray'

const props = defineProps<{
  label: string
  parts: readonly { id: Part; name: string; test?: string }[]
  part: Part
}>()
defineEmits<{ take: [part: Part] }>()

const entries = shallowRef<Entry[]>([])
const taken = ref<symbol | null>(null)
/** The control that was used last in each part: there one goes on. */
const last = new Map<string, string>()
provide(TRAY, { single: ref(true), entries, taken })

watch(entries, (now) => {
  if (now.some((one) => one.id === taken.value)) return
  const known = now.find((one) => one.name() === last.get(props.part))
  taken.value = (known ?? now[0])?.id ?? null
})

function take(entry: Entry) {
  taken.value = entry.id
  last.set(props.part, entry.name())
}

const names = ref<HTMLElement | null>(null)
const rows = ref<HTMLElement | null>(null)
watch([taken, entries, () => props.part], async () => {
  await nextTick()
  for (const row of [names.value, rows.value]) {
    row
      ?.querySelector('[aria-pressed=true]')
      ?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  }
})
</script>

<template>
  <section class="tray" :aria-label="label">
    <div
      v-if="entries.length > 1"
      ref="names"
      class="chips"
      role="group"
      :aria-label="$t('tray.toolTray.controls')"
    >
      <button
        v-for="(one, index) in entries"
        :key="index"
        type="button"
        class="chip"
        :aria-pressed="one.id === taken"
        :data-test="`control-${one.name()}`"
        @click="take(one)"
      >
        <svg v-if="one.keyed()" viewBox="0 0 14 20" :aria-label="$t('tray.toolTray.hasKeys')">
          <path d="M7 1l6 6-6 12L1 7z" />
        </svg>
        {{ one.name() }}<span v-if="one.told()" class="told">{{ one.told() }}</span>
      </button>
    </div>
    <div class="place" :class="{ single: entries.length }"><slot /></div>
    <div
      ref="rows"
      class="chips parts"
      role="group"
      :aria-label="$t('tray.toolTray.parts', { label })"
    >
      <button
        v-for="one in parts"
        :key="one.id"
        type="button"
        class="chip"
        :aria-pressed="one.id === part"
        :data-test="one.test"
        @click="$emit('take', one.id)"
      >
        {{ one.name }}
      </button>
    </div>
  </section>
</template>

<style scoped>
.tray {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-height: 0;
  min-width: 0;
  background: var(--panel);
}
.chips {
  display: flex;
  gap: 6px;
  padding: 4px 12px 0;
  overflow-x: auto;
  scrollbar-width: none;
  scroll-padding: 0 40px;
}
.parts {
  grid-row: 3;
  padding: 0 12px 4px;
}
.chip {
  flex: none;
  display: inline-flex;
  align-items: center;
  gap: 5px;
  min-width: 44px;
  min-height: 44px;
  padding: 0 13px;
  border: 0;
  border-radius: var(--fold);
  background: linear-gradient(var(--raised), var(--raised)) center / 100% 38px no-repeat;
  color: var(--soft);
  font-size: 13px;
  font-weight: 600;
  white-space: nowrap;
}
.chip[aria-pressed='true'] {
  background-image: linear-gradient(#4a3a55, #4a3a55);
  color: var(--text);
  box-shadow: inset 0 0 0 0 transparent;
}
.parts .chip[aria-pressed='true'] {
  background-image: linear-gradient(var(--accent), var(--accent));
  color: var(--ink);
}
.told {
  color: var(--quiet);
  font-weight: 500;
}
.chip[aria-pressed='true'] .told {
  color: var(--soft);
}
.chip svg {
  width: 8px;
  height: 12px;
  fill: var(--mark);
}
.place {
  grid-row: 2;
  min-height: 0;
  min-width: 0;
  padding: 2px 14px;
  display: grid;
  grid: minmax(0, 1fr) / minmax(0, 1fr);
  container-type: size;
  overflow: hidden;
}
.place:not(.single) {
  overflow-y: auto;
}
/* Of what holds several controls, only the one in use is seen, and what tells of all of them. */
.single :deep(:is(fieldset, .tray-group) > :not(.alone, .tray-keep, :has(.alone))) {
  display: none;
}
.single :deep(:is(fieldset, .tray-group)) {
  display: flex;
  flex-direction: column;
  flex: 1;
  margin: 0;
  height: 100%;
}
.single :deep(:is(.alone, :has(.alone))) {
  flex: 1;
}
/* Rows of choices go on to the side. */
.place :deep(:is(.choices, .line, .several, .layouts)) {
  flex-wrap: nowrap;
  max-width: 100%;
  overflow-x: auto;
  scrollbar-width: none;
}
.place :deep(:is(.choices, .line, .several, .layouts) > *) {
  flex-shrink: 0;
  white-space: nowrap;
}
.place :deep(.line > .form-select) {
  flex-shrink: 1;
}
.single :deep(:is(fieldset, .tray-group):not(:has(.alone))) {
  display: none;
}
/* What lies beyond a control's edge is cut off here, so its ring goes inwards. */
.place :deep(:is(.form-select, .form-control):focus-visible) {
  outline-offset: -2px;
}
</style>
