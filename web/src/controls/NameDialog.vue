<script setup lang="ts">
/** Name and colour of the clip in hand. */
import { BModal } from 'bootstrap-vue-next'
import { ref, watch } from 'vue'
import type { Tag } from '@/api/types'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'
import TagPicker from './TagPicker.vue'

const open = defineModel<boolean>({ required: true })
const hand = useHand()
const project = useProject()
const name = ref('')
const tag = ref<Tag>('')

watch(open, (opens) => {
  if (!opens) return
  name.value = hand.one?.clip.name ?? ''
  tag.value = hand.one?.clip.tag ?? ''
})

function set() {
  const clip = hand.one?.clip
  if (!clip) return
  const values = { name: name.value.trim(), tag: tag.value }
  project.edit({ kind: 'adjust', clips: [clip.id ?? ''], values })
}
</script>

<template>
  <BModal
    v-model="open"
    title="Name and colour"
    ok-title="Set"
    cancel-title="Cancel"
    cancel-variant="secondary"
    @ok="set"
  >
    <label class="form-label" for="clip-name">Name</label>
    <input id="clip-name" v-model="name" data-first class="form-control mb-3" maxlength="200" />
    <TagPicker v-model="tag" />
  </BModal>
</template>
