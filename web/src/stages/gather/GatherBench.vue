<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watchEffect } from 'vue'
import { BButton } from 'bootstrap-vue-next'
import IconMicrophone from '~icons/tabler/microphone'
import IconSamples from '~icons/tabler/library-photo'
import IconSearch from '~icons/tabler/search'
import IconSeveral from '~icons/tabler/copy-plus'
import IconUpload from '~icons/tabler/upload'
import { usePhone } from '@/look/phone'
import { useLibrary } from '@/stores/library'
import { usePage } from '@/stores/page'
import { useShared } from '@/stores/shared'
import { useUploads } from '@/stores/uploads'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import ToolTray from '@/tray/ToolTray.vue'
import ImportTray from './ImportTray.vue'
import { usage } from '@/takes/usage'
import { EVERYTHING, filtered, type Filter } from './library'
import LibraryFilters from './LibraryFilters.vue'
import SampleShelf from './SampleShelf.vue'
import SeveralBar from './SeveralBar.vue'
import TakeCard from './TakeCard.vue'
import TakeViewer from './TakeViewer.vue'
import VoiceRecorder from './VoiceRecorder.vue'

const library = useLibrary()
const uploads = useUploads()
const shared = useShared()
const chooser = ref<HTMLInputElement | null>(null)
const project = useProject()
const filter = ref<Filter>({ ...EVERYTHING })
const over = ref(false)
const several = ref(false)
const samples = ref(false)
const voice = ref(false)
const { phone } = usePhone()
const page = usePage()
/** On a phone: the take that was tapped has the page to itself. */
const watching = ref(false)
watchEffect(() => (page.whole = phone.value && !voice.value))
onBeforeUnmount(() => (page.whole = false))

const used = computed(() => usage(project.document?.tracks ?? []))
const shown = computed(() => filtered(library.takes, filter.value, used.value))

function choose(id: string) {
  if (!several.value) {
    library.chosen = id
    watching.value = true
    return
  }
  const ids = library.severalIds
  library.severalIds = ids.includes(id) ? ids.filter((one) => one !== id) : [...ids, id]
}

function begin(on: boolean) {
  several.value = on
  library.severalIds = []
}

const VOICE = [
  { id: 'voice', name: t('gather.gatherBench.voice') },
  { id: 'takes', name: t('gather.gatherBench.backToTheTakes'), test: 'voice-done' },
]
const TOOLS = [
  {
    id: 'several',
    name: t('gather.gatherBench.several'),
    help: t('gather.gatherBench.chooseSeveralTakes'),
    icon: IconSeveral,
    test: 'several-takes',
    run: () => begin(!several.value),
  },
  {
    id: 'voice',
    name: t('gather.gatherBench.voice'),
    help: t('gather.gatherBench.speakWhileTheTimelinePlays'),
    icon: IconMicrophone,
    test: 'voice',
    run: () => (voice.value = true),
  },
  {
    id: 'samples',
    name: t('gather.gatherBench.samples'),
    help: t('gather.gatherBench.picturesAndSoundsToTry'),
    icon: IconSamples,
    test: 'samples',
    run: () => (samples.value = true),
  },
]

onMounted(async () => {
  const files = await shared.take()
  if (files.length) uploads.add(files)
})
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
    <section
      v-if="!phone || !(voice || watching)"
      class="panel takes"
      :aria-label="$t('gather.gatherBench.takes')"
    >
      <div class="line">
        <label class="search">
          <IconSearch aria-hidden="true" />
          <input
            v-model="filter.words"
            type="search"
            :placeholder="$t('gather.gatherBench.searchTakes')"
            :aria-label="$t('gather.gatherBench.searchTakes')"
            data-test="search"
          />
        </label>
        <BButton
          v-for="tool in TOOLS"
          :key="tool.id"
          variant="secondary"
          class="tool"
          :aria-pressed="tool.id === 'several' ? several : undefined"
          :title="tool.help"
          :data-test="tool.test"
          @click="tool.run()"
        >
          <component :is="tool.icon" aria-hidden="true" /><span class="word">{{ tool.name }}</span>
        </BButton>
        <BButton variant="primary" class="tool" data-test="bring-in" @click="chooser?.click()">
          <IconUpload aria-hidden="true" /><span class="word">{{
            $t('gather.gatherBench.bringIn')
          }}</span>
        </BButton>
        <input
          ref="chooser"
          type="file"
          :aria-label="$t('gather.gatherBench.filesToBringIn')"
          multiple
          hidden
          accept="video/*,image/png,image/jpeg,image/webp,image/avif,image/heic,image/heif,image/gif,audio/*,.otioz,.mkv,.mov,.mts,.m2ts,.ts,.avi,.flac,.opus"
          data-test="files"
          @change="chosen"
        />
      </div>
      <LibraryFilters v-model="filter" />
      <div class="shelf-room">
        <SeveralBar v-if="several" @done="begin(false)" />
        <ImportTray />
        <div v-if="library.loaded && !library.takes.length && !uploads.files.length" class="empty">
          <strong>{{ $t('gather.gatherBench.bringInYourFirstTakes') }}</strong>
          <span>{{ $t('gather.gatherBench.videosPicturesAndSoundsSeveral') }}</span>
        </div>
        <p v-else-if="library.loaded && !shown.length" class="empty small">
          {{ $t('gather.gatherBench.noTakeFitsChangeThe') }}
        </p>
        <ul v-else class="grid">
          <TakeCard
            v-for="take in shown"
            :key="take.id"
            :take="take"
            :chosen="several ? library.severalIds.includes(take.id) : take.id === library.chosen"
            :number="several ? library.severalIds.indexOf(take.id) + 1 : 0"
            :uses="used.get(take.media) ?? 0"
            @choose="choose(take.id)"
          />
        </ul>
      </div>
    </section>
    <ToolTray
      v-if="phone && voice"
      :label="$t('gather.gatherBench.voice')"
      :parts="VOICE"
      part="voice"
      @take="voice = $event === 'voice'"
    >
      <VoiceRecorder @done="((voice = false), (watching = true))" />
    </ToolTray>
    <VoiceRecorder v-else-if="voice" class="viewer" @done="voice = false" />
    <TakeViewer v-else-if="!phone || watching" class="viewer" @back="watching = false" />
    <SampleShelf v-model="samples" />
    <div v-if="over" class="drop">{{ $t('gather.gatherBench.dropTheFilesToBring') }}</div>
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
  align-items: stretch;
  gap: 5px;
}
.search {
  display: flex;
  align-items: center;
  gap: 6px;
  flex: 1 1 90px;
  min-width: 0;
  padding: 0 10px;
  border-radius: var(--fold);
  background: var(--rail);
  color: var(--quiet);
}
.search input {
  flex: 1;
  width: 100%;
  min-width: 0;
  border: 0;
  background: none;
  color: var(--text);
  outline-offset: 4px;
}
.tool {
  flex-direction: column;
  gap: 0;
  min-width: 56px;
  min-height: 46px;
  padding: 2px 6px;
}
.tool[aria-pressed='true'] {
  outline: 2px solid var(--text);
}
.word {
  font-size: 12px;
  line-height: 1.2;
  white-space: nowrap;
}
.shelf-room {
  display: grid;
  gap: 8px;
  align-content: start;
  min-height: 0;
  overflow-y: auto;
  scrollbar-width: thin;
  scrollbar-color: #38313f transparent;
}
.grid {
  list-style: none;
  margin: 0;
  padding: 2px;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(106px, 1fr));
  gap: 10px;
  align-content: start;
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
.phone .gather {
  grid-template-columns: minmax(0, 1fr);
  gap: 0;
  padding: 0;
}
.phone .takes {
  border-radius: 0;
  padding: 10px 12px 0;
}
.phone .line {
  flex-wrap: wrap;
}
.phone .search {
  flex-basis: 100%;
  min-height: var(--touch);
}
.phone .tool {
  flex: 1;
}
</style>
