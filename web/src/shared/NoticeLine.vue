<script setup lang="ts">
/** Something that has to be said across the whole width, with what can be done about it. */
defineProps<{ wrong?: boolean }>()
</script>

<template>
  <div class="told" :class="{ wrong }" :role="wrong ? 'alert' : 'status'">
    <span class="says"><slot /></span>
    <span v-if="$slots.acts" class="acts"><slot name="acts" /></span>
  </div>
</template>

<style scoped>
.told {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: flex-end;
  padding: 8px 14px;
  border-left: 5px solid rgb(var(--v-theme-primary));
  border-bottom: 1px solid rgb(var(--v-theme-rule));
  background: rgb(var(--v-theme-selected));
}

.told.wrong {
  border-left-color: rgb(var(--v-theme-error));
  background: transparent;
}

.says {
  flex: 1 1 240px;
}

.says::first-letter {
  text-transform: uppercase;
}

.acts :slotted(button) {
  min-height: 48px;
  padding: 0 10px;
  font-weight: 650;
  color: rgb(var(--v-theme-primary));
  text-decoration: underline;
  text-underline-offset: 4px;
}
</style>
