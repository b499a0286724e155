<script setup lang="ts">
/** The name of a take, and what can be done with all of it. */
import { BDropdown, BDropdownItem, BDropdownItemButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import IconBack from '~icons/tabler/chevron-left'
import IconDots from '~icons/tabler/dots'
import type { Take } from '@/api/types'
import { usePhone } from '@/look/phone'
import { useLibrary } from '@/stores/library'
import NameDialog from '@/controls/NameDialog.vue'

const props = defineProps<{ take: Take }>()
defineEmits<{ back: [] }>()
const library = useLibrary()
const { phone } = usePhone()
const interlaced = computed(() => props.take.facts?.picture?.interlaced ?? false)
const naming = ref(false)
const name = ref('')

function ask() {
  name.value = props.take.name
  naming.value = true
}

function rename() {
  if (name.value.trim()) library.change(props.take.id, { name: name.value.trim() })
}
</script>

<template>
  <div class="title">
    <button
      v-if="phone"
      class="btn btn-bare"
      :aria-label="$t('gather.takeTitle.backToTheTakes')"
      data-test="back-to-takes"
      @click="$emit('back')"
    >
      <IconBack aria-hidden="true" />
    </button>
    <h2 class="clip-text">{{ take.name }}</h2>
    <BDropdown :variant="null" no-caret toggle-class="btn-bare" teleport-to="body" strategy="fixed">
      <template #button-content
        ><IconDots :aria-label="$t('gather.takeTitle.moreForThisTake')"
      /></template>
      <BDropdownItemButton @click="ask">{{ $t('words.rename') }}</BDropdownItemButton>
      <BDropdownItemButton
        v-if="take.facts?.kind === 'video'"
        :disabled="take.state !== 'ready'"
        :title="$t('gather.takeTitle.ofCamerasThatTakeTwo')"
        data-test="two-fields"
        @click="library.setFields(take.id, !interlaced)"
      >
        {{
          interlaced
            ? $t('gather.takeTitle.itsFramesAreWholeLeave')
            : $t('gather.takeTitle.itHasTwoFieldsA')
        }}
      </BDropdownItemButton>
      <BDropdownItem
        :href="`/api/takes/${take.id}/original`"
        :download="take.name"
        data-test="take-original"
      >
        {{ $t('gather.takeTitle.download') }}
      </BDropdownItem>
      <BDropdownItemButton variant="danger" @click="library.remove(take.id)">
        {{ $t('gather.takeTitle.removeFromTheLibrary') }}
      </BDropdownItemButton>
    </BDropdown>
    <NameDialog
      v-model="name"
      :open="naming"
      :title="$t('gather.takeTitle.renameTheTake')"
      :ok="$t('words.rename')"
      @ok="rename"
      @hidden="naming = false"
    />
  </div>
</template>

<style scoped>
.title {
  display: flex;
  align-items: center;
  gap: 6px;
}
h2 {
  flex: 1;
}
.phone .title {
  margin: 0 -12px;
}
</style>
