<script setup lang="ts">
/** Several takes of the same words: which of them is heard from the playhead on. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import ToolLine from '@/controls/ToolLine.vue'
import { useScreen } from '@/player/inject'
import { useLibrary } from '@/stores/library'
import { useProject } from '@/stores/project'
import { tickOf } from '@/time'
import TrayItem from '@/tray/TrayItem.vue'
import { overlaid, takesAt } from './sameWords'

const props = defineProps<{ name: string }>()
const project = useProject()
const library = useLibrary()
const { player } = useScreen()

const at = computed(() => tickOf(player.frame.value, project.rate))
const several = computed(() => overlaid(project.tracks, props.name))
const takes = computed(() =>
  takesAt(project.tracks, props.name, at.value).map((take, index) => ({
    ...take,
    title: `${index + 1} ${(library.byMedia.get(take.media)?.name ?? props.name).replace(/\.\w+$/, '')}`,
  })),
)
/** The only one that is heard here. */
const heard = computed(() => {
  const loud = takes.value.filter((take) => !take.muted)
  return loud.length === 1 ? loud[0] : undefined
})

const hear = (clip: string) =>
  project.edit({
    kind: 'hear_take',
    clip,
    others: takes.value.map(({ id }) => id).filter((id) => id !== clip),
    at: at.value,
  })
</script>

<template>
  <TrayItem v-if="several" :name="$t('mix.takesPart.takes')" :told="heard?.title ?? ''">
    <ToolLine :name="$t('mix.takesPart.takes')" :label="$t('mix.takesPart.takes')">
      <BButton
        v-for="take in takes"
        :key="take.id"
        size="sm"
        variant="secondary"
        :aria-pressed="take.id === heard?.id"
        :disabled="takes.length < 2"
        :title="$t('mix.takesPart.help')"
        data-test="hear-take"
        @click="take.id === heard?.id || hear(take.id)"
      >
        {{ take.title }}
      </BButton>
      <span v-if="takes.length < 2" class="tiny quiet">{{ $t('mix.takesPart.elsewhere') }}</span>
    </ToolLine>
    <p class="tiny quiet mb-0">{{ $t('mix.takesPart.fromHere') }}</p>
  </TrayItem>
</template>
