<script setup lang="ts">
import { BFormGroup, BFormInput, BFormSelect, BModal } from 'bootstrap-vue-next'
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { client, need } from '@/api/client'
import type { FrameRate } from '@/api/types'
import { SHAPES } from '@/api/shapes'
import { useNotes } from '@/stores/notes'
import { t } from '@/texts'
import { rateLabel } from '@/time'

const open = defineModel<boolean>({ required: true })
const notes = useNotes()
const router = useRouter()

const REMEMBERED = 'velvet-kite.new-project'
const kept = JSON.parse(localStorage.getItem(REMEMBERED) ?? '{}') as Record<string, string>

const name = ref('')
const shape = ref(kept.shape ?? '9:16')
const width = ref(Number(kept.width ?? 1080))
const height = ref(Number(kept.height ?? 1920))
const rate = ref(kept.rate ?? '30/1')
const rates = ref<FrameRate[]>([{ num: 30, den: 1 }])

onMounted(async () => {
  try {
    const choices = await need(client.GET('/api/choices'))
    rates.value = choices.rates.map((one) => ({ num: one.num ?? 30, den: one.den ?? 1 }))
  } catch (error) {
    notes.problem(error)
  }
})

const options = computed(() =>
  rates.value.map((one) => ({ value: `${one.num}/${one.den}`, text: rateLabel(one) })),
)
const size = computed(() => {
  const known = SHAPES.find((one) => one.name === shape.value)
  return known ? [known.width, known.height] : [width.value, height.value]
})
const fits = computed(() =>
  size.value.every(
    (side) => Number.isInteger(side) && side >= 16 && side <= 4096 && side % 2 === 0,
  ),
)

async function make() {
  const [num, den] = rate.value.split('/').map(Number)
  const [across, down] = size.value
  const body = {
    name: name.value.trim() || t('views.newProject.untitled'),
    canvas: { width: across ?? 1080, height: down ?? 1920, colour: '#000000' },
    rate: { num: num ?? 30, den: den ?? 1 },
  }
  try {
    const card = await need(client.POST('/api/projects', { body }))
    const remembered = { shape: shape.value, width: width.value, height: height.value }
    localStorage.setItem(REMEMBERED, JSON.stringify({ ...remembered, rate: rate.value }))
    await router.push({ name: 'studio', params: { id: card.id, stage: 'gather' } })
  } catch (error) {
    notes.problem(error)
  }
}
</script>

<template>
  <BModal
    v-model="open"
    :title="$t('views.newProject.newProject')"
    :ok-title="$t('views.newProject.makeTheProject')"
    :cancel-title="$t('words.cancel')"
    cancel-variant="secondary"
    :ok-disabled="!fits"
    @ok="make"
  >
    <BFormGroup :label="$t('words.name')" label-for="project-name" class="mb-3">
      <BFormInput
        id="project-name"
        v-model="name"
        data-first
        :placeholder="$t('views.newProject.untitled')"
        maxlength="200"
      />
    </BFormGroup>
    <fieldset class="mb-3">
      <legend class="form-label">{{ $t('views.newProject.shape') }}</legend>
      <div class="shapes">
        <button
          v-for="one in SHAPES"
          :key="one.name"
          type="button"
          class="shape"
          :aria-pressed="shape === one.name"
          @click="shape = one.name"
        >
          <span class="frame" :style="{ aspectRatio: `${one.width} / ${one.height}` }" />
          <span class="fw-semibold small">{{ one.name }}</span>
          <span class="tiny quiet">{{ one.width }} × {{ one.height }}</span>
        </button>
        <button type="button" class="shape" :aria-pressed="shape === 'own'" @click="shape = 'own'">
          <span class="frame own" />
          <span class="fw-semibold small">{{ $t('views.newProject.ownSize') }}</span>
          <span class="tiny quiet">{{ $t('views.newProject.upTo4096') }}</span>
        </button>
      </div>
      <div v-if="shape === 'own'" class="d-flex gap-2 mt-2">
        <BFormInput v-model.number="width" type="number" :aria-label="$t('words.width')" step="2" />
        <BFormInput
          v-model.number="height"
          type="number"
          :aria-label="$t('words.height')"
          step="2"
        />
      </div>
      <p v-if="!fits" class="small mt-2 mb-0" role="alert">
        {{ $t('views.newProject.eachSideIsAnEven') }}
      </p>
    </fieldset>
    <BFormGroup :label="$t('views.newProject.framesASecond')" label-for="project-rate">
      <BFormSelect id="project-rate" v-model="rate" :options="options" />
    </BFormGroup>
  </BModal>
</template>

<style scoped>
.shapes {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
}
.shape {
  display: grid;
  justify-items: center;
  align-content: end;
  gap: 2px;
  height: 112px;
  padding: 8px;
  background: var(--raised);
  color: var(--text);
  border: 2px solid transparent;
  border-radius: 12px 12px 3px 12px;
}
.shape[aria-pressed='true'] {
  border-color: var(--accent);
}
.frame {
  max-height: 44px;
  height: 44px;
  max-width: 64px;
  border-radius: 4px 4px 1px 4px;
  background: linear-gradient(#e8a98a, #8f5a6c);
  margin-bottom: 4px;
}
.frame.own {
  width: 44px;
  background: none;
  border: 2px dashed var(--quiet);
}
</style>
