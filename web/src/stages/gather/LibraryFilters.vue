<script setup lang="ts">
/** Finding takes: words, kind, order, stars, colour, shelf. */
import { BButton, BFormSelect } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import IconSort from '~icons/tabler/arrows-sort'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import { useLibrary } from '@/stores/library'
import { colourOptions, EVERYTHING, shelfOptions, type Filter, type Kind } from './library'
import NameDialog from '@/controls/NameDialog.vue'

const filter = defineModel<Filter>({ required: true })
const library = useLibrary()
const naming = ref(false)
const open = ref(false)
const name = ref('')

const KINDS: { id: Kind; name: string }[] = [
  { id: 'all', name: 'All' },
  { id: 'video', name: 'Videos' },
  { id: 'still', name: 'Stills' },
  { id: 'sound', name: 'Sounds' },
]
const SORTS = [
  { value: 'order', text: 'as brought in' },
  { value: 'name', text: 'by name' },
  { value: 'newest', text: 'newest first' },
  { value: 'length', text: 'longest first' },
  { value: 'stars', text: 'most stars first' },
]
const STARS = [0, 1, 2, 3, 4, 5].map((value) => ({
  value,
  text: value ? `${value} star${value > 1 ? 's' : ''} and more` : 'any stars',
}))
const COLOURS = colourOptions('any colour')
const shelves = computed(() => shelfOptions(library.shelves, 'all shelves'))
const narrowed = computed(() => {
  const { words, stars, tag, shelf, kind } = filter.value
  return Boolean(words || stars || tag || shelf !== null || kind !== 'all')
})

function set(change: Partial<Filter>) {
  filter.value = { ...filter.value, ...change }
}

async function make() {
  if (name.value.trim()) await library.makeShelf(name.value.trim())
  name.value = ''
}
</script>

<template>
  <div class="filters">
    <ChoiceGroup label="Show" :choices="KINDS" :taken="filter.kind" @take="set({ kind: $event })" />
    <details class="finer" @toggle="open = ($event.target as HTMLDetailsElement).open">
      <summary class="btn btn-secondary">
        <IconSort aria-hidden="true" />Sort<span v-if="narrowed" class="dot" />
      </summary>
      <div v-if="open" class="sheet">
        <BFormSelect
          :model-value="filter.sort"
          :options="SORTS"
          aria-label="Order"
          @update:model-value="set({ sort: $event as never })"
        />
        <BFormSelect
          :model-value="filter.stars"
          :options="STARS"
          aria-label="Stars"
          @update:model-value="set({ stars: Number($event) })"
        />
        <BFormSelect
          :model-value="filter.tag"
          :options="COLOURS"
          aria-label="Colour"
          @update:model-value="set({ tag: $event as never })"
        />
        <BFormSelect
          :model-value="filter.shelf"
          :options="shelves"
          aria-label="Shelf"
          @update:model-value="set({ shelf: $event as never })"
        />
        <BButton variant="secondary" @click="naming = true">New shelf</BButton>
        <BButton
          v-if="filter.shelf !== null"
          variant="secondary"
          title="Its takes stay in the library"
          @click="(library.removeShelf(filter.shelf), set({ shelf: null }))"
        >
          Take the shelf down
        </BButton>
        <BButton v-if="narrowed" variant="secondary" @click="filter = { ...EVERYTHING }">
          Show all again
        </BButton>
      </div>
    </details>
    <NameDialog
      v-model="name"
      :open="naming"
      title="New shelf"
      ok="Make it"
      label="Name of the shelf"
      :most="80"
      @ok="make"
      @hidden="naming = false"
    />
  </div>
</template>

<style scoped>
.filters {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.filters :deep(.choices button) {
  padding: 4px 9px;
}
.finer {
  position: relative;
}
.finer summary {
  list-style: none;
  padding: 2px 10px;
}
.sheet {
  position: absolute;
  right: 0;
  z-index: 6;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
  width: min(320px, 84vw);
  margin-top: 4px;
  padding: 10px;
  border: 1px solid var(--line);
  border-radius: 14px 14px 3px 14px;
  background: var(--panel);
  box-shadow: 0 10px 30px #0009;
}
.dot {
  width: 8px;
  height: 8px;
  border-radius: 4px;
  background: var(--text);
}
</style>
