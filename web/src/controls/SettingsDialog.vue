<script setup lang="ts">
/** Which settings of the copied clip those in hand are given. */
import { BFormCheckbox, BModal } from 'bootstrap-vue-next'
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { useClipboard } from '@/stores/clipboard'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'

const open = defineModel<boolean>({ required: true })
const clipboard = useClipboard()
const hand = useHand()
const project = useProject()

const GROUPS = [
  { id: 'position', name: 'Position', help: 'Where it lies on the picture' },
  { id: 'size', name: 'Size and turn', help: 'How large, turned, leaning, mirrored' },
  { id: 'opacity', name: 'Opacity', help: 'How much of what lies below shows through' },
  { id: 'blend', name: 'Blend', help: 'How it mixes with what lies below' },
  { id: 'clipping', name: 'Clipping', help: 'Seen only where the layer below is' },
  { id: 'speed', name: 'Speed', help: 'Factor or ramp; the length follows' },
  { id: 'grade', name: 'Grade', help: 'All of it, with zones' },
  { id: 'key', name: 'Key', help: 'By colour or brightness' },
  { id: 'masks', name: 'Masks', help: 'And what is cropped' },
  { id: 'effects', name: 'Effects', help: 'In place of those that are there' },
  { id: 'moves', name: 'Motion', help: 'How it comes and goes, what it follows, its warp' },
  { id: 'sound', name: 'Sound', help: 'Gain, fades, pitch' },
] as const
type Group = (typeof GROUPS)[number]['id']

const chosen = useLocalStorage<Group[]>('velvet-kite.settings-given', ['grade'])
const source = computed(() => clipboard.first)
const many = computed(() => hand.found.length)

function give() {
  if (!source.value || !chosen.value.length) return
  project.edit({
    kind: 'apply_settings',
    clips: hand.ids,
    source: source.value as never,
    groups: [...chosen.value],
  })
}
</script>

<template>
  <BModal
    v-model="open"
    title="Give copied settings"
    :ok-title="many === 1 ? 'Give them' : `Give them to ${many} clips`"
    cancel-title="Back"
    cancel-variant="secondary"
    :ok-disabled="!chosen.length"
    data-test="settings-dialog"
    @ok="give"
  >
    <p class="quiet">From “{{ source?.name || 'the copied clip' }}”:</p>
    <BFormCheckbox
      v-for="one in GROUPS"
      :key="one.id"
      v-model="chosen"
      :value="one.id"
      class="group"
      :data-test="`group-${one.id}`"
    >
      {{ one.name }} <span class="tiny quiet">{{ one.help }}</span>
    </BFormCheckbox>
  </BModal>
</template>

<style scoped>
.group {
  min-height: var(--touch);
  display: flex;
  align-items: center;
  gap: 8px;
}
</style>
