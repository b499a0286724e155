<script setup lang="ts">
/** The first sliders: light, white, contrast, colour; and finding white. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref, watch } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import { useScreen } from '@/player/inject'
import { useGrading } from '@/stores/grading'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { usePhone } from '@/look/phone'
import TrayItem from '@/tray/TrayItem.vue'
import GradeSliders from './GradeSliders.vue'
import NeutralTools from './NeutralTools.vue'
import type { useGrade } from './useGrade'

const props = defineProps<{ grade: ReturnType<typeof useGrade> }>()
const grading = useGrading()
const { phone } = usePhone()
const project = useProject()
const notes = useNotes()
const { player } = useScreen()

type Neutral = Schemas['NeutralOut']
/** What a tap found; its balance has been set. */
const found = ref<Neutral | null>(null)
/** A balance that waits to be taken or refused; it is shown meanwhile. */
const offer = ref<Schemas['BalanceOut'] | null>(null)
const asking = ref(false)
const whole = computed(() => !props.grade.zone.value)

const params = () => ({
  path: { id: project.id, revision: project.revision },
  query: { within: project.within },
})

watch(
  () => grading.tapped,
  async (spot) => {
    const clip = props.grade.clip.value?.id
    if (!spot || !clip || grading.zone) return
    grading.tapped = null
    try {
      const body = { clip, frame: player.shown.value, ...spot }
      const asked = client.POST('/api/projects/{id}/revisions/{revision}/neutral', {
        params: params(),
        body,
      })
      found.value = await need(asked)
      await take(found.value)
    } catch (error) {
      notes.problem(error)
    }
  },
)
watch([() => props.grade.clip.value?.id, () => player.shown.value], () => {
  found.value = null
  if (offer.value) refuse()
})

function take({ warmth, tint }: { warmth: number; tint: number }) {
  offer.value = null
  return props.grade.set({
    'balance/warmth': warmth,
    'balance/tint': tint,
    'balance/on': true,
  })
}

async function suggest() {
  const clip = props.grade.clip.value?.id
  if (!clip) return
  asking.value = true
  try {
    const body = { clip, frame: player.shown.value }
    const asked = client.POST('/api/projects/{id}/revisions/{revision}/suggestion', {
      params: params(),
      body,
    })
    offer.value = await need(asked)
    props.grade.trying({
      'balance/warmth': offer.value.warmth,
      'balance/tint': offer.value.tint,
      'balance/on': true,
    })
  } catch (error) {
    notes.problem(error)
  } finally {
    asking.value = false
  }
}

function refuse() {
  offer.value = null
  player.endTrial()
  player.draw()
}

const signed = (value: number) => (value > 0 ? `+${value}` : String(value))
const percent = (share: number) => `${(share * 100).toFixed(1)} %`
</script>

<template>
  <div class="tray-group">
    <GradeSliders :grade="grade" stage="light" />
    <GradeSliders :grade="grade" stage="balance">
      <template v-if="whole && !phone" #head>
        <NeutralTools :asking="asking" @suggest="suggest" />
      </template>
      <TrayItem v-if="whole && phone" :name="$t('grade.balancePart.neutral')">
        <NeutralTools :asking="asking" @suggest="suggest" />
      </TrayItem>
      <div v-if="offer" class="offer tray-keep" role="status">
        <span>
          {{
            $t('grade.balancePart.suggestedWarmthTintThePicture', {
              warmth: signed(offer.warmth),
              tint: signed(offer.tint),
            })
          }}
        </span>
        <BButton size="sm" variant="primary" data-test="take-offer" @click="take(offer)">
          {{ $t('grade.balancePart.takeIt') }}
        </BButton>
        <BButton size="sm" variant="secondary" data-test="refuse-offer" @click="refuse">
          {{ $t('grade.balancePart.refuse') }}
        </BButton>
      </div>
      <div v-else-if="found" class="offer tray-keep" role="status" data-test="distance">
        <i class="patch" :style="{ background: `rgb(${found.rgb.join(' ')})` }" />
        <span>
          {{
            $t('grade.balancePart.itWasFromNeutralNow', {
              before: percent(found.distance),
              after: percent(found.after),
            })
          }}
        </span>
      </div>
    </GradeSliders>
    <GradeSliders :grade="grade" stage="contrast" />
    <GradeSliders :grade="grade" stage="colour" />
  </div>
</template>

<style scoped>
.offer {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  font-size: 13px;
  color: var(--soft);
  padding: 4px 0;
}
.offer span {
  flex: 1;
  min-width: 160px;
}
.patch {
  width: 22px;
  height: 22px;
  border-radius: 6px 6px 2px 6px;
}
</style>
