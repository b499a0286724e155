<script setup lang="ts">
/** Stars, colour, shelf and uses of a take. */
import { BFormSelect } from 'bootstrap-vue-next'
import { computed, ref, watch } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import type { Tag, Take } from '@/api/types'
import { useLibrary } from '@/stores/library'
import { useProject } from '@/stores/project'
import { colourOptions, shelfOptions } from './library'
import StarRow from './StarRow.vue'

const props = defineProps<{ take: Take }>()
const library = useLibrary()
const project = useProject()
const uses = ref<Schemas['Use'][]>([])

const shelves = computed(() => shelfOptions(library.shelves, 'no shelf'))
const colours = colourOptions('no colour')
const told = computed(() => {
  if (!uses.value.length) return 'Not used yet'
  const parts = uses.value.map((use) => {
    const where = use.project === project.id ? 'here' : `in “${use.name}”`
    return `${use.clips} clip${use.clips > 1 ? 's' : ''} ${where}`
  })
  return `Used: ${parts.join(', ')}`
})

watch(
  [() => props.take.id, () => project.revision],
  async ([id]) => {
    try {
      uses.value = await need(client.GET('/api/takes/{id}/uses', { params: { path: { id } } }))
    } catch {
      uses.value = []
    }
  },
  { immediate: true },
)

const set = (change: Schemas['TakeChange']) => library.change(props.take.id, change)
</script>

<template>
  <div class="facts">
    <div class="line">
      <StarRow :model-value="take.stars" @update:model-value="set({ stars: $event })" />
      <span class="tiny quiet" data-test="uses">{{ told }}</span>
    </div>
    <div class="line">
      <BFormSelect
        :model-value="take.tag as Tag"
        :options="colours"
        aria-label="Colour"
        @update:model-value="set({ tag: $event as Tag })"
      />
      <BFormSelect
        :model-value="take.shelf"
        :options="shelves"
        aria-label="Shelf"
        @update:model-value="set({ shelf: $event as number | null })"
      />
    </div>
  </div>
</template>

<style scoped>
.line {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 5px;
}
.line :deep(select) {
  flex: 1;
  min-width: 0;
  padding: 4px 26px 4px 8px;
  font-size: 13px;
}
</style>
