<script setup lang="ts">
import { ref } from 'vue'
import type { Measure, MeasureField, Outcome } from '../api'
import { day, EditableCell, ValueText } from '../shared'
import type { Measures } from './useMeasures'

/** One measure: its name, what it is, what it comes to; in its details what the tape said. */
const props = defineProps<{
  measure: Measure
  measures: Measures
  cell: (
    row: Measure,
    field: MeasureField,
    label: string,
  ) => {
    saved: string
    draft: string | undefined
    label: string
    place: string
    save: (text: string) => Promise<Outcome<unknown>>
  }
}>()
const open = ref(false)
const refused = ref('')

async function remove() {
  const outcome = await props.measures.removeMeasure(props.measure.id)
  refused.value = outcome.kind === 'refused' ? outcome.detail : ''
}
</script>

<template>
  <div class="row" role="row">
    <span role="cell">
      <button
        type="button"
        class="more"
        :aria-expanded="open"
        :aria-label="`details of ${measure.name}`"
        @click="open = !open"
      >
        {{ open ? '−' : '+' }}
      </button>
    </span>
    <span role="cell">
      <EditableCell v-bind="cell(measure, 'name', 'Name')" class="called" />
    </span>
    <span role="cell">
      <EditableCell v-bind="cell(measure, 'formula', 'Formula')" formula="as it is" wraps />
      <span v-if="measure.measured" class="measured">measured {{ measure.measured }}</span>
      <span v-for="problem in measure.problems" :key="problem" class="wrong">{{ problem }}</span>
    </span>
    <span role="cell" class="value figure">
      <ValueText v-if="measure.value" :value="measure.value" />
      <span v-else class="wrong">?</span>
    </span>
    <div v-if="open" role="cell" class="details">
      <div class="field">
        <span class="quiet">Measured</span>
        <EditableCell v-bind="cell(measure, 'measured', 'Measured')">
          <template v-if="measure.measured">{{ measure.measured }}</template>
          <span v-else class="quiet">what the tape said; it holds instead</span>
        </EditableCell>
      </div>
      <p v-if="measure.measured">
        Measured on {{ day(measure.measured_on) }}.
        <template v-if="measure.computed">
          Worked out it would be <ValueText :value="measure.computed" />.
          <v-btn size="small" @click="measures.changeMeasure(measure.id, 'measured', '')"
            >Take the worked out one</v-btn
          >
        </template>
      </p>
      <div class="field">
        <span class="quiet">Note</span>
        <EditableCell v-bind="cell(measure, 'note', 'Note')">
          <template v-if="measure.note">{{ measure.note }}</template>
          <span v-else class="quiet">for yourself</span>
        </EditableCell>
      </div>
      <p v-if="measure.specimens.length">
        Measured of each:
        <template v-for="(one, index) in measure.specimens" :key="index"
          >{{ index ? ', ' : ''
          }}<span :class="{ wrong: !one.fits }"
            >{{ one.text }}{{ one.fits ? '' : ' (would not fit)' }}</span
          ></template
        >.
      </p>
      <p class="quiet">
        {{ measure.used_by.length ? `Used in ${measure.used_by.join(', ')}.` : 'Not used yet.' }}
      </p>
      <v-btn size="small" @click="remove">Remove {{ measure.name }}</v-btn>
      <p v-if="refused" role="alert" class="wrong">{{ refused }}</p>
    </div>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 26px 118px minmax(0, 1fr) auto;
  gap: 0 9px;
  align-items: start;
  padding: 4px 16px 5px 10px;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
  line-height: 1.25;
}

.more {
  width: 24px;
  height: 24px;
  border: 1px solid rgb(var(--v-theme-rule));
  border-radius: var(--corner);
  color: rgb(var(--v-theme-quiet));
}

.value {
  padding-top: 2px;
  font-size: var(--text-body);
  text-align: right;
  white-space: nowrap;
}

.measured {
  display: block;
  padding-left: 2px;
  font-size: var(--text-small);
  color: rgb(var(--v-theme-primary));
}

.wrong {
  display: block;
  padding-left: 2px;
  font-size: var(--text-small);
  color: rgb(var(--v-theme-error));
}

.details {
  grid-column: 2 / -1;
  padding: 6px 0;
  font-size: var(--text-small);
}

.details p {
  margin: 5px 0;
}

.details .wrong {
  display: inline;
}

.field {
  display: grid;
  grid-template-columns: 80px 1fr;
  align-items: baseline;
}

.field :deep(input:not(:focus)) {
  border-bottom-color: rgb(var(--v-theme-rule));
}
</style>
