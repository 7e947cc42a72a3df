<script setup lang="ts">
import { computed } from 'vue'
import type { Part, Project } from '../api/client'
import PartRow from './PartRow.vue'
import type { ProjectOnDesk } from './useProject'
import type { Lighting } from './useLighting'
import { useDrafts } from './useDrafts'

const props = defineProps<{ project: Project; desk: ProjectOnDesk; lighting: Lighting }>()
const { drafts, keep, drop } = useDrafts(props.project.id)

const groups = computed(() => {
  const found: { name: string; parts: Part[] }[] = []
  for (const part of props.project.parts) {
    const last = found.find((group) => group.name === part.group)
    if (last) last.parts.push(part)
    else found.push({ name: part.group, parts: [part] })
  }
  return found
})
</script>

<template>
  <div class="sheet" role="table" aria-label="Part list">
    <div class="head" role="row">
      <span role="columnheader" class="count">count</span>
      <span role="columnheader">part</span>
      <span role="columnheader">stock, real size</span>
      <span role="columnheader" class="to-right">length</span>
    </div>
    <div
      v-for="group in groups"
      :key="group.name"
      role="rowgroup"
      :aria-label="group.name || 'parts'"
    >
      <div v-if="group.name" role="row" class="group">
        <span role="cell">{{ group.name }}</span>
      </div>
      <PartRow
        v-for="part in group.parts"
        :key="part.id"
        :part="part"
        :desk="desk"
        :lighting="lighting"
        :drafts="drafts"
        @keep="keep"
        @drop="drop"
      />
    </div>
    <div v-if="!project.parts.length" class="empty">
      <p class="called">No parts yet.</p>
      <p class="quiet">
        Type the first one below, or paste rows from a spreadsheet. Nominal names are fine: the real
        size is looked up.
      </p>
    </div>
  </div>
</template>

<style scoped>
.sheet {
  --columns: 30px 38px minmax(0, 1.35fr) minmax(0, 1fr) 84px;
}

.head,
.sheet :deep(.row) {
  display: grid;
  grid-template-columns: var(--columns);
  gap: 0 11px;
  padding: 0 12px 0 10px;
}

.head {
  position: sticky;
  top: 0;
  z-index: 4;
  background: rgb(var(--v-theme-surface));
  border-bottom: 1px solid rgb(var(--v-theme-rule));
  font-size: 0.78rem;
  color: rgb(var(--v-theme-quiet));
  padding-top: 6px;
  padding-bottom: 6px;
}

.head .count {
  grid-column: 1 / 3;
  text-align: right;
}

.to-right {
  text-align: right;
}

.group {
  padding: 8px 12px 2px 12px;
  font-size: 0.8rem;
  font-weight: 600;
  color: rgb(var(--v-theme-quiet));
}

.empty {
  padding: 40px 20px;
}
</style>
