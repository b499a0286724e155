<script setup lang="ts" generic="One extends { id?: string; kind: string; on?: boolean }">
/** Parts of something that work one after another: switched, opened, ordered, taken away. */
import IconDown from '~icons/tabler/arrow-down'
import IconEye from '~icons/tabler/eye'
import IconEyeOff from '~icons/tabler/eye-off'
import IconTrash from '~icons/tabler/trash'
import IconUp from '~icons/tabler/arrow-up'
import { useTemplateRef, watch } from 'vue'
import { usePhone } from '@/look/phone'

const props = defineProps<{
  parts: readonly One[]
  /** What their kinds are called, and do. */
  kinds: readonly { kind: string; title: string; help?: string }[]
  /** For tests, of a row. */
  test: string
}>()
/** Id of the one whose values are shown, inside of it unless on a phone. */
const open = defineModel<string>('open', { required: true })
defineEmits<{
  switch: [id: string, on: boolean]
  order: [id: string, to: number]
  remove: [id: string]
}>()
const { phone } = usePhone()

const list = useTemplateRef('list')
// On a phone they stand in one row, of which not all is seen.
watch(
  [open, () => props.parts.length],
  () => list.value?.querySelector('.open')?.scrollIntoView({ block: 'nearest', inline: 'nearest' }),
  { flush: 'post' },
)

const kindOf = (one: One) => props.kinds.find(({ kind }) => kind === one.kind)
/** Of several of a kind each has its number. */
function titleOf(one: One): string {
  const title = kindOf(one)?.title ?? one.kind
  const alike = props.parts.filter(({ kind }) => kind === one.kind)
  return alike.length > 1 ? `${title} ${alike.indexOf(one) + 1}` : title
}
</script>

<template>
  <ol ref="list" class="row-of">
    <li
      v-for="(one, index) in parts"
      :key="one.id"
      :class="{ open: open === one.id }"
      :data-test="test"
    >
      <div class="head">
        <button
          class="btn btn-bare small"
          role="switch"
          :aria-checked="one.on !== false"
          :aria-label="$t('controls.partRows.on', { title: titleOf(one) })"
          @click="$emit('switch', one.id ?? '', one.on === false)"
        >
          <IconEyeOff v-if="one.on === false" aria-hidden="true" />
          <IconEye v-else aria-hidden="true" />
        </button>
        <button
          class="title"
          :class="{ quiet: one.on === false }"
          :aria-expanded="open === one.id"
          :title="kindOf(one)?.help"
          @click="open = open === one.id ? '' : (one.id ?? '')"
        >
          {{ titleOf(one) }}
        </button>
        <button
          class="btn btn-bare small"
          :disabled="!index"
          :aria-label="$t('controls.partRows.worksEarlier')"
          :title="$t('controls.partRows.worksEarlier')"
          @click="$emit('order', one.id ?? '', index - 1)"
        >
          <IconUp aria-hidden="true" />
        </button>
        <button
          class="btn btn-bare small"
          :disabled="index === parts.length - 1"
          :aria-label="$t('controls.partRows.worksLater')"
          :title="$t('controls.partRows.worksLater')"
          @click="$emit('order', one.id ?? '', index + 1)"
        >
          <IconDown aria-hidden="true" />
        </button>
        <button
          class="btn btn-bare small"
          :aria-label="$t('controls.partRows.delete', { title: titleOf(one) })"
          @click="$emit('remove', one.id ?? '')"
        >
          <IconTrash aria-hidden="true" />
        </button>
      </div>
      <div v-if="open === one.id && !phone" class="inside">
        <slot :part="one" />
      </div>
    </li>
  </ol>
</template>

<style scoped>
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
.title.quiet {
  color: var(--quiet);
}
.inside {
  padding: 0 8px 8px;
}
.small {
  min-width: 36px;
  padding: 0 4px;
}
.phone .row-of {
  display: flex;
  overflow-x: auto;
  scrollbar-width: none;
}
.phone .row-of > li {
  flex: none;
}
.phone .open {
  outline: 2px solid var(--accent);
  outline-offset: -2px;
}
.phone .title {
  padding: 0 8px;
}
</style>
