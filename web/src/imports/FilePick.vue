<script setup lang="ts">
/** Chooses one file; the same file may be chosen again after it was mended. */
defineProps<{ label: string; accept: string; file: File | undefined }>()
const emit = defineEmits<{ picked: [file: File | undefined] }>()

function chosen(event: Event) {
  const input = event.target as HTMLInputElement
  emit('picked', input.files?.[0])
  input.value = '' // else choosing a file of the same name again says nothing
}
</script>

<template>
  <label class="pick">
    <span class="choose">{{ file ? 'Choose another file' : 'Choose a file' }}</span>
    <input type="file" class="said-only" :aria-label="label" :accept="accept" @change="chosen" />
    <span class="called">{{ file?.name }}</span>
  </label>
</template>

<style scoped>
.pick {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-bottom: 8px;
  cursor: pointer;
}

.choose {
  padding: 5px 14px;
  border: 1px solid rgb(var(--v-theme-on-surface));
  border-radius: var(--corner);
}

.pick:focus-within .choose {
  outline: 2px solid rgb(var(--v-theme-primary));
  outline-offset: 2px;
}
</style>
