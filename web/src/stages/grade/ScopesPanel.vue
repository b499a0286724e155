<script setup lang="ts">
/** Scopes: one to three, in sizes of one's own, with what is crushed and clipped as numbers. */
import { useLocalStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import IconBox from '~icons/tabler/crop'
import IconMarks from '~icons/tabler/line-dashed'
import { usePhone } from '@/look/phone'
import { useGrading } from '@/stores/grading'
import ScopeView from './ScopeView.vue'
import { useGrip } from '@/controls/useGrip'
import { percent, SCOPES, type ScopeKind } from './scopes'
import { useScopes } from './useScopes'

const grading = useGrading()
const { phone } = usePhone()
const { visible, measured, toggle } = useScopes()
const rows = useLocalStorage('velvet-kite.scope-rows', 0.52)
const columns = useLocalStorage('velvet-kite.scope-columns', 0.42)
const field = ref<HTMLElement | null>(null)

const views = computed(() =>
  [...visible.value].sort((a, b) => Number(a === 'vectors') - Number(b === 'vectors')),
)
const layout = computed(() => ({
  '--top': `${rows.value}fr`,
  '--bottom': `${1 - rows.value}fr`,
  '--left': `${columns.value}fr`,
  '--right': `${1 - columns.value}fr`,
}))

function divide(event: PointerEvent, which: 'rows' | 'columns') {
  const box = field.value?.getBoundingClientRect()
  if (!box || !event.buttons) return
  const share =
    which === 'rows'
      ? (event.clientY - box.top) / box.height
      : (event.clientX - box.left) / box.width
  const target = which === 'rows' ? rows : columns
  target.value = Math.min(0.8, Math.max(0.2, share))
}

function nudge(event: KeyboardEvent, which: 'rows' | 'columns') {
  const by = { ArrowUp: -0.04, ArrowLeft: -0.04, ArrowDown: 0.04, ArrowRight: 0.04 }[event.key]
  if (!by) return
  event.preventDefault()
  event.stopPropagation()
  const target = which === 'rows' ? rows : columns
  target.value = Math.min(0.8, Math.max(0.2, target.value + by))
}

const grip = useGrip<'rows' | 'columns'>({
  slop: 0,
  move: ({ event }, which) => divide(event, which),
  drop: () => {},
})

/** On a phone it is seen over the picture. */
function show(kind: ScopeKind) {
  toggle(kind)
  grading.banded = true
}

function toggleBox() {
  if (grading.box) {
    grading.box = null
    grading.tool = ''
  } else {
    grading.box = [0.25, 0.25, 0.75, 0.75]
    grading.tool = 'box'
  }
}
</script>

<template>
  <section class="panel scopes" :aria-label="$t('grade.scopesPanel.scopes')">
    <div class="head">
      <div class="kinds" role="group" :aria-label="$t('grade.scopesPanel.whichScopesUpToThree')">
        <button
          v-for="one in SCOPES"
          :key="one.id"
          type="button"
          :aria-pressed="visible.includes(one.id)"
          :title="one.help"
          :data-test="`show-${one.id}`"
          @click="show(one.id)"
        >
          {{ one.name }}
        </button>
      </div>
    </div>
    <div v-if="!phone" ref="field" class="field" :class="`of-${views.length}`" :style="layout">
      <ScopeView v-for="kind in views" :key="kind" :kind="kind" :measured="measured" />
      <button
        v-if="views.length > 1"
        class="divider across"
        :aria-label="$t('grade.scopesPanel.heightOfTheUpperScope')"
        :style="{ top: `${rows * 100}%` }"
        @pointerdown="grip.down($event, 'rows')"
        @keydown="nudge($event, 'rows')"
      />
      <button
        v-if="views.length > 2"
        class="divider upright"
        :aria-label="$t('grade.scopesPanel.widthOfTheLeftScope')"
        :style="{ left: `${columns * 100}%`, top: `${rows * 100}%` }"
        @pointerdown="grip.down($event, 'columns')"
        @keydown="nudge($event, 'columns')"
      />
    </div>
    <div class="foot">
      <span class="share" data-test="crushed">
        <strong><i class="dot low" />{{ measured ? percent(measured.crushed) : '–' }}</strong>
        {{ $t('grade.scopesPanel.crushed') }}
      </span>
      <span class="share" data-test="clipped">
        <strong><i class="dot high" />{{ measured ? percent(measured.clipped) : '–' }}</strong>
        {{ $t('grade.scopesPanel.clipped') }}
      </span>
      <span class="grow" />
      <button
        class="btn btn-bare"
        :aria-pressed="grading.deep"
        :title="$t('grade.scopesPanel.levelsOf10BitsAs')"
        data-test="deep"
        @click="grading.deep = !grading.deep"
      >
        {{ grading.deep ? $t('grade.scopesPanel.n10Bit') : $t('grade.scopesPanel.n8Bit') }}
      </button>
      <button
        class="btn btn-bare"
        :aria-pressed="grading.marks"
        :title="$t('grade.scopesPanel.stripesOnThePictureWhere')"
        data-test="marks"
        @click="grading.marks = !grading.marks"
      >
        <IconMarks aria-hidden="true" /> {{ $t('grade.scopesPanel.marks') }}
      </button>
      <button
        class="btn btn-bare"
        :aria-pressed="Boolean(grading.box)"
        :title="$t('grade.scopesPanel.measureABoxOfThe')"
        data-test="box"
        @click="toggleBox"
      >
        <IconBox aria-hidden="true" /> {{ $t('grade.scopesPanel.box') }}
      </button>
    </div>
  </section>
</template>

<style scoped>
.scopes {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  gap: 8px;
}
.head {
  display: flex;
  align-items: center;
  gap: 8px;
  min-width: 0;
}
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.kinds button {
  border: 1px solid var(--line);
  background: none;
  color: var(--soft);
  border-radius: 8px 8px 2px 8px;
  padding: 2px 10px;
  font-size: 13px;
  font-weight: 600;
  min-height: var(--touch);
}
.kinds button[aria-pressed='true'] {
  background: #453c4e;
  border-color: #453c4e;
  color: var(--text);
}
.field {
  position: relative;
  display: grid;
  gap: 8px;
  min-height: 90px;
}
.of-2 {
  grid-template-rows: var(--top) var(--bottom);
}
.of-3 {
  grid-template: var(--top) var(--bottom) / var(--left) var(--right);
}
.of-3 > :first-child {
  grid-column: 1 / 3;
}
.divider {
  position: absolute;
  border: 0;
  padding: 0;
  background: none;
  touch-action: none;
}
.across {
  left: 0;
  right: 0;
  height: 24px;
  margin-top: -12px;
  cursor: row-resize;
}
.upright {
  bottom: 0;
  width: 24px;
  margin-left: -12px;
  cursor: col-resize;
}
.divider::after {
  content: '';
  position: absolute;
  inset: 0;
  margin: auto;
  width: 30px;
  height: 3px;
  border-radius: 2px;
  background: #5d5566;
}
.upright::after {
  width: 3px;
  height: 30px;
}
.foot {
  display: flex;
  align-items: center;
  gap: 4px 14px;
  font-size: 13px;
  color: var(--soft);
}
.share {
  display: grid;
  line-height: 1.25;
  white-space: nowrap;
}
.grow {
  flex: 1;
}
.dot {
  display: inline-block;
  width: 9px;
  height: 9px;
  border-radius: 5px 5px 1px 5px;
  margin-right: 4px;
}
.low {
  background: #40beaa;
}
.high {
  background: #ff6e50;
}
.btn {
  font-size: 13px;
  padding: 0 6px;
  gap: 5px;
}
.phone .scopes {
  padding: 4px 0;
  border-radius: 0;
  grid-template-rows: auto auto;
  align-content: center;
}
.phone .kinds {
  flex-wrap: nowrap;
  overflow-x: auto;
  scrollbar-width: none;
}
.phone .kinds button {
  white-space: nowrap;
}
.phone .foot {
  gap: 4px 8px;
}
.btn[aria-pressed='true'] {
  background: #453c4e;
  color: var(--text);
}
</style>
