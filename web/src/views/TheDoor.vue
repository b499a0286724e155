<script setup lang="ts">
/** The form in front of the site: who one is, and a button to go in. */
import { BButton, BForm } from 'bootstrap-vue-next'
import { ref } from 'vue'
import { ServerError } from '@/api/client'
import KiteMark from '@/controls/KiteMark.vue'
import { t } from '@/texts'

const props = defineProps<{
  label: string
  busyLabel: string
  enter: () => Promise<unknown>
}>()
const problem = ref('')
const busy = ref(false)

async function go() {
  busy.value = true
  problem.value = ''
  try {
    await props.enter()
  } catch (error) {
    problem.value =
      error instanceof ServerError
        ? `${error.problem.message} ${error.problem.todo}`
        : t('views.theDoor.thatDidNotWorkTry')
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <main class="door">
    <BForm class="panel card-in" @submit.prevent="go">
      <div class="d-flex align-items-center gap-3 mb-3">
        <KiteMark />
        <div>
          <h1 class="wordmark m-0">{{ $t('words.velvetKite') }}</h1>
          <div class="small quiet">{{ $t('views.theDoor.shortVideosFromFirstTake') }}</div>
        </div>
      </div>
      <slot />
      <p v-if="problem" class="problem small" role="alert">{{ problem }}</p>
      <BButton type="submit" variant="primary" class="w-100" :disabled="busy" data-test="enter">
        {{ busy ? busyLabel : label }}
      </BButton>
      <slot name="below" />
    </BForm>
  </main>
</template>

<style scoped>
.door {
  min-height: 100%;
  display: grid;
  place-items: center;
  padding: 16px;
  background:
    radial-gradient(900px 500px at 80% -10%, #5d438455, transparent),
    radial-gradient(700px 500px at 0% 110%, #8f4a6b44, transparent), var(--page);
}
.card-in {
  width: min(380px, 100%);
  padding: 28px;
}
.problem {
  border-left: 4px solid #e5534b;
  padding-left: 10px;
}
</style>
