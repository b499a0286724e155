<script setup lang="ts">
/** How the file of the destination in hand is made. */
import { BButton } from 'bootstrap-vue-next'
import { computed, ref } from 'vue'
import NameDialog from '@/controls/NameDialog.vue'
import ToolLine from '@/controls/ToolLine.vue'
import { useNotes } from '@/stores/notes'
import { useSending } from '@/stores/sending'
import { t } from '@/texts'
import TrayItem from '@/tray/TrayItem.vue'
import FileFields from './FileFields.vue'

const sending = useSending()
const notes = useNotes()
const own = computed(() => sending.ownOf(sending.at))

const naming = ref(false)
const name = ref('')
const failed = (error: unknown) => notes.problem(error)
const keep = () => sending.keepAsOwn(name.value.trim() || t('send.filePart.unnamed')).catch(failed)
const remove = () => own.value && sending.removeOwn(own.value).catch(failed)
</script>

<template>
  <section
    v-if="sending.settings"
    class="fields tray-group"
    :aria-label="$t('send.sendBench.file')"
  >
    <p class="small soft head tray-keep">
      <span class="clip-text">
        <strong>{{ sending.destination?.title }}</strong> · {{ sending.destination?.help }}
      </span>
      <BButton
        v-if="sending.isChanged(sending.at)"
        variant="secondary"
        size="sm"
        data-test="as-it-wants"
        @click="sending.asItWants()"
      >
        {{ $t('send.filePart.asItWants') }}
      </BButton>
    </p>
    <FileFields :settings="sending.settings" />
    <TrayItem :name="$t('send.filePart.kit')" :told="own ? own.title : ''" last>
      <ToolLine :name="$t('send.filePart.kit')" :label="$t('send.filePart.kit')">
        <BButton
          variant="secondary"
          size="sm"
          :title="$t('send.filePart.keepHelp')"
          data-test="keep-place"
          @click="((name = own?.title ?? ''), (naming = true))"
        >
          {{ $t('send.filePart.keep') }}
        </BButton>
        <BButton v-if="own" variant="secondary" size="sm" data-test="remove-place" @click="remove">
          {{ $t('send.filePart.remove') }}
        </BButton>
      </ToolLine>
    </TrayItem>
    <NameDialog
      v-model="name"
      :open="naming"
      :title="$t('send.filePart.keepTitle')"
      @ok="keep"
      @hidden="naming = false"
    />
  </section>
</template>

<style scoped>
.fields {
  display: flex;
  flex-direction: column;
  gap: 4px;
  overflow-y: auto;
  min-height: 0;
  scrollbar-width: thin;
}
.head {
  display: flex;
  align-items: center;
  gap: 10px;
  margin: 0;
  min-height: 36px;
}
.head .btn {
  flex: none;
}
.phone .head {
  order: 2;
}
</style>
