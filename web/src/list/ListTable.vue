<script setup lang="ts">
import { computed } from 'vue'
import type { Plan, Project } from '../api'
import type { Lighting } from '../drawing'
import { KindSwatch, LengthText, RuledTable, SectionText } from '../shared'

/** What to buy, line by line, and what it comes to. */
const props = defineProps<{ project: Project; plan: Plan; lighting: Lighting }>()
const COLUMNS = [
  { name: 'stock', title: 'stock', look: 'called' },
  { name: 'section', title: 'real size', roomy: true, look: 'quiet' },
  { name: 'length', title: 'length' },
  { name: 'for', title: 'for', roomy: true },
  { name: 'count', title: 'count', right: true, look: 'figure count' },
  { name: 'each', title: 'each', right: true, look: 'each' },
  { name: 'together', title: 'together', right: true, look: 'figure' },
]
const shopping = computed(() => props.plan.shopping)
const parts = computed(() => new Map(props.project.parts.map((part) => [part.id, part])))
</script>

<template>
  <RuledTable
    called="Shopping list"
    :columns="COLUMNS"
    :rows="shopping.lines"
    :key-of="(line) => `${line.stock} ${line.named_length} ${line.spare}`"
    :look="
      (line) => ({
        lit: lighting.lit.value && line.parts.includes(lighting.lit.value),
        spare: line.spare,
      })
    "
  >
    <template #stock="{ row }"><KindSwatch :kind="row.kind" />{{ row.stock }}</template>
    <template #section="{ row }">
      <SectionText v-if="row.section" :section="row.section" />
    </template>
    <template #length="{ row }">
      <span class="figure">{{ row.named_length }}</span>
      <span v-if="row.real_length" class="quiet real">
        really <LengthText :length="row.real_length" />
      </span>
    </template>
    <template #for="{ row }">
      <span v-if="row.spare" class="quiet">spare, against culls</span>
      <button
        v-for="part in row.parts"
        :key="part"
        type="button"
        class="mark"
        :class="{ on: lighting.lit.value === part }"
        :aria-label="`${parts.get(part)?.mark} ${parts.get(part)?.called}: light it`"
        :title="parts.get(part)?.called"
        @pointerenter="lighting.hover(part)"
        @pointerleave="lighting.hover()"
        @focus="lighting.hover(part)"
        @blur="lighting.hover()"
        @click="lighting.select(part)"
      >
        {{ parts.get(part)?.mark }}
      </button>
    </template>
    <template #each="{ row }">
      <details v-if="row.how">
        <summary>{{ row.price ?? 'no price' }}</summary>
        <span class="quiet how">{{ row.how }}</span>
      </details>
      <template v-else>{{ row.price ?? 'no price' }}</template>
    </template>
    <template #together="{ row }">{{ row.line_price ?? 'no price' }}</template>
    <template #foot>
      <tr>
        <td colspan="2"></td>
        <td colspan="2" class="roomy"></td>
        <td class="to-right figure count">
          {{ plan.tally.boards + plan.tally.spare }}
        </td>
        <td class="to-right">wood</td>
        <td class="to-right figure">{{ shopping.subtotal }}</td>
      </tr>
      <tr v-if="shopping.hardware.lines.length">
        <td colspan="2" class="roomy"></td>
        <td colspan="4" class="to-right">
          hardware{{ shopping.hardware.unpriced ? ', some without a price' : '' }}
        </td>
        <td class="to-right figure">{{ shopping.hardware.price }}</td>
      </tr>
      <tr>
        <td colspan="2" class="roomy"></td>
        <td colspan="4" class="to-right">
          tax {{ shopping.tax_rate }} %{{ shopping.tax_included ? ', included' : '' }}
        </td>
        <td class="to-right figure">{{ shopping.tax }}</td>
      </tr>
      <tr class="total">
        <td colspan="2" class="roomy"></td>
        <td colspan="4" class="to-right called">
          total{{ shopping.total_note ? `, ${shopping.total_note}` : '' }}
        </td>
        <td class="to-right figure">{{ shopping.total }}</td>
      </tr>
      <tr v-if="shopping.hardware.lines.length">
        <td colspan="2" class="roomy"></td>
        <td colspan="4" class="to-right">without hardware</td>
        <td class="to-right figure">{{ shopping.wood_total }}</td>
      </tr>
      <tr v-if="shopping.budget" :class="{ over: shopping.over_budget }">
        <td colspan="2" class="roomy"></td>
        <td colspan="5" class="to-right">{{ shopping.budget }}</td>
      </tr>
      <tr v-if="shopping.margin">
        <td colspan="2" class="roomy"></td>
        <td colspan="5" class="to-right">{{ shopping.margin }}</td>
      </tr>
      <tr v-if="shopping.copies > 1">
        <td colspan="2" class="roomy"></td>
        <td colspan="4" class="to-right">each of {{ shopping.copies }}</td>
        <td class="to-right figure">{{ shopping.per_copy }}</td>
      </tr>
    </template>
  </RuledTable>
</template>

<style scoped>
.real {
  margin-left: 8px;
  font-size: var(--text-small);
}

.mark {
  font-weight: 650;
  font-size: var(--text-small);
  min-width: 24px;
  min-height: 24px;
  padding: 0 5px;
  margin-right: 3px;
  border: 1px solid rgb(var(--v-theme-rule));
  border-radius: var(--corner);
}

.mark.on {
  border-color: rgb(var(--v-theme-primary));
  box-shadow: inset 0 0 0 1px rgb(var(--v-theme-primary));
}

:deep(.each) {
  max-width: 180px;
}

.each summary {
  cursor: pointer;
  list-style: none;
  text-decoration: underline dotted;
  text-underline-offset: 4px;
}

.how {
  display: block;
  font-size: var(--text-small);
}

:deep(.lit) {
  background: rgb(var(--v-theme-selected));
}

:deep(tr:not(.spare) + .spare) td {
  border-top: 2px solid rgb(var(--v-theme-rule));
}

:deep(.spare .count) {
  font-weight: 500;
}

:deep(.count) {
  font-size: var(--text-large);
}

.total td {
  font-size: var(--text-lead);
  border-top: 2px solid rgb(var(--v-theme-on-background));
}

.over td {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}
</style>
