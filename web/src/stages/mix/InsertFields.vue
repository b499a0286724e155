<script setup lang="ts">
/** The values of one insert; of an equaliser its curve, of a noise reduction what it has learnt. */
import { computed } from 'vue'
import { BButton } from 'bootstrap-vue-next'
import { client, need } from '@/api/client'
import type { Insert } from '@/api/types'
import ControlFields from '@/controls/ControlFields.vue'
import { useScreen } from '@/player/inject'
import { useKit } from '@/stores/kit'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { useViewing } from '@/stores/viewing'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import type { ChainOwner } from './chain'
import EqualiserPart from './EqualiserPart.vue'
import ReductionMeter from './ReductionMeter.vue'
import { useAsking } from '@/stores/useAsking'

const props = defineProps<{ chain: ChainOwner; insert: Insert }>()
const kit = useKit()
const notes = useNotes()
const project = useProject()
const viewing = useViewing()
const { player } = useScreen()
const { here, ask, busy } = useAsking()

const kind = computed(() => kit.sound?.inserts.find((one) => one.kind === props.insert.kind))
const set = (values: Record<string, unknown>) => props.chain.set(props.insert.id ?? '', values)

const known = computed(
  () => props.insert.kind === 'denoise' && (props.insert.noise?.length ?? 0) > 0,
)

/** From what plays again and again, or from half a second at the playhead. */
async function learn() {
  const of = props.chain.noiseOf()
  if (!of) return
  const half = Math.ceil(project.rate.num / project.rate.den / 2)
  const first = viewing.loop?.from ?? player.shown.value
  const last = viewing.loop?.to ?? Math.min(first + half, project.frames)
  const { path, query } = here()
  const noise = await ask(() =>
    need(
      client.POST('/api/projects/{id}/revisions/{revision}/noise', {
        params: { path, query },
        body: { first, last, track: '', clip: '', ...of },
      }),
    ),
  )
  if (noise && (await set({ noise }))) notes.told(t('mix.insertFields.learnt'))
}
</script>

<template>
  <EqualiserPart
    v-if="insert.kind === 'equaliser'"
    :equaliser="insert"
    :local="chain.local.value"
    @set="set"
  />
  <template v-else>
    <TrayItem
      v-if="insert.kind === 'denoise'"
      :name="$t('mix.insertFields.noise')"
      :told="known ? $t('mix.insertFields.isLearnt') : ''"
    >
      <div class="learn">
        <BButton
          size="sm"
          :variant="known ? 'secondary' : 'primary'"
          :disabled="busy || !chain.noiseOf()"
          data-test="learn-noise"
          @click="learn"
        >
          {{ known ? $t('mix.insertFields.learnAgain') : $t('mix.insertFields.learn') }}
        </BButton>
        <span class="tiny quiet">
          {{
            !chain.noiseOf()
              ? $t('mix.insertFields.onATrack')
              : viewing.loop
                ? $t('mix.insertFields.fromTheLoop')
                : $t('mix.insertFields.fromThePlayhead')
          }}
        </span>
      </div>
    </TrayItem>
    <ReductionMeter
      v-if="kit.sound?.turns_down.includes(insert.kind ?? '')"
      :chain="chain"
      :insert="insert"
    />
    <ControlFields
      :controls="kind?.controls ?? []"
      :values="insert as unknown as Record<string, unknown>"
      :local="chain.local.value"
      @set="set"
    />
  </template>
</template>

<style scoped>
.learn {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  padding: 4px 0;
}
</style>
