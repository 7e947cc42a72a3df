<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { type Project, type Run, RUN_FIELDS } from '../api'
import type { ProjectOnDesk } from '../project'
import { ChoiceSelect, ChoiceToggle, LengthText } from '../shared'
import MarksDrawing from './MarksDrawing.vue'
import { useMeasures } from './useMeasures'

/** Where the items of a run are marked: a drawing to scale, and a list to read off at the bench. */
const props = defineProps<{ project: Project; desk: ProjectOnDesk }>()
const run = defineModel<string>('run', { required: true })
const end = defineModel<'left' | 'right'>('end', { default: 'left' })
const paperSize = useLocalStorage('grain-tally:paper', 'letter')
const measures = useMeasures(props.project.id, props.desk)

const shown = computed<Run | undefined>(
  () => props.project.runs.find((one) => one.id === run.value) ?? props.project.runs[0],
)
const laid = computed(() => shown.value?.laid)
const SIDES = RUN_FIELDS.find((one) => one.name === 'marks')?.choices ?? []
const ENDS = [
  { value: 'left', title: 'from the left' },
  { value: 'right', title: 'from the right' },
] as const
const half = computed(() => (laid.value?.side === 'centre' ? 'across' : 'on the side of'))
const letter = computed(() => shown.value?.part ?? '')

function paper(id: string): string {
  return `/api/projects/${props.project.id}/runs/${id}/marks.pdf?paper=${paperSize.value}`
}
</script>

<template>
  <div class="marks-pane" tabindex="0" role="region" aria-label="Marks">
    <p v-if="!shown" class="quiet">
      No run yet. Add one under <em>Measures</em>: pickets, slats, treads, rows of siding.
    </p>
    <template v-else>
      <div class="choices">
        <ChoiceSelect
          v-if="project.runs.length > 1"
          :model-value="shown.id"
          called="Run"
          :choices="project.runs.map((one) => ({ value: one.id, title: one.name }))"
          @update:model-value="(id: string) => (run = id)"
        />
        <h2 v-else class="called">{{ shown.name }}</h2>
        <ChoiceToggle v-model="end" called="Measured from" :choices="ENDS" />
        <ChoiceToggle
          :model-value="shown.marks"
          called="What is marked"
          :choices="SIDES"
          @update:model-value="(marks: string) => measures.changeRun(shown!.id, { marks })"
        />
        <v-btn size="small" :href="paper(shown.id)">On paper</v-btn>
      </div>
      <p v-if="!laid" role="alert" class="wrong">
        It cannot be laid yet:
        {{ shown.problems.map((one) => `${one.place} ${one.message}`).join('; ') }}
      </p>
      <template v-else>
        <MarksDrawing :laid="laid" :letter="letter" :kind="shown.kind || 'plain'" :end="end" />
        <p class="lead">
          <strong>Hook the tape once.</strong> Every figure is from the {{ end }} end; the piece
          lies {{ half }} the mark<template v-if="laid.side !== 'centre'"> with the ×</template>.
        </p>
        <p class="quiet small">
          Each is rounded on its own, so that nothing adds up<template v-if="laid.packers.length"
            >; with packers the run ends where it must</template
          >.
        </p>
        <ol class="list" :aria-label="`Marks of ${shown.name}`">
          <li
            v-for="(mark, index) in laid.marks"
            :key="mark.number"
            :class="{ out: mark.left_out }"
          >
            <span class="quiet number">{{ letter }}{{ mark.number }}</span>
            <span class="figure big"><LengthText :length="mark[end]" /></span>
            <span class="quiet small">
              <template v-if="mark.left_out">left out</template>
              <template v-else-if="mark.loose">loose: fixed on the site</template>
              <template v-if="laid.packers[index]">then {{ laid.packers[index] }}</template>
              <template v-if="mark.check && end === 'left'">
                check: ends at <LengthText :length="mark.check" />
              </template>
            </span>
          </li>
        </ol>
      </template>
    </template>
  </div>
</template>

<style scoped>
.marks-pane {
  flex: 1;
  overflow: auto;
  min-height: 0;
  padding: 12px 18px 30px;
}

.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}

h2 {
  margin: 0 6px 0 0;
  font-size: var(--text-lead);
}

.lead {
  margin: 14px 0 4px;
}

.small {
  font-size: var(--text-small);
}

p.small {
  margin: 0;
}

.wrong {
  color: rgb(var(--v-theme-error));
}

.list {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
  gap: 0 24px;
  margin: 14px 0 0;
  padding: 0;
  list-style: none;
}

.list li {
  display: grid;
  grid-template-columns: 42px 98px 1fr;
  align-items: baseline;
  min-height: 34px;
  padding: 4px 0;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}

.big {
  font-size: var(--text-lead);
}

.out .big {
  text-decoration: line-through;
  color: rgb(var(--v-theme-quiet));
}

@media (max-width: 900px) {
  .marks-pane {
    overflow: visible;
    padding: 10px;
  }
}
</style>
