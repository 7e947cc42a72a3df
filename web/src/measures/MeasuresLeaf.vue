<script setup lang="ts">
import { defineAsyncComponent, ref, useTemplateRef } from 'vue'
import type { Measure, MeasureField, Project, Run, RunField } from '../api'
import type { ProjectOnDesk } from '../project'
import { NewShape, ShapeCard, useShapes } from '../shapes'
import { useCells } from '../shared'
import MeasureEntry from './MeasureEntry.vue'
import MeasureRow from './MeasureRow.vue'
import RunCard from './RunCard.vue'
import { useMeasures } from './useMeasures'

const NewRun = defineAsyncComponent(() => import('./NewRun.vue'))

/** Named sizes, shapes and runs: what parts follow. */
const props = defineProps<{ project: Project; desk: ProjectOnDesk }>()
/** The run whose marks are shown. */
const run = defineModel<string>('run', { required: true })
/** The shape that is drawn. */
const shape = defineModel<string>('shape', { required: true })
const measures = useMeasures(props.project.id, props.desk)
const shapes = useShapes(props.project.id, props.desk)
const entry = useTemplateRef<InstanceType<typeof MeasureEntry>>('entry')
const adding = ref(false)
const shaping = ref(false)
const drafts = `${props.project.id}:measures`

const cellOf = useCells<Measure>(
  drafts,
  (row) => row.name,
  (row, field, text) => measures.changeMeasure(row.id, field, text),
)
const runCellOf = useCells<Run>(
  drafts,
  (row) => row.name,
  (row, field, text) => measures.changeRun(row.id, { [field]: text }),
)

function cell(row: Measure, field: MeasureField, label: string) {
  return cellOf(row, field, label)
}

function runCell(row: Run, field: RunField, label: string) {
  return runCellOf(row, field, label)
}

function showShape(called: string) {
  shape.value = props.project.shapes.find((one) => one.called === called)?.id ?? ''
}

function showMade(name: string) {
  run.value = props.project.runs.find((one) => one.name === name)?.id ?? ''
}

defineExpose({ focus: () => entry.value?.focus() })
</script>

<template>
  <div class="leaf">
    <div class="scroll" tabindex="-1">
      <div v-if="project.measures.length" role="table" aria-label="Measures">
        <div class="heads quiet" role="row">
          <span role="columnheader">measure</span>
          <span role="columnheader">is</span>
        </div>
        <MeasureRow
          v-for="measure in project.measures"
          :key="measure.id"
          :measure="measure"
          :measures="measures"
          :cell="cell"
        />
      </div>
      <div v-else class="empty">
        <p class="called">No measures yet.</p>
        <p class="quiet">
          Name a size below, and any length can follow it: a rail that is
          <em>=opening - 2 * post</em> changes when the opening does.
        </p>
      </div>
      <div class="heads runs quiet">
        <span>shapes in this project</span>
        <v-btn size="small" @click="shaping = true">Add a shape</v-btn>
      </div>
      <ShapeCard
        v-for="one in project.shapes"
        :key="one.id"
        :shape="one"
        :project="project"
        :chosen="one.id === shape"
        :shapes="shapes"
        @choose="shape = $event"
      />
      <div class="heads runs quiet">
        <span>runs: equal things in a row</span>
        <v-btn size="small" @click="adding = true">Add a run</v-btn>
      </div>
      <RunCard
        v-for="one in project.runs"
        :key="one.id"
        :run="one"
        :chosen="one.id === run"
        :measures="measures"
        :cell="runCell"
        @choose="run = $event"
      />
    </div>
    <MeasureEntry ref="entry" :project="project" :measures="measures" />
    <NewRun
      v-if="adding"
      v-model="adding"
      :project="project"
      :measures="measures"
      @made="showMade"
    />
    <NewShape
      v-if="shaping"
      v-model="shaping"
      :project="project"
      :shapes="shapes"
      @made="showShape"
    />
  </div>
</template>

<style scoped>
.leaf {
  flex: 1;
  display: flex;
  flex-direction: column;
  min-height: 0;
}

.scroll {
  flex: 1;
  overflow-y: auto;
  min-height: 0;
}

.heads {
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 8px 16px 5px 18px;
  font-size: var(--text-fine);
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}

.runs {
  padding-top: 18px;
}

.empty {
  padding: 30px 20px 10px;
}

@media (max-width: 900px) {
  .scroll {
    overflow: visible;
  }
}
</style>
