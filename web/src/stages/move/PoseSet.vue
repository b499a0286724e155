<script setup lang="ts">
/** The poses that a mouth has: renamed, given another picture, added, taken away. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import IconBefore from '~icons/tabler/arrow-left'
import IconAfter from '~icons/tabler/arrow-right'
import type { MouthClip, Take } from '@/api/types'
import ChoiceSelect from '@/controls/ChoiceSelect.vue'
import NameDialog from '@/controls/NameDialog.vue'
import ToolLine from '@/controls/ToolLine.vue'
import { useLibrary } from '@/stores/library'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { partOf } from '@/takes/placing'
import TrayItem from '@/tray/TrayItem.vue'

const props = defineProps<{ clip: MouthClip; poses: readonly string[]; pose: string }>()
const library = useLibrary()
const project = useProject()
const id = computed(() => props.clip.id ?? '')

/** The pose that is meant: that of the playhead until another is chosen. */
const wanted = ref('')
const chosen = computed({
  get: () => (props.poses.includes(wanted.value) ? wanted.value : props.pose),
  set: (pose) => (wanted.value = pose),
})

/** Among the others; its digit is one more. */
const place = computed(() => props.poses.indexOf(chosen.value))
const STEPS = [
  { by: -1, icon: IconBefore, name: t('move.poseSet.before'), test: 'pose-before' },
  { by: 1, icon: IconAfter, name: t('move.poseSet.after'), test: 'pose-after' },
]

const name = ref('')
const asking = ref<'' | 'rename' | 'add'>('')
function ask(what: 'rename' | 'add') {
  name.value = what === 'rename' ? chosen.value : ''
  asking.value = what
}
async function named() {
  const given = name.value.trim().slice(0, 40)
  if (!given) return
  const pose = chosen.value
  const done = await project.edit(
    asking.value === 'add'
      ? { kind: 'add_pose', clip: id.value, name: given, like: pose }
      : { kind: 'set_pose', clip: id.value, pose, name: given },
  )
  if (done) wanted.value = given
}

/** Takes with a picture. */
const pictures = computed(() => library.takes.filter((take: Take) => take.facts?.picture))
function show(take: string) {
  const found = pictures.value.find((one) => one.id === take)
  if (!found) return
  project.edit({ kind: 'set_pose', clip: id.value, pose: chosen.value, take: partOf(found) })
}
</script>

<template>
  <TrayItem :name="$t('move.poseSet.poses')" :told="String(poses.length)" last>
    <ToolLine :label="$t('move.poseSet.poses')">
      <ChoiceSelect
        :label="$t('move.poseSet.which')"
        :choices="poses.map((one) => ({ id: one, name: one }))"
        :taken="chosen"
        data-test="which-pose"
        @take="chosen = $event"
      />
      <BButton
        v-for="one in STEPS"
        :key="one.by"
        size="sm"
        variant="secondary"
        :title="one.name"
        :aria-label="one.name"
        :data-test="one.test"
        :disabled="!poses[place + one.by]"
        @click="project.edit({ kind: 'order_pose', clip: id, pose: chosen, to: place + one.by })"
      >
        <component :is="one.icon" aria-hidden="true" />
      </BButton>
      <BButton size="sm" variant="secondary" data-test="rename-pose" @click="ask('rename')">
        {{ $t('move.poseSet.rename') }}
      </BButton>
      <BButton size="sm" variant="secondary" data-test="add-pose" @click="ask('add')">
        {{ $t('move.poseSet.add') }}
      </BButton>
      <BButton
        size="sm"
        variant="secondary"
        data-test="remove-pose"
        :disabled="poses.length < 2"
        @click="project.edit({ kind: 'remove_pose', clip: id, pose: chosen })"
      >
        {{ $t('move.poseSet.remove') }}
      </BButton>
      <BButton size="sm" variant="secondary" data-test="open-poses" @click="project.enter(id)">
        {{ $t('move.poseSet.draw') }}
      </BButton>
    </ToolLine>
    <label class="row-of">
      <span>{{ $t('move.poseSet.picture') }}</span>
      <select
        class="form-select form-select-sm"
        value=""
        data-test="pose-picture"
        @change="show(($event.target as HTMLSelectElement).value)"
      >
        <option value="">{{ $t('move.poseSet.choose') }}</option>
        <option v-for="take in pictures" :key="take.id" :value="take.id">{{ take.name }}</option>
      </select>
    </label>
    <p class="tiny quiet mb-0">{{ $t('move.poseSet.help') }}</p>
    <NameDialog
      v-model="name"
      :open="asking !== ''"
      :title="asking === 'add' ? $t('move.poseSet.addTitle') : $t('move.poseSet.renameTitle')"
      :most="40"
      @ok="named"
      @hidden="asking = ''"
    />
  </TrayItem>
</template>

<style scoped>
.row-of {
  display: grid;
  grid-template-columns: 84px 1fr;
  align-items: center;
  gap: 8px;
}
</style>
