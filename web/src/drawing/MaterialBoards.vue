<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Layout, Material, Part } from '../api'
import { LengthText, SectionText } from '../shared'
import BoardDrawing from './BoardDrawing.vue'
import CutList from './CutList.vue'
import RipSections from './RipSections.vue'
import { TICKS_PER_INCH } from './ticks'

const props = defineProps<{
  material: Material
  scale: number
  parts: Map<string, Part>
  lit: string | undefined
}>()
defineEmits<{ hover: [part?: string]; select: [part: string] }>()

const height = computed(() => {
  const wide = (props.material.section?.width.ticks ?? 5 * TICKS_PER_INCH) / TICKS_PER_INCH
  return Math.round(Math.min(34, Math.max(15, 11 + wide * 3.6)))
})

/** Boards that are ripped are drawn higher, by their own width. */
function heightOf(layout: Layout): number {
  if (!props.material.ripped) return height.value
  const wide = (layout.section?.width.ticks ?? 0) / TICKS_PER_INCH
  return Math.round(Math.min(120, Math.max(20, wide * 11)))
}

const DRAWN_AT_ONCE = 60
const all = ref(false)
const drawn = computed(() =>
  all.value ? props.material.layouts : props.material.layouts.slice(0, DRAWN_AT_ONCE),
)

/** The part that is lit, where it lies on a board: the others need not be drawn anew. */
function litOn(layout: Layout): string | undefined {
  return layout.parts.some((placed) => placed.part === props.lit) ? props.lit : undefined
}

function named(part: string): string {
  const found = props.parts.get(part)
  return found ? `${found.mark} ${found.called}` : 'a part'
}
</script>

<template>
  <section class="material">
    <header>
      <h3 class="called">{{ material.stock }}</h3>
      <span class="quiet">
        <SectionText
          v-if="material.section"
          :section="material.section"
          :source="material.section_source"
        />
        <template v-if="material.summary">&ensp;{{ material.summary }}</template>
      </span>
      <span v-if="material.cost" class="cost figure">{{ material.cost }}</span>
      <span v-else-if="material.layouts.length" class="cost quiet">no price</span>
    </header>
    <p v-if="material.note" class="quiet note">{{ material.note }}</p>
    <template v-for="layout in drawn" :key="layout.first">
      <p v-if="material.ripped" class="bought">
        <span class="called">{{ layout.stock }}</span> {{ layout.named_length }}
        <SectionText v-if="layout.section" :section="layout.section" class="quiet" />
      </p>
      <div class="layout">
        <span
          class="number quiet"
          :class="{ changed: layout.changed }"
          :title="`board ${layout.first}${layout.changed ? ': new, or cut otherwise than before the last change' : ''}`"
          >{{ layout.first }}</span
        >
        <BoardDrawing
          :layout="layout"
          :kind="material.kind"
          :scale="scale"
          :height="heightOf(layout)"
          :parts="parts"
          :lit="litOn(layout)"
          @hover="$emit('hover', $event)"
          @select="$emit('select', $event)"
        />
        <span v-if="layout.count > 1" class="times figure">× {{ layout.count }}</span>
        <span v-if="layout.owned" class="owned"
          >rack {{ layout.rack_numbers.join(', ') }}
          <SectionText
            v-if="layout.measured"
            :section="layout.measured"
            source="measured on this board"
        /></span>
      </div>
      <RipSections
        v-if="layout.rips.length"
        :layout="layout"
        :kind="material.kind"
        :parts="parts"
        :lit="litOn(layout)"
      />
      <CutList :layout="layout" :parts="parts" />
    </template>
    <v-btn v-if="drawn.length < material.layouts.length" size="small" @click="all = true">
      Draw {{ material.layouts.length - drawn.length }} more
    </v-btn>
    <p v-if="material.best_boards" class="quiet note">{{ material.best_boards }}</p>
    <p v-if="material.test_piece" class="quiet note">{{ material.test_piece }}</p>
    <p v-for="note in material.notes" :key="note" class="quiet note">{{ note }}</p>
    <ul v-if="material.unplaced.length || material.later.length" class="without">
      <li v-for="row in material.unplaced" :key="row.part" :class="{ lit: lit === row.part }">
        <strong>{{ row.quantity }} × {{ named(row.part) }} without a board:</strong>
        {{ row.reason }}
      </li>
      <li
        v-for="row in material.later"
        :key="row.part"
        class="quiet"
        :class="{ lit: lit === row.part }"
      >
        {{ named(row.part) }},
        <LengthText v-if="parts.get(row.part)" :length="parts.get(row.part)!.length_shown" />:
        {{ row.reason }}, not planned yet
      </li>
    </ul>
  </section>
</template>

<style scoped>
.material {
  margin-bottom: 18px;
}

header {
  display: flex;
  align-items: baseline;
  gap: 10px;
  margin: 0 0 3px;
  font-size: var(--text-small);
}

h3 {
  font-size: var(--text-body);
  margin: 0;
}

.cost {
  margin-left: auto;
  font-size: var(--text-plain);
}

.layout {
  display: flex;
  align-items: center;
  gap: 10px;
  margin: 3px 0 5px -28px;
}

.number {
  width: 18px;
  flex: none;
  text-align: right;
  font-size: var(--text-fine);
  font-weight: 600;
}

.changed {
  color: rgb(var(--v-theme-on-background));
  border-right: 3px solid rgb(var(--v-theme-primary));
  padding-right: 3px;
}

.bought {
  margin: 6px 0 0;
  font-size: var(--text-small);
}

.times {
  font-size: var(--text-plain);
  white-space: nowrap;
}

.owned {
  font-size: var(--text-small);
  font-weight: 600;
  white-space: nowrap;
  border-bottom: 2px solid rgb(var(--v-theme-tape));
}

.without {
  list-style: none;
  margin: 6px 0 0;
  padding: 0 0 0 10px;
  border-left: 4px solid rgb(var(--v-theme-error));
  font-size: var(--text-small);
}

.without li {
  padding: 2px 4px;
}

.lit {
  background: rgb(var(--v-theme-selected));
}

.note {
  font-size: var(--text-small);
  margin: 0;
}
</style>
