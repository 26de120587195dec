<template>
  <svg class="mark" viewBox="0 0 32 24" aria-hidden="true">
    <path d="M2 18h28v4H2z" fill="currentColor" />
    <path d="M5 17c1-4 3-6 6-6v6zM14 17 20 4h3l-4 13z" fill="currentColor" />
    <path d="m20 4 4-2-1.500 5z" fill="var(--brass)" />
  </svg>
</template>

<style scoped>
.mark {
  width: 1.625rem;
  height: 1.25rem;
}
</style>
