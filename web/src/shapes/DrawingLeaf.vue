<script setup lang="ts">
import { useElementSize, useLocalStorage } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import type { Project } from '../api'
import type { Lighting } from '../drawing'
import { ChoiceSelect, ChoiceToggle } from '../shared'
import { kindOf } from './asks'
import ShapeView from './ShapeView.vue'
import { useDrawing } from './useShapes'

/** The shapes of a project drawn to scale, view by view. */
const props = defineProps<{ project: Project; lighting: Lighting }>()
/** The shape that is drawn. */
const shape = defineModel<string>('shape', { required: true })
const ALL = 'all'
const paperSize = useLocalStorage('grain-tally:paper', 'letter')
const view = ref('front')
const room = useTemplateRef<HTMLElement>('room')
const { width } = useElementSize(room)

const shown = computed(
  () => props.project.shapes.find((one) => one.id === shape.value) ?? props.project.shapes[0],
)
/** Rounded, so that a drawing is not asked for anew with every pixel. */
const rooms = computed(() => {
  const beside = view.value === ALL && width.value > 700
  const wide = beside ? width.value / 2 - 12 : width.value
  return { wide: Math.floor(wide / 20) * 20, high: view.value === ALL ? 300 : 440 }
})
const drawing = useDrawing(
  computed(() => props.project),
  computed(() => shown.value?.id ?? ''),
  rooms,
)
const names = computed(() => (drawing.value?.views ?? []).map(({ name }) => name))
const sides = computed(() => [
  ...names.value.map((name) => ({ value: name, title: name })),
  { value: ALL, title: 'all views' },
])
const views = computed(() =>
  (drawing.value?.views ?? []).filter(
    ({ name }) => [ALL, name].includes(view.value) || !names.value.includes(view.value),
  ),
)
const litLetter = computed(
  () => props.project.parts.find((part) => part.id === props.lighting.lit.value)?.mark,
)

function partOf(letter: string): string | undefined {
  return props.project.parts.find((part) => part.mark === letter)?.id
}

function file(ending: string): string {
  const which = `view=${view.value}&paper=${paperSize.value}`
  return `/api/projects/${props.project.id}/shapes/${shown.value?.id}/drawing.${ending}?${which}`
}
</script>

<template>
  <div class="pane" tabindex="0" role="region" aria-label="Drawing">
    <div v-if="!shown" class="empty">
      <p class="called">Nothing is drawn yet.</p>
      <p class="quiet">
        Add a shape under <em>Measures</em>: a frame, a box, a stand. It writes its parts, and draws
        itself to scale.
      </p>
    </div>
    <template v-else>
      <div class="choices">
        <ChoiceSelect
          v-if="project.shapes.length > 1"
          :model-value="shown.id"
          called="Shape"
          :choices="project.shapes.map((one) => ({ value: one.id, title: one.called }))"
          @update:model-value="(id: string) => (shape = id)"
        />
        <h2 v-else class="called">{{ shown.called }}</h2>
        <ChoiceToggle v-model="view" called="Seen from" :choices="sides" />
        <span class="files">
          <v-btn size="small" :href="file('pdf')">On paper</v-btn>
          <v-btn size="small" :href="file('svg')">SVG</v-btn>
          <v-btn size="small" :href="file('dxf')">DXF</v-btn>
        </span>
      </div>
      <div ref="room" class="views">
        <p v-if="drawing?.problems.length" role="alert" class="text-error">
          It cannot be drawn:
          {{ drawing.problems.map((one) => `${one.place} ${one.message}`.trim()).join('; ') }}
        </p>
        <figure v-for="one in views" :key="one.name">
          <ShapeView
            :view="one"
            :lit="litLetter"
            :called="shown.called"
            @hover="lighting.hover(partOf($event))"
            @choose="lighting.select(partOf($event))"
          />
          <figcaption class="quiet">
            {{ one.name }}, {{ one.ratio
            }}<template v-if="shown.values.copies && shown.values.copies.text !== '1'"
              >, one of {{ shown.values.copies.text }}</template
            ><template v-if="shown.measures.hand === 'left and right'"
              >: the left one and the right one beside it</template
            ><template v-else-if="shown.measures.hand === 'mirrored'">, mirrored</template>
          </figcaption>
        </figure>
      </div>
      <p v-for="one in shown.notices" :key="one" class="line">{{ one }}</p>
      <p v-if="kindOf(shown.shape).caution" class="line">{{ kindOf(shown.shape).caution }}</p>
      <template v-if="shown.work.length">
        <h3>Work on its parts</h3>
        <p v-for="line in shown.work" :key="line" class="line">{{ line }}</p>
        <p class="quiet small">Kept as lines: set-ups at the saw are not worked out from it yet.</p>
      </template>
    </template>
  </div>
</template>

<style scoped>
.pane {
  flex: 1;
  overflow-y: auto;
  min-height: 0;
  padding: 14px 22px 26px;
}

.empty {
  padding: 30px 0;
}

.choices {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px 14px;
}

.files {
  margin-left: auto;
  display: flex;
  gap: 6px;
}

.views {
  display: flex;
  flex-wrap: wrap;
  gap: 0 24px;
}

figure {
  margin: 16px 0 0;
}

figcaption {
  font-size: var(--text-small);
  margin: 4px 0 0 12px;
}

h3 {
  margin: 22px 0 4px;
  font-size: var(--text-plain);
}

.line {
  margin: 2px 0;
  font-size: var(--text-small);
}

@media (max-width: 900px) {
  .pane {
    overflow: visible;
    padding: 12px 14px 20px;
  }
}
</style>
