<script setup lang="ts">
/** Further grades, limited by masks, brightness and hue. */
import { BButton, BDropdown, BDropdownItemButton } from 'bootstrap-vue-next'
import { computed, onScopeDispose, watch } from 'vue'
import IconEye from '~icons/tabler/eye'
import IconEyeOff from '~icons/tabler/eye-off'
import IconPlus from '~icons/tabler/plus'
import IconTrash from '~icons/tabler/trash'
import IconUp from '~icons/tabler/arrow-up'
import { client, need } from '@/api/client'
import { useScreen } from '@/player/inject'
import { TOOLS } from '@/inhand/maskOwner'
import { useDrawing } from '@/stores/drawing'
import { useGrading } from '@/stores/grading'
import { useKit } from '@/stores/kit'
import { useNotes } from '@/stores/notes'
import { newSeed, useProject } from '@/stores/project'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import MaskPart from './MaskPart.vue'
import RangeSliders from '@/controls/RangeSliders.vue'
import { STARTS } from './zones'
import type { useGrade, Zone } from './useGrade'
import SwitchField from '@/controls/SwitchField.vue'

const props = defineProps<{ grade: ReturnType<typeof useGrade> }>()
defineEmits<{ adjust: [] }>()
const kit = useKit()
const grading = useGrading()
const drawing = useDrawing()
const notes = useNotes()
const project = useProject()
const { player } = useScreen()

const zone = computed(() => props.grade.zone.value)
const RANGES = [
  { id: 'brightness', name: t('grade.zonesPart.onlySomeBrightness') },
  { id: 'hues', name: t('grade.zonesPart.onlySomeHues') },
] as const

async function add(start: (typeof STARTS)[number]) {
  const before = new Set(props.grade.zones.value.map((one) => one.id))
  const zone = { name: start.name, ...start.zone }
  const done = await props.grade.send({
    kind: 'add_zone',
    seed: newSeed(),
    clips: props.grade.ids.value,
    zone: zone as never,
  })
  const fresh = props.grade.zones.value.find((one) => !before.has(one.id))
  if (!done || !fresh?.id) return
  choose(fresh)
  if (start.id === 'hue') grading.tool = 'hue'
  drawing.tool = TOOLS[start.id as keyof typeof TOOLS] ?? ''
}

onScopeDispose(() => {
  if (grading.tool === 'hue') grading.tool = ''
})

/** A tapped colour becomes the zone's hue. */
watch(
  () => grading.tapped,
  async (spot) => {
    const clip = props.grade.clip.value?.id
    if (!spot || !clip || !zone.value) return
    grading.tapped = null
    try {
      const found = await need(
        client.POST('/api/projects/{id}/revisions/{revision}/hue', {
          params: {
            path: { id: project.id, revision: project.revision },
            query: { within: project.within },
          },
          body: { clip, frame: player.shown.value, ...spot },
        }),
      )
      const hues = zone.value.original ? found.original : found.graded
      if (hues) await set({ hues: { ...zone.value.hues, ...hues, on: true } })
      else notes.told(t('grade.zonesPart.thatSpotHasHardlyAny'))
    } catch (error) {
      notes.problem(error)
    }
  },
)

function choose(one: Zone) {
  grading.zone = grading.zone === one.id ? '' : (one.id ?? '')
  grading.mask = 0
  grading.matte = false
}

const set = (values: Record<string, unknown>) => props.grade.setZone(values)
const whole = (values: Record<string, unknown>, path: string) =>
  Object.fromEntries(Object.entries(values).map(([name, value]) => [`${path}/${name}`, value]))

function setOn(one: Zone) {
  props.grade.send({
    kind: 'set_grade',
    clips: props.grade.ids.value,
    values: { on: one.on === false },
    zone: one.id ?? null,
  })
}

function remove(one: Zone) {
  const step = { kind: 'remove_zone', clips: props.grade.ids.value, zone: one.id ?? '' } as const
  props.grade.send(step)
  if (grading.zone === one.id) grading.whole()
}

function earlier(one: Zone, to: number) {
  if (to < 0) return
  const clips = props.grade.ids.value
  props.grade.send({ kind: 'order_zone', clips, zone: one.id ?? '', to })
}
</script>

<template>
  <fieldset class="zones" :disabled="grade.locked.value">
    <TrayItem :name="$t('grade.zonesPart.zones')">
      <div v-if="!grade.zones.value.length" class="adding">
        <span class="quiet tiny">{{ $t('grade.zonesPart.addAZone') }}</span>
        <BButton
          v-for="one in STARTS"
          :key="one.id"
          size="sm"
          variant="secondary"
          :title="one.help"
          :data-test="`zone-${one.id}`"
          @click="add(one)"
        >
          {{ one.name }}
        </BButton>
      </div>
      <p v-if="!grade.zones.value.length" class="tiny quiet">
        {{ $t('grade.zonesPart.aZoneIsAFurther') }}
      </p>
      <ul class="list">
        <li v-for="(one, index) in grade.zones.value" :key="one.id" :class="{ here: zone === one }">
          <button
            class="btn btn-bare"
            :aria-label="
              one.on === false
                ? $t('grade.zonesPart.switchOn', { name: one.name })
                : $t('grade.zonesPart.switchOff', { name: one.name })
            "
            @click="setOn(one)"
          >
            <IconEyeOff v-if="one.on === false" aria-hidden="true" />
            <IconEye v-else aria-hidden="true" />
          </button>
          <button
            class="name"
            :aria-pressed="zone === one"
            :data-test="`pick-zone-${index}`"
            @click="choose(one)"
          >
            {{ one.name || $t('grade.zonesPart.zone', { index: index + 1 }) }}
          </button>
          <button
            v-if="index > 0"
            class="btn btn-bare"
            :aria-label="$t('grade.zonesPart.letWorkEarlier', { name: one.name })"
            :title="$t('grade.zonesPart.worksEarlier')"
            @click="earlier(one, index - 1)"
          >
            <IconUp aria-hidden="true" />
          </button>
          <button
            class="btn btn-bare"
            :aria-label="$t('grade.zonesPart.remove', { name: one.name })"
            @click="remove(one)"
          >
            <IconTrash aria-hidden="true" />
          </button>
        </li>
      </ul>
      <BDropdown
        v-if="grade.zones.value.length"
        size="sm"
        variant="secondary"
        teleport-to="body"
        strategy="fixed"
        data-test="more-zones"
      >
        <template #button-content
          ><IconPlus aria-hidden="true" /> {{ $t('grade.zonesPart.addAnotherZone') }}</template
        >
        <BDropdownItemButton
          v-for="one in STARTS"
          :key="one.id"
          :title="one.help"
          :data-test="`zone-${one.id}`"
          @click="add(one)"
        >
          {{ one.name }} <span class="tiny quiet">{{ one.help }}</span>
        </BDropdownItemButton>
      </BDropdown>
    </TrayItem>
    <template v-if="zone">
      <TrayItem :name="$t('grade.zonesPart.thisZone')">
        <div class="line">
          <BButton size="sm" variant="primary" data-test="grade-zone" @click="$emit('adjust')">
            {{ $t('grade.zonesPart.gradeThisZone') }}
          </BButton>
          <BButton
            size="sm"
            variant="secondary"
            :aria-pressed="grading.matte"
            :title="$t('grade.zonesPart.whiteIsWhatTheZone')"
            data-test="matte"
            @click="grading.matte = !grading.matte"
          >
            {{ grading.matte ? $t('grade.zonesPart.hideMatte') : $t('grade.zonesPart.showMatte') }}
          </BButton>
          <SwitchField :on="zone.invert ?? false" @update:on="set({ invert: $event })">
            {{ $t('grade.zonesPart.everythingButThat') }}
          </SwitchField>
          <SwitchField
            v-if="zone.hues || zone.brightness"
            :on="zone.original ?? false"
            :title="$t('grade.zonesPart.brightnessAndHueAreLooked')"
            data-test="zone-original"
            @update:on="set({ original: $event })"
          >
            {{ $t('grade.zonesPart.byTheUngradedPicture') }}
          </SwitchField>
        </div>
      </TrayItem>
      <RangeSliders
        :controls="kit.grade?.zone ?? []"
        :values="zone as unknown as Record<string, unknown>"
        :local="grade.local.value"
        @trying="grade.tryZone($event)"
        @set="set($event)"
      />
      <MaskPart :grade="grade" />
      <template v-for="one in RANGES" :key="one.id">
        <TrayItem :name="one.name" :told="zone[one.id] ? $t('words.isOn') : $t('words.isOff')">
          <SwitchField
            :on="Boolean(zone[one.id])"
            :data-test="`range-${one.id}`"
            @update:on="set({ [one.id]: $event ? {} : null })"
          >
            {{ one.name }}
          </SwitchField>
          <BButton
            v-if="one.id === 'hues'"
            size="sm"
            variant="secondary"
            :aria-pressed="grading.tool === 'hue'"
            data-test="pick-hue"
            @click="grading.tool = grading.tool === 'hue' ? '' : 'hue'"
          >
            {{ $t('grade.zonesPart.takeTheHueFromThe') }}
          </BButton>
        </TrayItem>
        <RangeSliders
          v-if="zone[one.id]"
          :controls="kit.grade?.ranges[one.id] ?? []"
          :values="zone[one.id] as unknown as Record<string, unknown>"
          :local="grade.local.value"
          @trying="grade.tryZone(whole($event, one.id))"
          @set="set(whole($event, one.id))"
        />
      </template>
    </template>
  </fieldset>
</template>

<style scoped>
.zones {
  display: grid;
  gap: 6px;
  min-width: 0;
}
.adding,
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 8px;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.list li {
  display: flex;
  align-items: center;
  background: var(--raised);
  border-radius: var(--fold);
}
.list .here {
  outline: 2px solid var(--accent);
}
.name {
  flex: 1;
  border: 0;
  background: none;
  color: var(--text);
  text-align: left;
  font-weight: 600;
  min-height: var(--touch);
  min-width: 0;
}
p {
  margin: 0;
}
</style>
