<script setup lang="ts">
/** Looks as live pictures, and presets of whole grades. */
import { BButton, BDropdown, BDropdownItemButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import IconDots from '~icons/tabler/dots'
import IconPlus from '~icons/tabler/plus'
import type { Step } from '@/api/types'
import ValueField from '@/controls/ValueField.vue'
import { useKit, type Preset } from '@/stores/kit'
import { useNotes } from '@/stores/notes'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import LookTile from './LookTile.vue'
import type { useGrade } from './useGrade'
import NameDialog from '@/controls/NameDialog.vue'

const props = defineProps<{ grade: ReturnType<typeof useGrade> }>()
const kit = useKit()
const notes = useNotes()
const file = ref<HTMLInputElement | null>(null)
const naming = ref<'new' | Preset | null>(null)
const name = ref('')

const look = computed(() => props.grade.now('lut/look', ''))
const chosen = computed(() => kit.looks.find((one) => one.name === look.value) ?? null)
const stepOf = (found: string): Step => ({
  kind: 'set_grade',
  clips: props.grade.ids.value,
  values: {
    [props.grade.zone.value ? 'adjust/lut/look' : 'lut/look']: found,
    [props.grade.zone.value ? 'adjust/lut/on' : 'lut/on']: true,
  },
  zone: props.grade.zone.value?.id ?? null,
})
const presetStep = (preset: Preset): Step => ({
  kind: 'replace_grade',
  clips: props.grade.ids.value,
  grade: preset.content as never,
  name: preset.name,
})

async function bringIn(event: Event) {
  const field = event.target as HTMLInputElement
  for (const one of field.files ?? []) {
    try {
      const found = await kit.bringInLook(one)
      await props.grade.send(stepOf(found.name))
    } catch (error) {
      notes.problem(error)
    }
  }
  field.value = ''
}

async function removeLook() {
  if (!chosen.value) return
  await kit.removeLook(chosen.value).catch((error: unknown) => notes.problem(error))
  notes.told(t('grade.looksPart.takenOutOfTheKit'))
}

async function removePreset(preset: Preset) {
  await kit.removePreset(preset).catch((error: unknown) => notes.problem(error))
}

function askName(what: 'new' | Preset) {
  naming.value = what
  name.value = what === 'new' ? '' : what.name
}

async function keep() {
  const what = naming.value
  const given = name.value.trim() || t('grade.looksPart.preset')
  if (!what) return
  try {
    if (what === 'new') {
      await kit.keepPreset(given, props.grade.grade.value ?? {})
      notes.told(t('grade.looksPart.isInTheKit', { given }))
    } else await kit.renamePreset(what, given)
  } catch (error) {
    notes.problem(error)
  }
}
</script>

<template>
  <fieldset class="looks" :disabled="grade.locked.value">
    <TrayItem :name="$t('grade.looksPart.looks')">
      <div class="line">
        <legend>{{ $t('grade.looksPart.looks') }}</legend>
        <span class="grow" />
        <BButton size="sm" variant="secondary" data-test="bring-in-look" @click="file?.click()">
          <IconPlus aria-hidden="true" /> {{ $t('grade.looksPart.cube') }}
        </BButton>
        <input
          ref="file"
          type="file"
          :aria-label="$t('grade.looksPart.looksToBringIn')"
          accept=".cube"
          multiple
          hidden
          data-test="look-file"
          @change="bringIn"
        />
      </div>
      <div class="tiles">
        <LookTile
          :name="$t('grade.looksPart.noLook')"
          :step="stepOf('')"
          :taken="!look"
          test="look-none"
          @take="grade.send(stepOf(''))"
        />
        <LookTile
          v-for="one in kit.looks"
          :key="one.name"
          :name="one.title"
          :step="stepOf(one.name)"
          :taken="look === one.name"
          :test="`look-${one.name}`"
          @take="grade.send(stepOf(one.name))"
        />
      </div>
    </TrayItem>
    <ValueField
      v-if="look"
      :label="$t('grade.looksPart.mix')"
      :help="$t('grade.looksPart.howMuchOfTheLook')"
      :value="grade.now('lut/mix', 100)"
      :low="0"
      :high="100"
      :step="1"
      unit="%"
      :reset="100"
      :keyed="grade.keyed('lut/mix')"
      @trying="grade.trying({ 'lut/mix': $event })"
      @set="grade.set({ 'lut/mix': $event })"
      @key="grade.toggleKey('lut/mix', 100)"
    />
    <BButton v-if="chosen?.own" size="sm" variant="secondary" @click="removeLook">
      {{ $t('grade.looksPart.takeOutOfTheKit', { title: chosen.title }) }}
    </BButton>
    <TrayItem v-if="!grade.zone.value" :name="$t('grade.looksPart.presets')">
      <div class="line">
        <legend>{{ $t('grade.looksPart.presets') }}</legend>
        <span class="grow" />
        <BButton
          size="sm"
          variant="secondary"
          :disabled="!grade.grade.value"
          :title="$t('grade.looksPart.keepsTheWholeGradeIn')"
          data-test="keep-preset"
          @click="askName('new')"
        >
          <IconPlus aria-hidden="true" /> {{ $t('grade.looksPart.keepThisGrade') }}
        </BButton>
      </div>
      <p v-if="!kit.presets.length" class="tiny quiet">
        {{ $t('grade.looksPart.noneYetAKeptGrade') }}
      </p>
      <div v-else class="tiles">
        <div v-for="one in kit.presets" :key="one.id" class="preset">
          <LookTile
            :name="one.name"
            :step="presetStep(one)"
            :test="`preset-${one.name}`"
            @take="grade.send(presetStep(one))"
          />
          <BDropdown
            class="menu"
            :variant="null"
            no-caret
            size="sm"
            toggle-class="btn-bare"
            teleport-to="body"
            strategy="fixed"
          >
            <template #button-content>
              <IconDots :aria-label="$t('grade.looksPart.whatToDoWith', { name: one.name })" />
            </template>
            <BDropdownItemButton @click="askName(one)">{{
              $t('words.rename')
            }}</BDropdownItemButton>
            <BDropdownItemButton @click="removePreset(one)">
              {{ $t('grade.looksPart.takeItOutOfTheKit') }}
            </BDropdownItemButton>
          </BDropdown>
        </div>
      </div>
    </TrayItem>
    <NameDialog
      v-model="name"
      :open="Boolean(naming)"
      :title="
        naming === 'new'
          ? $t('grade.looksPart.keepThisGrade')
          : $t('grade.looksPart.renameThePreset')
      "
      @ok="keep"
      @hidden="naming = null"
    />
  </fieldset>
</template>

<style scoped>
.looks {
  display: grid;
  gap: 8px;
  min-width: 0;
}
.line {
  display: flex;
  align-items: center;
  gap: 8px;
}
.grow {
  flex: 1;
}
legend {
  float: none;
  width: auto;
  margin: 0;
  font-size: 13px;
  font-weight: 600;
  color: var(--quiet);
}
.tiles {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(88px, 1fr));
  gap: 8px;
}
.preset {
  position: relative;
  display: grid;
}
.menu {
  position: absolute;
  top: 0;
  right: 0;
}
p {
  margin: 0;
}
.phone .tiles {
  grid: minmax(0, 1fr) / none;
  grid-auto-flow: column;
  grid-auto-columns: 84px;
  flex: 1;
  min-height: 0;
  overflow-x: auto;
  scrollbar-width: none;
}
.phone .looks :deep(.alone) {
  flex-direction: row;
}
.phone .line {
  order: 1;
}
.phone .line > :is(legend, .grow) {
  display: none;
}
.phone .line .btn {
  height: 100%;
  flex-direction: column;
  width: 72px;
  font-size: 12px;
  white-space: normal;
}
</style>
