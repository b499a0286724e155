<template>
  <svg viewBox="0 0 32 44" class="kite" aria-hidden="true">
    <path d="M16 1 30 15 16 43 2 15Z" fill="#ff8a6b" />
    <path d="M16 1v42L2 15Z" fill="#e96b77" />
    <path d="M16 1 30 15H16Z" fill="#ffb49b" />
    <path d="M2 15h14v28Z" fill="#8e4f86" />
  </svg>
</template>

<style scoped>
.kite {
  width: 26px;
  height: 36px;
}
</style>
