<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { BButton, BDropdown, BDropdownItemButton, BFormSelect, BModal } from 'bootstrap-vue-next'
import IconDots from '~icons/tabler/dots-vertical'
import IconRedo from '~icons/tabler/arrow-forward-up'
import IconHistory from '~icons/tabler/history'
import IconUndo from '~icons/tabler/arrow-back-up'
import IconHome from '~icons/tabler/chevron-left'
import { client, need } from '@/api/client'
import type { FrameRate } from '@/api/types'
import { usePhone } from '@/look/phone'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import HistoryDrawer from '@/views/HistoryDrawer.vue'
import { SHAPES, shapeName } from '@/api/shapes'
import SaveState from '@/controls/SaveState.vue'
import { useToldKeys } from '@/controls/useToldKeys'
import { rateLabel } from '@/time'

const props = defineProps<{ projectId: string }>()
defineEmits<{ flip: []; keys: [] }>()
const { phone } = usePhone()
const project = useProject()
const notes = useNotes()
const router = useRouter()
const told = useToldKeys()
const asking = ref(false)
const remembering = ref(false)
const name = ref('')
const shape = ref('')
const rate = ref('')
const rates = ref<FrameRate[]>([])

const facts = computed(() => {
  const canvas = project.document?.canvas
  if (!canvas) return ''
  const size = `${canvas.width} × ${canvas.height}`
  return t('views.topBar.fps', {
    shape: shapeName(canvas.width, canvas.height),
    size,
    rate: rateLabel(project.rate),
  })
})
const shapeOptions = computed(() => {
  const canvas = project.document?.canvas
  const known = SHAPES.map((one) => ({
    value: `${one.width}×${one.height}`,
    text: `${one.name} (${one.width} × ${one.height})`,
  }))
  const own = canvas ? `${canvas.width}×${canvas.height}` : ''
  const isKnown = known.some((one) => one.value === own)
  return isKnown ? known : [{ value: own, text: own }, ...known]
})
const rateOptions = computed(() =>
  rates.value.map((one) => ({ value: `${one.num}/${one.den}`, text: rateLabel(one) })),
)

async function ask() {
  name.value = project.name
  const canvas = project.document?.canvas
  shape.value = canvas ? `${canvas.width}×${canvas.height}` : ''
  rate.value = `${project.rate.num}/${project.rate.den}`
  asking.value = true
  try {
    const choices = await need(client.GET('/api/choices'))
    rates.value = choices.rates.map((one) => ({ num: one.num ?? 30, den: one.den ?? 1 }))
  } catch (error) {
    notes.problem(error)
  }
}

async function set() {
  try {
    if (name.value.trim() && name.value !== project.name) await project.rename(name.value.trim())
  } catch (error) {
    notes.problem(error)
  }
  const canvas = project.document?.canvas
  const [width = 0, height = 0] = shape.value.split('×').map(Number)
  if (canvas && (width !== canvas.width || height !== canvas.height)) {
    await project.edit({ kind: 'set_canvas', canvas: { ...canvas, width, height } })
  }
  const [num = 30, den = 1] = rate.value.split('/').map(Number)
  if (num !== project.rate.num || den !== project.rate.den) {
    await project.edit({ kind: 'set_rate', rate: { num, den } })
  }
}

function send() {
  router.push({ name: 'studio', params: { id: props.projectId, stage: 'send' } })
}
</script>

<template>
  <header class="top">
    <RouterLink to="/" class="btn btn-bare home" :aria-label="$t('views.topBar.allProjects')">
      <IconHome aria-hidden="true" />
    </RouterLink>
    <button class="name clip-text" :title="$t('views.topBar.nameShapeAndFrameRate')" @click="ask">
      {{ project.name || $t('views.topBar.opening') }}
    </button>
    <button class="facts" :title="$t('views.topBar.shapeAndFrameRate')" @click="ask">
      {{ facts }}
    </button>
    <span class="spacer" />
    <SaveState />
    <button
      class="btn btn-bare"
      :aria-label="$t('views.topBar.undo')"
      :title="told($t('views.topBar.undo'), 'ctrl+z')"
      :disabled="!project.canUndo && !project.waiting"
      data-test="undo"
      @click="project.undo()"
    >
      <IconUndo aria-hidden="true" />
    </button>
    <button
      class="btn btn-bare"
      :aria-label="$t('views.topBar.doAgain')"
      :title="told($t('views.topBar.doAgain'), 'ctrl+shift+z')"
      :disabled="!project.canRedo"
      data-test="redo"
      @click="project.redo()"
    >
      <IconRedo aria-hidden="true" />
    </button>
    <BDropdown
      v-if="phone"
      :variant="null"
      no-caret
      toggle-class="btn-bare"
      teleport-to="body"
      strategy="fixed"
      data-test="project-menu"
    >
      <template #button-content
        ><IconDots :aria-label="$t('views.topBar.moreForTheProject')"
      /></template>
      <BDropdownItemButton data-test="history" @click="remembering = true">
        {{ $t('views.topBar.historyAllStepsAndBack') }}
      </BDropdownItemButton>
      <BDropdownItemButton @click="ask">{{
        $t('views.topBar.nameShapeAndFrameRate')
      }}</BDropdownItemButton>
      <BDropdownItemButton data-test="flip" @click="$emit('flip')">
        {{ $t('views.topBar.playAndTimeOnThe') }}
      </BDropdownItemButton>
      <BDropdownItemButton @click="$emit('keys')">{{
        $t('views.topBar.keys')
      }}</BDropdownItemButton>
    </BDropdown>
    <button
      v-else
      class="btn btn-bare"
      :aria-label="$t('views.topBar.history')"
      :title="$t('views.topBar.historyAllStepsAndBack')"
      data-test="history"
      @click="remembering = true"
    >
      <IconHistory aria-hidden="true" />
    </button>
    <BButton variant="primary" @click="send">{{ $t('views.topBar.send') }}</BButton>
    <HistoryDrawer v-model="remembering" />
    <BModal
      v-model="asking"
      :title="$t('views.topBar.project')"
      :ok-title="$t('views.topBar.set')"
      :cancel-title="$t('words.cancel')"
      cancel-variant="secondary"
      @ok="set"
    >
      <label class="form-label" for="the-name">{{ $t('words.name') }}</label>
      <input id="the-name" v-model="name" class="form-control mb-3" maxlength="200" />
      <label class="form-label" for="the-shape">{{ $t('views.topBar.shape') }}</label>
      <BFormSelect id="the-shape" v-model="shape" :options="shapeOptions" class="mb-1" />
      <p class="small quiet">{{ $t('views.topBar.picturesKeepTheirPlaceFrom') }}</p>
      <label class="form-label" for="the-rate">{{ $t('views.topBar.framesASecond') }}</label>
      <BFormSelect id="the-rate" v-model="rate" :options="rateOptions" class="mb-1" />
      <p class="small quiet mb-0">
        {{ $t('views.topBar.clipsKeepTheirTimesTo') }}
      </p>
    </BModal>
  </header>
</template>

<style scoped>
.top {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 0 14px;
  border-bottom: 1px solid #241f29;
  min-width: 0;
}
.home {
  display: none;
  min-width: var(--touch);
}
.name {
  border: 0;
  background: none;
  color: var(--text);
  font-family: 'Bricolage Grotesque Variable', sans-serif;
  font-size: 17px;
  font-weight: 700;
  padding: 0;
  min-height: var(--touch);
  min-width: 60px;
}
.facts {
  border: 0;
  background: var(--raised);
  color: var(--soft);
  border-radius: 14px 14px 3px 14px;
  padding: 4px 12px;
  font-size: 12px;
  font-weight: 600;
  white-space: nowrap;
  min-height: 30px;
}
.spacer {
  flex: 1;
}
@media (max-width: 1000px) {
  .facts {
    display: none;
  }
}
.phone .home {
  display: inline-flex;
  margin-left: -8px;
}
.phone .facts {
  display: none;
}
.phone .top {
  padding: 0 8px;
  gap: 0;
}
</style>
