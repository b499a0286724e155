<script setup lang="ts">
/** Faces that the program finds by itself: a list of persons, followed and covered by a tap. */
import ToolLine from '@/controls/ToolLine.vue'
import { BButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import type { VideoClip } from '@/api/types'
import { jobText } from '@/jobs/job'
import { growth, momentAt } from '@/motion/tracks'
import { useCovering } from '@/picture/useCovering'
import { useScreen } from '@/player/inject'
import { useFaces, type Person } from '@/stores/faces'
import { useLayering } from '@/stores/layering'
import { useTracking } from '@/stores/tracking'
import TrayItem from '@/tray/TrayItem.vue'
import { usePersons } from './usePersons'

const props = defineProps<{ clip: VideoClip }>()
const layering = useLayering()
const store = useTracking()
const faces = useFaces()
const { player } = useScreen()
const { persons, tick, keep } = usePersons(() => props.clip)
const { coverAt } = useCovering(() => props.clip)

const looks = computed(() => props.clip.media in faces.sought)
const job = computed(() => faces.sought[props.clip.media] ?? null)
const busy = ref(0)

const asked = computed(() => props.clip.media in faces.found)

/** Follow a face; the id of what follows it. */
async function follow(person: Person, name: string): Promise<string> {
  busy.value += 1
  const id = await keep(person.tracked, name)
  busy.value -= 1
  return id
}

async function take(one: (typeof persons.value)[number]) {
  const id = one.tracker?.id ?? (await follow(one.person, one.name))
  if (!id) return
  store.taken = id
  player.seek(one.from)
}

/** Every face that nothing covers yet. */
async function coverAll() {
  for (const { person, tracker, name } of [...persons.value]) {
    if (tracker) continue
    const id = await follow(person, name)
    const found = store.foundOf(props.clip.media, person.tracked)
    if (!id || !found) return
    const { quad } = momentAt(found, tick.value)
    await coverAt(id, quad, { grows: growth(found, quad) })
    store.taken = id
  }
}
const left = computed(() => persons.value.filter(({ tracker }) => !tracker).length)
</script>

<template>
  <TrayItem :name="$t('layer.facesPart.faces')" :told="asked ? String(persons.length) : undefined">
    <ToolLine :name="$t('layer.facesPart.faces')" :label="$t('layer.facesPart.faces')">
      <template v-if="looks">
        <span class="small" role="status">{{
          job ? jobText(job) : $t('layer.facesPart.looking')
        }}</span>
        <BButton size="sm" variant="secondary" @click="faces.stop(clip.media)">{{
          $t('words.cancel')
        }}</BButton>
      </template>
      <BButton
        v-else-if="!asked"
        size="sm"
        variant="secondary"
        data-test="find-faces"
        @click="faces.look(clip.media)"
      >
        {{ $t('layer.facesPart.find') }}
      </BButton>
      <template v-else>
        <BButton
          v-for="one in persons"
          :key="one.name"
          size="sm"
          variant="secondary"
          :aria-pressed="Boolean(one.tracker) && one.tracker?.id === store.taken"
          :disabled="busy > 0"
          :title="$t('layer.facesPart.followHelp')"
          data-test="face"
          @click="take(one)"
        >
          {{ one.name }} <span class="tiny quiet">{{ one.seen }}</span>
        </BButton>
        <BButton
          v-if="persons.length"
          size="sm"
          variant="secondary"
          :aria-pressed="layering.check"
          :title="$t('layer.facesPart.checkHelp')"
          data-test="check-faces"
          @click="layering.check = !layering.check"
        >
          {{ $t('layer.facesPart.check') }}
        </BButton>
        <BButton
          v-if="left"
          size="sm"
          variant="primary"
          :disabled="busy > 0"
          data-test="cover-faces"
          @click="coverAll"
        >
          {{ $t('layer.facesPart.coverAll') }}
        </BButton>
      </template>
    </ToolLine>
    <p class="tiny quiet" role="status">
      {{
        busy
          ? $t('layer.facesPart.following')
          : asked && !persons.length
            ? $t('layer.facesPart.none')
            : $t('layer.facesPart.help')
      }}
    </p>
  </TrayItem>
</template>

<style scoped>
p {
  margin: 0;
}
</style>
