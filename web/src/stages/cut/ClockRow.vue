<script setup lang="ts">
/** Files whose clocks ran faster or slower than that of the first: played as fast as they ran, or left. */
import { BButton } from 'bootstrap-vue-next'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import type { MulticamClip } from '@/api/types'
import ToolLine from '@/controls/ToolLine.vue'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import { filesOf, gainsOf, takenOut } from './files'

const props = defineProps<{ clip: MulticamClip; found: readonly Schemas['Found'][] }>()
const project = useProject()

const rows = computed(() =>
  filesOf(props.clip).flatMap((file) => {
    const told = props.found.find((one) => one.angle === file.angle && one.file === file.file)
    const out = takenOut(file)
    const drift = out || told?.drift || 0
    return drift ? [{ ...file, drift, out: out !== 0, middle: told?.middle ?? file.from }] : []
  }),
)
const left = computed(() => rows.value.filter((row) => !row.out))
const out = computed(() => rows.value.filter((row) => row.out))

function even(files: typeof rows.value, keep: (drift: number) => number) {
  const clocks = files.map(({ angle, file, drift, middle }) => ({
    angle,
    file,
    drift: keep(drift),
    held: middle,
  }))
  return project.edit({ kind: 'even_clocks', clip: props.clip.id ?? '', clocks })
}
function drifts({ name, drift }: { name: string; drift: number }) {
  const ms = Math.abs(gainsOf(drift))
  return drift > 0 ? t('cut.clockRow.gains', { name, ms }) : t('cut.clockRow.loses', { name, ms })
}
</script>

<template>
  <TrayItem v-if="rows.length" :name="$t('cut.clockRow.clocks')" :told="String(rows.length)">
    <ul class="list-unstyled small mb-1" data-test="clocks">
      <li v-for="row in rows" :key="`${row.angle}-${row.file}`" class="quiet">
        {{ drifts(row) }}<template v-if="row.out">{{ $t('cut.clockRow.isOut') }}</template>
      </li>
    </ul>
    <ToolLine>
      <BButton
        variant="secondary"
        :disabled="!left.length"
        :title="$t('cut.clockRow.takeOutHelp')"
        data-test="drift-out"
        @click="even(left, (drift) => drift)"
      >
        {{ $t('cut.clockRow.takeOut') }}
      </BButton>
      <BButton
        variant="secondary"
        :disabled="!out.length"
        data-test="drift-in"
        @click="even(out, () => 0)"
      >
        {{ $t('cut.clockRow.leaveIn') }}
      </BButton>
    </ToolLine>
  </TrayItem>
</template>

<style scoped>
ul {
  max-height: 4.5em;
  overflow-y: auto;
}
</style>
