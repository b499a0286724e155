<script setup lang="ts">
/** The effects of a layer, in order: added by search, switched, ordered, mixed, copied, kept. */
import { BDropdown, BDropdownItemButton } from 'bootstrap-vue-next'
import { storeToRefs } from 'pinia'
import { computed, ref } from 'vue'
import type { Effect } from '@/api/types'
import { usePhone } from '@/look/phone'
import { omitted } from '@/motion/props'
import { useClipboard } from '@/stores/clipboard'
import { useLayering } from '@/stores/layering'
import { useKit, type Preset } from '@/stores/kit'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import EffectFields from './EffectFields.vue'
import { found } from './effects'
import type { Layer } from '@/inhand/useLayer'
import NameDialog from '@/controls/NameDialog.vue'
import PartRows from '@/controls/PartRows.vue'

const props = defineProps<{ layer: Layer }>()
const kit = useKit()
const notes = useNotes()
const project = useProject()
const clipboard = useClipboard()
const { phone } = usePhone()

const effects = computed<Effect[]>(() => props.layer.clip.value?.effects ?? [])
const { effect: open } = storeToRefs(useLayering())
/** On a phone the values of one effect stand among the controls. */
const opened = computed(() => effects.value.find((one) => one.id === open.value))
const wanted = ref('')
const searching = ref(false)
const kinds = computed(() => found(kit.layer?.effects ?? [], wanted.value))

async function add(kind: string) {
  const parts = [{ kind }] as never
  const clips = props.layer.ids.value
  const { made } = await project.make({ kind: 'add_parts', clips, list: 'effects', parts })
  wanted.value = ''
  searching.value = false
  if (made[0]) open.value = made[0]
}

function search(event: KeyboardEvent) {
  const first = kinds.value[0]
  if (event.key === 'Enter' && first) add(first.kind)
  else if (event.key === 'Escape') searching.value = false
  else return
  event.stopPropagation()
}

const parts = (row: readonly Effect[]) => row.map((one) => omitted(one, 'id'))

function copyAll() {
  clipboard.effects = [...effects.value]
  notes.told(t('layer.effectsPart.effectsCopied', effects.value.length))
}

const naming = ref(false)
const name = ref('')

async function keep() {
  try {
    await kit.keepPreset(
      name.value.trim() || t('words.effects'),
      { effects: effects.value },
      'effects',
    )
    notes.told(t('layer.effectsPart.isInTheKit', { name: name.value }))
  } catch (error) {
    notes.problem(error)
  }
}

const apply = (preset: Preset) =>
  props.layer.addParts('effects', parts(preset.content.effects as Effect[]), preset.name)
const remove = (preset: Preset) =>
  kit.removePreset(preset).catch((error: unknown) => notes.problem(error))
</script>

<template>
  <fieldset class="effects" :disabled="layer.locked.value">
    <TrayItem :name="$t('words.effects')" :told="effects.length ? String(effects.length) : ''">
      <div class="finder">
        <input
          v-model="wanted"
          type="search"
          class="form-control form-control-sm"
          :placeholder="$t('layer.effectsPart.addAnEffect')"
          :aria-label="$t('layer.effectsPart.addAnEffectSearch')"
          data-test="find-effect"
          @focus="searching = true"
          @input="searching = true"
          @keydown="search"
        />
        <BDropdown
          size="sm"
          variant="secondary"
          no-caret
          teleport-to="body"
          strategy="fixed"
          data-test="effects-more"
        >
          <template #button-content>{{ $t('words.kit') }}</template>
          <BDropdownItemButton :disabled="!effects.length" @click="copyAll">
            {{ $t('layer.effectsPart.copyAllEffects') }}
          </BDropdownItemButton>
          <BDropdownItemButton
            :disabled="!clipboard.effects.length"
            data-test="paste-effects"
            @click="layer.addParts('effects', parts(clipboard.effects))"
          >
            {{ $t('layer.effectsPart.paste', { count: clipboard.effects.length || '' }) }}
          </BDropdownItemButton>
          <BDropdownItemButton
            :disabled="!effects.length"
            data-test="keep-effects"
            @click="((name = ''), (naming = true))"
          >
            {{ $t('layer.effectsPart.keepTheseInTheKit') }}
          </BDropdownItemButton>
          <template v-for="one in kit.effects" :key="one.id">
            <BDropdownItemButton :data-test="`effects-${one.name}`" @click="apply(one)">
              {{ $t('layer.effectsPart.add', { name: one.name }) }}
            </BDropdownItemButton>
            <BDropdownItemButton @click="remove(one)">
              <span class="quiet">{{
                $t('layer.effectsPart.takeOutOfTheKit', { name: one.name })
              }}</span>
            </BDropdownItemButton>
          </template>
        </BDropdown>
      </div>
      <ul v-if="searching" class="found" data-test="found-effects">
        <li v-for="one in kinds" :key="one.kind">
          <button :data-test="`effect-${one.kind}`" @click="add(one.kind)">
            <strong>{{ one.title }}</strong> <span class="tiny quiet">{{ one.help }}</span>
          </button>
        </li>
        <li v-if="!kinds.length" class="quiet tiny none">
          {{ $t('layer.effectsPart.noEffectIsCalledThat') }}
        </li>
        <li>
          <button class="quiet tiny" @click="searching = false">
            {{ $t('layer.effectsPart.closeTheList') }}
          </button>
        </li>
      </ul>
      <p v-else-if="!effects.length" class="tiny quiet">
        {{ $t('layer.effectsPart.noneYetEffectsWorkOne') }}
      </p>
      <PartRows
        v-model:open="open"
        :parts="effects"
        :kinds="kit.layer?.effects ?? []"
        test="effect-row"
        @switch="(id, on) => layer.setPart('effects', id, { on })"
        @order="(id, to) => layer.orderPart('effects', id, to)"
        @remove="layer.removePart('effects', $event)"
      >
        <template #default="{ part }"><EffectFields :layer="layer" :effect="part" /></template>
      </PartRows>
    </TrayItem>
    <EffectFields v-if="phone && opened" :key="opened.id" :layer="layer" :effect="opened" />
    <NameDialog
      v-model="name"
      :open="naming"
      :title="$t('layer.effectsPart.keepTheseEffects')"
      @ok="keep"
      @hidden="naming = false"
    />
  </fieldset>
</template>

<style scoped>
.effects {
  display: grid;
  gap: 6px;
  min-width: 0;
}
.finder {
  display: flex;
  gap: 6px;
}
.finder .form-control {
  min-height: calc(var(--touch) - 4px);
}
.found {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.found {
  background: var(--rail);
  border-radius: var(--fold);
  padding: 4px;
  gap: 0;
}
.found button {
  width: 100%;
  border: 0;
  background: none;
  color: var(--text);
  text-align: left;
  padding: 6px 8px;
  min-height: calc(var(--touch) - 6px);
  border-radius: 7px 7px 2px 7px;
}
.found button:hover,
.found button:focus-visible {
  background: var(--raised);
}
.none {
  padding: 8px;
}
p {
  margin: 0;
}
</style>
