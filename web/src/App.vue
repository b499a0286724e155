<script setup lang="ts">
import NoteList from '@/controls/NoteList.vue'
</script>

<template>
  <RouterView />
  <NoteList />
</template>
