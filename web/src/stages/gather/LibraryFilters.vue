<script setup lang="ts">
/** Finding takes: words, kind, order, stars, colour, shelf. */
import { BButton, BFormSelect } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import IconSort from '~icons/tabler/arrows-sort'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import SwitchField from '@/controls/SwitchField.vue'
import { useLibrary } from '@/stores/library'
import { t } from '@/texts'
import { colourOptions, EVERYTHING, shelfOptions, type Filter, type Kind } from './library'
import NameDialog from '@/controls/NameDialog.vue'

const filter = defineModel<Filter>({ required: true })
const library = useLibrary()
const naming = ref(false)
const open = ref(false)
const name = ref('')

const KINDS: { id: Kind; name: string }[] = [
  { id: 'all', name: t('gather.libraryFilters.all') },
  { id: 'video', name: t('gather.libraryFilters.videos') },
  { id: 'still', name: t('gather.libraryFilters.stills') },
  { id: 'sound', name: t('gather.libraryFilters.sounds') },
]
const SORTS = [
  { value: 'order', text: t('gather.libraryFilters.asBroughtIn') },
  { value: 'name', text: t('gather.libraryFilters.byName') },
  { value: 'newest', text: t('gather.libraryFilters.newestFirst') },
  { value: 'length', text: t('gather.libraryFilters.longestFirst') },
  { value: 'stars', text: t('gather.libraryFilters.mostStarsFirst') },
]
const STARS = [0, 1, 2, 3, 4, 5].map((value) => ({
  value,
  text: value
    ? t('gather.libraryFilters.starsAndMore', value)
    : t('gather.libraryFilters.anyStars'),
}))
const COLOURS = colourOptions(t('gather.libraryFilters.anyColour'))
const shelves = computed(() => shelfOptions(library.shelves, t('gather.libraryFilters.allShelves')))
const narrowed = computed(() => {
  const { words, stars, tag, shelf, kind, unused } = filter.value
  return Boolean(unused || words || stars || tag || shelf !== null || kind !== 'all')
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
    <ChoiceGroup
      :label="$t('gather.libraryFilters.show')"
      :choices="KINDS"
      :taken="filter.kind"
      @take="set({ kind: $event })"
    />
    <details class="finer" @toggle="open = ($event.target as HTMLDetailsElement).open">
      <summary class="btn btn-secondary">
        <IconSort aria-hidden="true" />{{ $t('gather.libraryFilters.sort')
        }}<span v-if="narrowed" class="dot" />
      </summary>
      <div v-if="open" class="sheet">
        <BFormSelect
          :model-value="filter.sort"
          :options="SORTS"
          :aria-label="$t('gather.libraryFilters.order')"
          @update:model-value="set({ sort: $event as never })"
        />
        <BFormSelect
          :model-value="filter.stars"
          :options="STARS"
          :aria-label="$t('gather.libraryFilters.stars')"
          @update:model-value="set({ stars: Number($event) })"
        />
        <BFormSelect
          :model-value="filter.tag"
          :options="COLOURS"
          :aria-label="$t('words.colour')"
          @update:model-value="set({ tag: $event as never })"
        />
        <BFormSelect
          :model-value="filter.shelf"
          :options="shelves"
          :aria-label="$t('gather.libraryFilters.shelf')"
          @update:model-value="set({ shelf: $event as never })"
        />
        <SwitchField
          class="soft"
          :on="filter.unused"
          data-test="unused"
          @update:on="set({ unused: $event })"
        >
          {{ $t('gather.libraryFilters.unused') }}
        </SwitchField>
        <BButton variant="secondary" @click="naming = true">{{
          $t('gather.libraryFilters.newShelf')
        }}</BButton>
        <BButton
          v-if="filter.shelf !== null"
          variant="secondary"
          :title="$t('gather.libraryFilters.itsTakesStayInThe')"
          @click="(library.removeShelf(filter.shelf), set({ shelf: null }))"
        >
          {{ $t('gather.libraryFilters.takeTheShelfDown') }}
        </BButton>
        <BButton v-if="narrowed" variant="secondary" @click="filter = { ...EVERYTHING }">
          {{ $t('gather.libraryFilters.showAllAgain') }}
        </BButton>
      </div>
    </details>
    <NameDialog
      v-model="name"
      :open="naming"
      :title="$t('gather.libraryFilters.newShelf')"
      :ok="$t('gather.libraryFilters.makeIt')"
      :label="$t('gather.libraryFilters.nameOfTheShelf')"
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
