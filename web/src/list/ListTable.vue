<script setup lang="ts">
import { computed } from 'vue'
import type { Plan, Project } from '../api/client'
import type { Lighting } from '../desk/useLighting'
import KindSwatch from '../shared/KindSwatch.vue'
import LengthText from '../shared/LengthText.vue'
import SectionText from '../shared/SectionText.vue'

/** What to buy, line by line, and what it comes to. */
const props = defineProps<{ project: Project; plan: Plan; lighting: Lighting }>()
const shopping = computed(() => props.plan.shopping)
const parts = computed(() => new Map(props.project.parts.map((part) => [part.id, part])))
</script>

<template>
  <div class="scroll" tabindex="0" role="region" aria-label="Shopping list">
    <table class="ruled">
      <thead>
        <tr>
          <th>stock</th>
          <th class="roomy">real size</th>
          <th>length</th>
          <th class="roomy">for</th>
          <th class="to-right">count</th>
          <th class="to-right">each</th>
          <th class="to-right">together</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="line in shopping.lines"
          :key="`${line.stock} ${line.named_length} ${line.spare}`"
          :class="{
            lit: lighting.lit.value && line.parts.includes(lighting.lit.value),
            spare: line.spare,
          }"
        >
          <td class="called"><KindSwatch :kind="line.kind" />{{ line.stock }}</td>
          <td class="quiet roomy">
            <SectionText v-if="line.section" :section="line.section" />
          </td>
          <td>
            <span class="figure">{{ line.named_length }}</span>
            <span v-if="line.real_length" class="quiet real">
              really <LengthText :length="line.real_length" />
            </span>
          </td>
          <td class="roomy">
            <span v-if="line.spare" class="quiet">spare, against culls</span>
            <button
              v-for="part in line.parts"
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
          </td>
          <td class="to-right figure count">{{ line.count }}</td>
          <td class="to-right each">
            <details v-if="line.how">
              <summary>{{ line.price ?? 'no price' }}</summary>
              <span class="quiet how">{{ line.how }}</span>
            </details>
            <template v-else>{{ line.price ?? 'no price' }}</template>
          </td>
          <td class="to-right figure">{{ line.line_price ?? 'no price' }}</td>
        </tr>
      </tbody>
      <tfoot>
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
      </tfoot>
    </table>
  </div>
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

.each {
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

.lit {
  background: rgb(var(--v-theme-selected));
}

tr:not(.spare) + .spare td {
  border-top: 2px solid rgb(var(--v-theme-rule));
}

.spare .count {
  font-weight: 500;
}

.count {
  font-size: var(--text-large);
}

tfoot td {
  border-bottom: 0 !important;
  padding-bottom: 2px !important;
}

.total td {
  font-size: var(--text-lead);
  border-top: 2px solid rgb(var(--v-theme-on-background));
}

.over td {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}

@media (max-width: 600px) {
  .roomy {
    display: none;
  }
}
</style>
