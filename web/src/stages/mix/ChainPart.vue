<script setup lang="ts">
/** What sound goes through, in order: added, switched, ordered, kept in the Kit. */
import { BDropdown, BDropdownDivider, BDropdownItemButton } from 'bootstrap-vue-next'
import { storeToRefs } from 'pinia'
import { computed, ref } from 'vue'
import IconDown from '~icons/tabler/arrow-down'
import IconOff from '~icons/tabler/plug-connected-x'
import IconOn from '~icons/tabler/plug-connected'
import IconPlus from '~icons/tabler/plus'
import IconTrash from '~icons/tabler/trash'
import IconUp from '~icons/tabler/arrow-up'
import NameDialog from '@/controls/NameDialog.vue'
import { usePhone } from '@/look/phone'
import { useKit, type Preset } from '@/stores/kit'
import { useMixing } from '@/stores/mixing'
import { useNotes } from '@/stores/notes'
import type { Insert } from '@/api/types'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import InsertFields from './InsertFields.vue'
import type { ChainOwner } from './chain'

const props = defineProps<{ chain: ChainOwner; whose: string }>()
const kit = useKit()
const notes = useNotes()
const { phone } = usePhone()
const { insert: open } = storeToRefs(useMixing())

const inserts = computed(() => props.chain.inserts.value)
const opened = computed(() => inserts.value.find((one) => one.id === open.value))
const kindOf = (one: Insert) => kit.sound?.inserts.find((kind) => kind.kind === one.kind)

async function add(kind: string) {
  open.value = await props.chain.add(kind)
}

const naming = ref(false)
const name = ref('')

async function keep() {
  try {
    const chain = inserts.value
    await kit.keepPreset(name.value.trim() || t('mix.chainPart.chain'), { chain }, 'chain')
    notes.told(t('mix.chainPart.isInTheKit', { name: name.value }))
  } catch (error) {
    notes.problem(error)
  }
}

const apply = (preset: Preset) => props.chain.addAll(preset.content.chain as Insert[], preset.name)
const remove = (preset: Preset) =>
  kit.removePreset(preset).catch((error: unknown) => notes.problem(error))
</script>

<template>
  <fieldset class="chain" :disabled="chain.locked.value">
    <TrayItem
      :name="$t('mix.chainPart.chain')"
      :told="inserts.length ? String(inserts.length) : ''"
    >
      <div class="adders line">
        <BDropdown
          size="sm"
          variant="secondary"
          no-caret
          teleport-to="body"
          strategy="fixed"
          data-test="add-insert"
        >
          <template #button-content>
            <IconPlus aria-hidden="true" /> {{ $t('mix.chainPart.add') }}
          </template>
          <BDropdownItemButton
            v-for="kind in kit.sound?.inserts ?? []"
            :key="kind.kind"
            :data-test="`insert-${kind.kind}`"
            @click="add(kind.kind)"
          >
            <strong>{{ kind.title }}</strong>
            <span class="tiny quiet help">{{ kind.help }}</span>
          </BDropdownItemButton>
        </BDropdown>
        <BDropdown
          size="sm"
          variant="secondary"
          no-caret
          teleport-to="body"
          strategy="fixed"
          data-test="chain-kit"
        >
          <template #button-content>{{ $t('words.kit') }}</template>
          <BDropdownItemButton
            :disabled="!inserts.length"
            data-test="keep-chain"
            @click="((name = ''), (naming = true))"
          >
            {{ $t('mix.chainPart.keepInTheKit') }}
          </BDropdownItemButton>
          <BDropdownDivider v-if="kit.chains.length" />
          <template v-for="one in kit.chains" :key="one.id">
            <BDropdownItemButton :data-test="`chain-${one.name}`" @click="apply(one)">
              {{ $t('mix.chainPart.addKept', { name: one.name }) }}
            </BDropdownItemButton>
            <BDropdownItemButton @click="remove(one)">
              <span class="quiet">{{ $t('mix.chainPart.takeOut', { name: one.name }) }}</span>
            </BDropdownItemButton>
          </template>
        </BDropdown>
      </div>
      <p v-if="!inserts.length" class="tiny quiet">
        {{ $t('mix.chainPart.noneYet', { whose }) }}
      </p>
      <ol class="row-of">
        <li v-for="(one, index) in inserts" :key="one.id" data-test="insert-row">
          <div class="head">
            <button
              class="btn btn-bare small"
              role="switch"
              :aria-checked="one.on !== false"
              :aria-label="$t('mix.chainPart.on', { title: kindOf(one)?.title })"
              @click="chain.set(one.id ?? '', { on: one.on === false })"
            >
              <IconOff v-if="one.on === false" aria-hidden="true" />
              <IconOn v-else aria-hidden="true" />
            </button>
            <button
              class="title"
              :class="{ quiet: one.on === false }"
              :aria-expanded="open === one.id"
              :title="kindOf(one)?.help"
              @click="open = open === one.id ? '' : (one.id ?? '')"
            >
              {{ kindOf(one)?.title ?? one.kind }}
            </button>
            <button
              class="btn btn-bare small"
              :disabled="!index"
              :aria-label="$t('mix.chainPart.earlier')"
              :title="$t('mix.chainPart.earlier')"
              @click="chain.order(one.id ?? '', index - 1)"
            >
              <IconUp aria-hidden="true" />
            </button>
            <button
              class="btn btn-bare small"
              :disabled="index === inserts.length - 1"
              :aria-label="$t('mix.chainPart.later')"
              :title="$t('mix.chainPart.later')"
              @click="chain.order(one.id ?? '', index + 1)"
            >
              <IconDown aria-hidden="true" />
            </button>
            <button
              class="btn btn-bare small"
              :aria-label="$t('mix.chainPart.delete', { title: kindOf(one)?.title })"
              data-test="remove-insert"
              @click="chain.remove(one.id ?? '')"
            >
              <IconTrash aria-hidden="true" />
            </button>
          </div>
          <div v-if="open === one.id && !phone" class="inside">
            <InsertFields :chain="chain" :insert="one" />
          </div>
        </li>
      </ol>
    </TrayItem>
    <InsertFields v-if="phone && opened" :key="opened.id" :chain="chain" :insert="opened" />
    <NameDialog
      v-model="name"
      :open="naming"
      :title="$t('mix.chainPart.keepThisChain')"
      @ok="keep"
      @hidden="naming = false"
    />
  </fieldset>
</template>

<style scoped>
.chain {
  display: grid;
  gap: 6px;
  min-width: 0;
}
.adders {
  display: flex;
  gap: 6px;
}
.help {
  display: block;
  white-space: normal;
}
.row-of {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.row-of > li {
  background: var(--raised);
  border-radius: var(--fold);
}
.head {
  display: flex;
  align-items: center;
}
.title {
  flex: 1;
  min-width: 0;
  border: 0;
  background: none;
  color: var(--text);
  text-align: left;
  font-weight: 600;
  min-height: var(--touch);
}
.inside {
  padding: 0 8px 8px;
}
.small {
  min-width: 36px;
  padding: 0 4px;
}
p {
  margin: 0;
}
.phone .row-of {
  display: flex;
  overflow-x: auto;
  scrollbar-width: none;
}
.phone .row-of > li {
  flex: none;
}
.phone .title {
  padding: 0 8px;
}
</style>
