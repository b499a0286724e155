<script setup lang="ts">
import { BButton, BModal } from 'bootstrap-vue-next'
import { ref, watch } from 'vue'
import type { Marker, Tag } from '@/api/types'
import TagPicker from '@/controls/TagPicker.vue'
import { useProject } from '@/stores/project'

const marker = defineModel<Marker | null>({ required: true })
const project = useProject()
const name = ref('')
const tag = ref<Tag>('')

watch(marker, (now) => {
  name.value = now?.name ?? ''
  tag.value = now?.tag ?? ''
})

function set() {
  const id = marker.value?.id
  if (id) project.edit({ kind: 'set_marker', marker: id, name: name.value.trim(), tag: tag.value })
}

function remove() {
  const id = marker.value?.id
  marker.value = null
  if (id) project.edit({ kind: 'remove_marker', marker: id })
}
</script>

<template>
  <BModal
    :model-value="marker !== null"
    :title="$t('timeline.markerDialog.marker')"
    :ok-title="$t('timeline.markerDialog.set')"
    :cancel-title="$t('words.cancel')"
    cancel-variant="secondary"
    @ok="set"
    @hidden="marker = null"
  >
    <label class="form-label" for="marker-name">{{ $t('words.name') }}</label>
    <input id="marker-name" v-model="name" data-first class="form-control mb-3" maxlength="200" />
    <TagPicker v-model="tag" />
    <BButton variant="secondary" class="mt-3" @click="remove">{{
      $t('timeline.markerDialog.deleteTheMarker')
    }}</BButton>
  </BModal>
</template>
