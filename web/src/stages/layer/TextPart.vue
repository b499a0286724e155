<script setup lang="ts">
/** Words: what they say, in which font, how they are set, filled, outlined. */
import { BButton, BDropdown, BDropdownItemButton } from 'bootstrap-vue-next'
import { computed, ref, watch } from 'vue'
import IconBold from '~icons/tabler/bold'
import IconItalic from '~icons/tabler/italic'
import IconStart from '~icons/tabler/align-left'
import IconMiddle from '~icons/tabler/align-center'
import IconEnd from '~icons/tabler/align-right'
import IconJustified from '~icons/tabler/align-justified'
import type { TextClip } from '@/api/types'
import ControlFields from '@/controls/ControlFields.vue'
import KeyButton from '@/controls/KeyButton.vue'
import { changedAt, valueAt } from '@/motion/keys'
import { saidOtherwise } from '@/motion/said'
import { useScreen } from '@/player/inject'
import { useKit } from '@/stores/kit'
import { useNotes } from '@/stores/notes'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import FillEditor from './FillEditor.vue'
import type { Layer } from '@/inhand/useLayer'

const props = defineProps<{ layer: Layer }>()
const kit = useKit()
const notes = useNotes()
const { player } = useScreen()
const file = ref<HTMLInputElement | null>(null)

const clip = computed(() => props.layer.clip.value as TextClip | null)
const typed = ref('')
const words = computed(
  () => (valueAt(clip.value?.text, props.layer.local.value) as string | undefined) ?? '',
)
watch(words, (now) => (typed.value = now), { immediate: true })
const changed = () => ({
  text: changedAt(clip.value?.text, props.layer.local.value, typed.value),
  ...(clip.value ? saidOtherwise(clip.value, words.value, typed.value) : {}),
})
const font = computed(() => kit.fonts.find((one) => one.name === clip.value?.font))

function trying() {
  player.tryOut(props.layer.step(changed()))
}
function setText() {
  if (typed.value !== words.value) props.layer.setWhole(changed())
}

async function bringIn(event: Event) {
  const field = event.target as HTMLInputElement
  for (const one of field.files ?? []) {
    try {
      const found = await kit.bringInFont(one)
      await props.layer.setWhole({ font: found.name, bold: false, italic: false })
    } catch (error) {
      notes.problem(error)
    }
  }
  field.value = ''
}

function takeFont(name: string) {
  const found = kit.fonts.find((one) => one.name === name)
  props.layer.setWhole({
    font: name,
    bold: Boolean(clip.value?.bold && found?.bold),
    italic: Boolean(clip.value?.italic && found?.italic),
  })
}

async function removeFont() {
  if (!font.value) return
  try {
    await kit.removeFont(font.value)
    notes.told(t('layer.textPart.takenOutOfTheKit'))
  } catch (error) {
    notes.problem(error)
  }
}

const ALIGNS = [
  { id: 'start', name: t('layer.textPart.start'), icon: IconStart },
  { id: 'middle', name: t('layer.textPart.middle'), icon: IconMiddle },
  { id: 'end', name: t('layer.textPart.end'), icon: IconEnd },
  { id: 'justified', name: t('layer.textPart.justified'), icon: IconJustified },
] as const

const has = (kind: string) => clip.value?.effects?.find((one) => one.kind === kind)
function toggleEffect(kind: 'shadow' | 'glow') {
  const found = has(kind)
  if (found) props.layer.removePart('effects', found.id ?? '')
  else
    props.layer.addParts('effects', [
      kind === 'glow' ? { kind, of: 'outline', width: 40, strength: 1.2 } : { kind },
    ])
}
const plate = computed(() => clip.value?.plate as Record<string, unknown> | null | undefined)
const plateValues = (values: Record<string, unknown>) =>
  Object.fromEntries(Object.entries(values).map(([name, value]) => [`plate/${name}`, value]))
const textControls = computed(() =>
  (kit.layer?.text ?? []).filter((one) => one.name !== 'outline_width'),
)
const outlineControls = computed(() =>
  (kit.layer?.text ?? []).filter((one) => one.name === 'outline_width'),
)
</script>

<template>
  <fieldset v-if="clip" class="text" :disabled="layer.locked.value">
    <TrayItem :name="$t('layer.textPart.words')" :keyed="layer.keyed('text') !== 'none'">
      <div class="said">
        <textarea
          v-model="typed"
          class="form-control"
          rows="2"
          maxlength="4000"
          dir="auto"
          :aria-label="$t('layer.textPart.words')"
          data-test="words"
          @input="trying"
          @change="setText"
        />
        <KeyButton
          :label="$t('layer.textPart.words')"
          :keyed="layer.keyed('text')"
          data-test="key-words"
          @click="layer.toggleKey('text', '')"
        />
      </div>
    </TrayItem>
    <TrayItem :name="$t('layer.textPart.font')" :told="font?.title">
      <div class="line">
        <BDropdown
          size="sm"
          variant="secondary"
          teleport-to="body"
          strategy="fixed"
          menu-class="tall-menu"
          data-test="fonts"
          lazy
        >
          <template #button-content>{{ font?.title ?? $t('layer.textPart.font') }}</template>
          <BDropdownItemButton
            v-for="one in kit.fonts"
            :key="one.name"
            :data-test="`font-${one.name}`"
            @click="takeFont(one.name)"
          >
            <img
              class="sample"
              :src="`/api/kit/fonts/${one.name}/sample.jpg`"
              :alt="one.title"
              loading="lazy"
            />
          </BDropdownItemButton>
          <BDropdownItemButton data-test="bring-in-font" @click="file?.click()">
            {{ $t('layer.textPart.bringInAFontTtf') }}
          </BDropdownItemButton>
          <BDropdownItemButton v-if="font?.own" @click="removeFont">
            {{ $t('layer.textPart.takeOutOfTheKit', { title: font.title }) }}
          </BDropdownItemButton>
        </BDropdown>
        <input
          ref="file"
          type="file"
          :aria-label="$t('layer.textPart.aFontToBringIn')"
          accept=".ttf,.otf"
          hidden
          data-test="font-file"
          @change="bringIn"
        />
        <button
          class="btn btn-bare small"
          :aria-pressed="clip.bold"
          :aria-label="$t('layer.textPart.bold')"
          :title="font?.bold ? $t('layer.textPart.bold') : $t('layer.textPart.thisFontHasNoBold')"
          :disabled="!font?.bold"
          @click="layer.setWhole({ bold: !clip.bold })"
        >
          <IconBold aria-hidden="true" />
        </button>
        <button
          class="btn btn-bare small"
          :aria-pressed="clip.italic"
          :aria-label="$t('layer.textPart.italic')"
          :title="
            font?.italic ? $t('layer.textPart.italic') : $t('layer.textPart.thisFontHasNoItalic')
          "
          :disabled="!font?.italic"
          @click="layer.setWhole({ italic: !clip.italic })"
        >
          <IconItalic aria-hidden="true" />
        </button>
        <span class="grow" />
        <button
          v-for="one in ALIGNS"
          :key="one.id"
          class="btn btn-bare small"
          :aria-pressed="(clip.align ?? 'middle') === one.id"
          :aria-label="$t('layer.textPart.align', { name: one.name })"
          :title="one.name"
          @click="layer.setWhole({ align: one.id })"
        >
          <component :is="one.icon" aria-hidden="true" />
        </button>
      </div>
    </TrayItem>
    <ControlFields
      :controls="textControls"
      :values="clip as unknown as Record<string, unknown>"
      :local="layer.local.value"
      @trying="layer.tryWhole($event)"
      @set="layer.setWhole($event)"
    />
    <FillEditor :layer="layer" :label="$t('layer.textPart.fill')" path="fill" optional />
    <FillEditor :layer="layer" :label="$t('layer.textPart.outline')" path="outline" optional />
    <ControlFields
      v-if="clip.outline"
      :controls="outlineControls"
      :values="clip as unknown as Record<string, unknown>"
      :local="layer.local.value"
      @trying="layer.tryWhole($event)"
      @set="layer.setWhole($event)"
    />
    <FillEditor :layer="layer" :label="$t('layer.textPart.lit')" path="lit" optional />
    <TrayItem v-if="clip.lit" :name="$t('layer.textPart.litStays')">
      <BButton
        size="sm"
        variant="secondary"
        :aria-pressed="clip.lit_stays ?? false"
        data-test="lit-stays"
        @click="layer.setWhole({ lit_stays: !clip.lit_stays })"
      >
        {{ $t('layer.textPart.litStays') }}
      </BButton>
    </TrayItem>
    <TrayItem :name="$t('layer.textPart.shadowAndPlate')">
      <div class="line">
        <BButton
          size="sm"
          variant="secondary"
          :aria-pressed="Boolean(has('shadow'))"
          data-test="text-shadow"
          @click="toggleEffect('shadow')"
        >
          {{ $t('layer.textPart.shadow') }}
        </BButton>
        <BButton
          size="sm"
          variant="secondary"
          :aria-pressed="Boolean(has('glow'))"
          @click="toggleEffect('glow')"
        >
          {{ $t('layer.textPart.glow') }}
        </BButton>
        <BButton
          size="sm"
          variant="secondary"
          :aria-pressed="Boolean(plate)"
          data-test="plate"
          @click="layer.setWhole({ plate: plate ? null : {} })"
        >
          {{ $t('layer.textPart.plate') }}
        </BButton>
        <span v-if="has('shadow') || has('glow')" class="tiny quiet">{{
          $t('layer.textPart.setUnderEffects')
        }}</span>
      </div>
    </TrayItem>
    <template v-if="plate">
      <FillEditor :layer="layer" :label="$t('layer.textPart.plate')" path="plate/fill" />
      <ControlFields
        :controls="kit.layer?.plate ?? []"
        :values="plate"
        :local="layer.local.value"
        @trying="layer.tryWhole(plateValues($event))"
        @set="layer.setWhole(plateValues($event))"
      />
    </template>
  </fieldset>
</template>

<style scoped>
.said {
  display: flex;
  align-items: center;
  gap: 6px;
}
.text {
  display: grid;
  gap: 4px;
  min-width: 0;
}
textarea {
  resize: vertical;
  min-height: 54px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 6px;
  min-height: 38px;
}
.grow {
  flex: 1;
}
.sample {
  height: 28px;
  border-radius: 5px 5px 2px 5px;
}
.small {
  min-width: var(--touch);
  padding: 0 3px;
}
</style>
