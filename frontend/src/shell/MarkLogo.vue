<template>
  <RouterLink to="/" class="logo" aria-label="Hollet: to the Shop">
    <svg viewBox="0 0 32 32" width="32" height="32" aria-hidden="true">
      <g stroke="var(--ink)" stroke-width="3.4" fill="none"><path d="M4 3v26M28 3v26M4 16h7M21 16h7" /></g>
      <circle cx="16" cy="16" r="5.5" fill="var(--yel)" stroke="var(--ink)" stroke-width="2.6" />
    </svg>
    <span>Hollet</span>
  </RouterLink>
</template>

<style scoped>
.logo {
  display: flex;
  align-items: center;
  gap: 10px;
  text-decoration: none;
  min-height: 44px;
}
.logo span {
  font-size: 24px;
  font-weight: 800;
}
</style>
