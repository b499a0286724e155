<script setup lang="ts">
/** What a timeline that was read would bring, before it takes the place of the film. */
import { BModal } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { useProject } from '@/stores/project'
import { t } from '@/texts'

const props = defineProps<{ taken: Schemas['TakenOver'] }>()
const emit = defineEmits<{ closed: [] }>()
const project = useProject()
const open = ref(true)
const clips = computed(() => {
  const count = props.taken.edit.tracks.reduce((sum, one) => sum + (one.clips?.length ?? 0), 0)
  return t('send.takeOver.clips', {}, count)
})

async function lay() {
  if (await project.edit(props.taken.edit)) open.value = false
}
</script>

<template>
  <BModal
    v-model="open"
    :title="$t('send.takeOver.title')"
    :ok-title="$t('send.takeOver.do')"
    :cancel-title="$t('words.cancel')"
    cancel-variant="secondary"
    scrollable
    @ok.prevent="lay"
    @hidden="emit('closed')"
  >
    <p>{{ $t('send.takeOver.what', { clips }) }}</p>
    <template v-if="taken.missing.length">
      <p class="mb-1">{{ $t('send.takeOver.missing') }}</p>
      <ul data-test="missing-takes">
        <li v-for="name in taken.missing" :key="name">{{ name }}</li>
      </ul>
    </template>
    <ul v-if="taken.remarks.length" class="small soft mb-0" data-test="left-out">
      <li v-for="remark in taken.remarks" :key="remark">{{ remark }}</li>
    </ul>
  </BModal>
</template>
