<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import FreshVersion from '@/controls/FreshVersion.vue'
import NoteList from '@/controls/NoteList.vue'
import { useEnterMeansOk } from '@/controls/useEnterMeansOk'
import { useProject } from '@/stores/project'

useEnterMeansOk()
const project = useProject()
// They are kept on this device; but they are safe only where they were sent to.
useEventListener(window, 'beforeunload', (event) => {
  if (project.waitingAnywhere) event.preventDefault()
})
</script>

<template>
  <RouterView />
  <NoteList />
  <FreshVersion />
</template>
