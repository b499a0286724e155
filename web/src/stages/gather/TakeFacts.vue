<script setup lang="ts">
/** Stars, colour, shelf and uses of a take. */
import { BFormSelect } from 'bootstrap-vue-next'
import { computed, ref, watch } from 'vue'
import { client, need, type Schemas } from '@/api/client'
import type { Tag, Take } from '@/api/types'
import { useLibrary } from '@/stores/library'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { colourOptions, shelfOptions } from './library'
import StarRow from './StarRow.vue'

const props = defineProps<{ take: Take }>()
const library = useLibrary()
const project = useProject()
const uses = ref<Schemas['Use'][]>([])

const shelves = computed(() => shelfOptions(library.shelves, t('gather.takeFacts.noShelf')))
const colours = colourOptions(t('gather.takeFacts.noColour'))
const told = computed(() => {
  if (!uses.value.length) return t('gather.takeFacts.notUsedYet')
  const parts = uses.value.map((use) => {
    const where =
      use.project === project.id
        ? t('gather.takeFacts.here')
        : t('gather.takeFacts.in', { name: use.name })
    return t('gather.takeFacts.clips', { where }, use.clips)
  })
  return t('gather.takeFacts.used', { list: parts.join(', ') })
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
        :aria-label="$t('words.colour')"
        @update:model-value="set({ tag: $event as Tag })"
      />
      <BFormSelect
        :model-value="take.shelf"
        :options="shelves"
        :aria-label="$t('gather.takeFacts.shelf')"
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
