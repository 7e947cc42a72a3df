<script setup lang="ts" generic="Row extends object">
import type { HTMLAttributes } from 'vue'
import type { Column } from './columns'

/** A list in columns, one row a thing. A column shows the field of its name, or what a slot of that
 * name makes of it; under a row may stand more of it, and sums at the foot. */
withDefaults(
  defineProps<{
    called: string
    columns: readonly Column[]
    rows: readonly Row[]
    /** Tells a row from the others. */
    keyOf: (row: Row, index: number) => string | number
    /** Width in pixels below which it scrolls sideways. */
    atLeast?: number
    look?: (row: Row) => HTMLAttributes['class']
    isOpen?: (row: Row) => boolean
  }>(),
  { atLeast: 0, look: undefined, isOpen: () => false },
)
defineSlots<{
  [cell: string]: (of: { row: Row }) => unknown
  foot: () => unknown
}>()

const classes = (of: Column) => [of.look, { 'to-right': of.right, roomy: of.roomy }]
</script>

<template>
  <div class="scroll" tabindex="0" role="region" :aria-label="called">
    <table class="ruled" :style="{ minWidth: `${atLeast}px` }">
      <thead>
        <tr>
          <th
            v-for="of in columns"
            :key="of.name"
            :class="{ 'to-right': of.right, roomy: of.roomy }"
          >
            <span :class="{ 'said-only': of.unseen }">{{ of.title }}</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <template v-for="(row, index) in rows" :key="keyOf(row, index)">
          <tr :class="look?.(row)">
            <td v-for="of in columns" :key="of.name" :class="classes(of)">
              <slot v-if="$slots[of.name]" :name="of.name" :row="row" />
              <template v-else>{{ row[of.name as keyof Row] }}</template>
            </td>
          </tr>
          <tr v-if="isOpen(row)">
            <td :colspan="columns.length"><slot name="under" :row="row" /></td>
          </tr>
        </template>
      </tbody>
      <tfoot v-if="$slots.foot">
        <slot name="foot" />
      </tfoot>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}

table {
  position: relative;
  width: 100%;
  border-collapse: collapse;
}

th {
  text-align: left;
  font-weight: 500;
  font-size: var(--text-small);
  color: rgb(var(--v-theme-quiet));
  padding: 6px 14px 6px 0;
  border-bottom: 2px solid rgb(var(--v-theme-on-background));
}

tbody td,
tfoot :slotted(td) {
  padding: 8px 14px 8px 0;
  line-height: 1.3;
  vertical-align: baseline;
}

tbody td {
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}

tfoot :slotted(td) {
  padding-bottom: 2px;
}

.to-right,
tfoot :slotted(.to-right) {
  text-align: right;
}

@media (max-width: 600px) {
  .roomy,
  tfoot :slotted(.roomy) {
    display: none;
  }
}
</style>
