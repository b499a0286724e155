<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { BButton } from 'bootstrap-vue-next'
import IconUpload from '~icons/tabler/upload'
import ChoiceGroup from '@/controls/ChoiceGroup.vue'
import { useLibrary } from '@/stores/library'
import { useUploads } from '@/stores/uploads'
import ImportTray from './ImportTray.vue'
import TakeCard from './TakeCard.vue'
import TakeViewer from './TakeViewer.vue'

type Filter = 'all' | 'video' | 'still' | 'sound'

const library = useLibrary()
const uploads = useUploads()
const chooser = ref<HTMLInputElement | null>(null)
const filter = ref<Filter>('all')
const over = ref(false)

const FILTERS: { id: Filter; name: string }[] = [
  { id: 'all', name: 'All' },
  { id: 'video', name: 'Videos' },
  { id: 'still', name: 'Stills' },
  { id: 'sound', name: 'Sounds' },
]
const shown = computed(() =>
  library.takes.filter((take) => {
    if (take.state === 'arriving') return false
    return filter.value === 'all' || take.facts?.kind === filter.value
  }),
)

onMounted(() => {
  library.refresh()
  if (!library.chosen) library.chosen = library.takes[0]?.id ?? ''
})

function chosen(event: Event) {
  const field = event.target as HTMLInputElement
  uploads.add([...(field.files ?? [])])
  field.value = ''
}

function dropped(event: DragEvent) {
  over.value = false
  uploads.add([...(event.dataTransfer?.files ?? [])])
}
</script>

<template>
  <div
    class="gather"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave.self="over = false"
    @drop.prevent="dropped"
  >
    <section class="panel takes" aria-label="Takes">
      <div class="line">
        <h2>Takes</h2>
        <ChoiceGroup label="Show" :choices="FILTERS" :taken="filter" @take="filter = $event" />
        <span class="spacer" />
        <BButton variant="primary" data-test="bring-in" @click="chooser?.click()">
          <IconUpload aria-hidden="true" />Bring in
        </BButton>
        <input
          ref="chooser"
          type="file"
          multiple
          hidden
          accept="video/*,image/png,image/jpeg,image/webp,image/avif,image/gif,audio/*,.mkv,.mov,.flac,.opus"
          data-test="files"
          @change="chosen"
        />
      </div>
      <ImportTray />
      <div v-if="library.loaded && !library.takes.length && !uploads.files.length" class="empty">
        <strong>Bring in your first takes</strong>
        <span>Videos, pictures and sounds; several at once, or drop them here.</span>
      </div>
      <p v-else-if="library.loaded && !shown.length" class="empty small">
        {{
          filter === 'all' ? 'They appear here as soon as they have arrived.' : 'None of that kind.'
        }}
      </p>
      <ul v-else class="grid">
        <TakeCard
          v-for="take in shown"
          :key="take.id"
          :take="take"
          :chosen="take.id === library.chosen"
          @choose="library.chosen = take.id"
        />
      </ul>
    </section>
    <TakeViewer class="viewer" />
    <div v-if="over" class="drop">Drop the files to bring them in</div>
  </div>
</template>

<style scoped>
.gather {
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1.55fr) minmax(230px, 1fr);
  gap: 12px;
  padding: 12px 14px;
  min-height: 0;
}
.takes {
  display: flex;
  flex-direction: column;
  gap: 10px;
  overflow: hidden;
}
.line {
  display: flex;
  align-items: center;
  gap: 10px;
  flex-wrap: wrap;
}
.spacer {
  flex: 1;
}
.grid {
  list-style: none;
  margin: 0;
  padding: 2px;
  overflow-y: auto;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(106px, 1fr));
  gap: 10px;
  align-content: start;
  scrollbar-width: thin;
  scrollbar-color: #38313f transparent;
}
.drop {
  position: absolute;
  inset: 8px;
  display: grid;
  place-items: center;
  border: 2px dashed var(--accent);
  border-radius: 14px;
  background: #17141ae6;
  font-weight: 600;
  pointer-events: none;
  z-index: 5;
}
@media (max-width: 759px) {
  .gather {
    grid-template-columns: 1fr;
    grid-auto-rows: max-content;
    overflow-y: auto;
    padding-top: 20px;
  }
  .takes {
    overflow: visible;
  }
  .grid {
    overflow: visible;
  }
}
</style>
