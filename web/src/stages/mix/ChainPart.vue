<script setup lang="ts">
/** What sound goes through, in order: added, switched, ordered, kept in the Kit. */
import { BDropdown, BDropdownDivider, BDropdownItemButton } from 'bootstrap-vue-next'
import { storeToRefs } from 'pinia'
import { computed, ref } from 'vue'
import IconPlus from '~icons/tabler/plus'
import NameDialog from '@/controls/NameDialog.vue'
import PartRows from '@/controls/PartRows.vue'
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
      <PartRows
        v-model:open="open"
        :parts="inserts"
        :kinds="kit.sound?.inserts ?? []"
        test="insert-row"
        @switch="(id, on) => chain.set(id, { on })"
        @order="chain.order"
        @remove="chain.remove"
      >
        <template #default="{ part }"><InsertFields :chain="chain" :insert="part" /></template>
      </PartRows>
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
p {
  margin: 0;
}
</style>
