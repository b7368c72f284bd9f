<template>
  <div class="brand">
    <svg width="22" height="22" viewBox="0 0 22 22" aria-hidden="true">
      <path d="M3 4v14M19 4v14" stroke="var(--current)" stroke-width="2.4" />
      <path d="M3 11c4-5 6 5 10 1 1.6-1.6 3-2 6-1" fill="none" stroke="var(--current)" stroke-width="2.4" />
    </svg>
    Transitum
  </div>
</template>

<style scoped>
.brand { font-weight: 700; font-size: 16px; font-stretch: 112%; letter-spacing: -0.01em; display: flex; gap: 9px; align-items: center; }
</style>
