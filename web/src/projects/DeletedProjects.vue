<script setup lang="ts">
import { ref } from 'vue'
import { day, PlainDialog } from '../shared'

/** Projects that were deleted: to bring back, or to let go of for good. */
interface Deleted {
  id: string
  name: string
  deleted: string
}
defineProps<{ deleted: Deleted[] }>()
const emit = defineEmits<{ bringBack: [id: string]; remove: [id: string] }>()
const removing = ref<Deleted>()

function remove() {
  if (removing.value) emit('remove', removing.value.id)
  removing.value = undefined
}
</script>

<template>
  <template v-if="deleted.length">
    <h2>Deleted</h2>
    <ul class="deleted">
      <li v-for="one in deleted" :key="one.id">
        <span class="called">{{ one.name }}</span>
        <span class="quiet">{{ day(one.deleted) }}</span>
        <v-btn
          size="small"
          :aria-label="`Bring back ${one.name}`"
          @click="$emit('bringBack', one.id)"
          >Bring back</v-btn
        >
        <v-btn
          variant="text"
          size="small"
          :aria-label="`Delete for good: ${one.name}`"
          @click="removing = one"
          >Delete for good</v-btn
        >
      </li>
    </ul>
    <PlainDialog
      :model-value="Boolean(removing)"
      :title="`Delete ${removing?.name} for good?`"
      :width="420"
      @update:model-value="removing = undefined"
    >
      Its parts, plans, receipts and whole history go with it. This cannot be undone.
      <template #acts>
        <v-btn @click="removing = undefined">Keep it</v-btn>
        <v-btn color="error" @click="remove">Delete for good</v-btn>
      </template>
    </PlainDialog>
  </template>
</template>

<style scoped>
.deleted {
  list-style: none;
  margin: 0;
  padding: 0;
}

.deleted li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  padding: 6px 0;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}
</style>
