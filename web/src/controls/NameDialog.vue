<script setup lang="ts">
/** Asks for one name. */
import { BModal } from 'bootstrap-vue-next'
import { useId } from 'vue'
import { t } from '@/texts'

withDefaults(
  defineProps<{
    open: boolean
    title: string
    /** What its button says that does it. */
    ok?: string
    /** What the field is called, where the title does not say it. */
    label?: string
    most?: number
  }>(),
  { ok: t('controls.nameDialog.keep'), label: t('words.name'), most: 200 },
)
const name = defineModel<string>({ required: true })
defineEmits<{ ok: []; hidden: [] }>()
const id = useId()
</script>

<template>
  <BModal
    :model-value="open"
    :title="title"
    :ok-title="ok"
    :cancel-title="$t('words.cancel')"
    cancel-variant="secondary"
    @ok="$emit('ok')"
    @hidden="$emit('hidden')"
  >
    <label class="form-label" :for="id">{{ label }}</label>
    <input
      :id="id"
      v-model="name"
      data-first
      data-test="new-name"
      class="form-control"
      :maxlength="most"
      autocomplete="off"
    />
  </BModal>
</template>
