<script setup lang="ts">
import { computed, defineAsyncComponent, useTemplateRef } from 'vue'
import type { VVirtualScroll } from 'vuetify/components'
import type { Plan, Project } from '../api'
import type { Lighting } from '../drawing'
import type { ProjectOnDesk } from '../project'
import { useDrafts } from '../shared'
import { inGroups } from './groups'
import SheetLine, { type Beside, type Line } from './SheetLine.vue'

const props = defineProps<{
  project: Project
  plan: Plan | undefined
  desk: ProjectOnDesk
  lighting: Lighting
}>()
const { drafts, keep, drop } = useDrafts(props.project.id)

// Only a long list is drawn in part.
const VirtualScroll = defineAsyncComponent(() =>
  import('vuetify/components/VVirtualScroll').then((of) => of.VVirtualScroll),
)
const ROW_HEIGHT = 48
const DRAWN_AT_ONCE = 150
const FRAMES = 30

const lines = computed(() => {
  const found: Line[] = []
  for (const [name, parts] of inGroups(props.project.parts)) {
    if (name) found.push({ key: `group ${name}`, group: name })
    found.push(...parts.map((part) => ({ key: part.id, part })))
  }
  return found
})
const later = computed(() => {
  const reasons = (props.plan?.materials ?? []).flatMap((material) => material.later)
  return new Map(reasons.map((one) => [one.part, one.reason]))
})
/** What is known of a part beside others. */
function beside(id: string): Beside {
  return {
    later: later.value.get(id) ?? '',
    cut: props.plan?.cut[id] ?? 0,
    pair: props.project.pairs[id] ?? '',
  }
}
const rest = computed(() => ({
  desk: props.desk,
  lighting: props.lighting,
  drafts: drafts.value,
  onKeep: keep,
  onDrop: drop,
}))
const many = computed(() => lines.value.length > DRAWN_AT_ONCE)
const scroller = useTemplateRef<VVirtualScroll>('scroller')

/** Brings a part into view, also one that is not drawn yet: rows turn out as high as they are only
 * when they are drawn, and until then those before it are guessed. */
async function show(part: string) {
  const index = lines.value.findIndex((line) => line.key === part)
  for (let frame = 0; frame < FRAMES && many.value && !isInView(part); frame += 1) {
    scroller.value?.scrollToIndex(index, 'center')
    await new Promise(requestAnimationFrame)
  }
  drawn(part)?.scrollIntoView({ block: 'nearest' })
}

function drawn(part: string) {
  return document.querySelector(`[data-part="${part}"]`)
}

function isInView(part: string): boolean {
  const row = drawn(part)?.getBoundingClientRect()
  const list = (scroller.value?.$el as Element | undefined)?.getBoundingClientRect()
  return Boolean(row && list && row.top >= list.top && row.bottom <= list.bottom)
}

defineExpose({ show })
</script>

<template>
  <div class="sheet" :class="{ many }" role="table" aria-label="Part list">
    <div class="head" role="row">
      <span role="columnheader" class="count">count</span>
      <span role="columnheader">part</span>
      <span role="columnheader">stock, real size</span>
      <span role="columnheader" class="to-right">length</span>
    </div>
    <VirtualScroll
      v-if="many"
      ref="scroller"
      :items="lines"
      :item-height="ROW_HEIGHT"
      item-key="key"
      role="rowgroup"
      class="lines"
    >
      <template #default="{ item }">
        <SheetLine :line="item" :beside="beside(item.key)" v-bind="rest" />
      </template>
    </VirtualScroll>
    <div v-else role="rowgroup">
      <SheetLine
        v-for="line in lines"
        :key="line.key"
        :line="line"
        :beside="beside(line.key)"
        v-bind="rest"
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
  font-size: var(--text-fine);
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

.many {
  display: flex;
  flex-direction: column;
  height: 100%;
}

.many .lines {
  flex: 1;
  min-height: 0;
}

.empty {
  padding: 40px 20px;
}

/* Where the page scrolls as a whole, a long list scrolls within it: the boards are not far below. */
@media (max-width: 900px) {
  .many {
    height: 54dvh;
  }
}

/* Where there is little room, the stock stands on a line of its own beneath the name. */
@media (max-width: 480px) {
  .sheet {
    --columns: 30px 34px minmax(0, 1fr) 78px;
  }

  .head span:nth-child(3) {
    display: none;
  }

  .sheet :deep(.row > :nth-child(4)) {
    grid-area: 2 / 3 / auto / -1;
  }

  .sheet :deep(.row > :nth-child(5)) {
    grid-area: 1 / 4;
  }
}
</style>
