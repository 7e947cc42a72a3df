<script setup lang="ts">
import { useDebounceFn, useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef, watch } from 'vue'
import { api, type Project, type ShapePreview, SHAPES, useFaults } from '../api'
import { FormDialog, LengthText } from '../shared'
import { kindOf, usualOf, type Ask } from './asks'
import ShapeView from './ShapeView.vue'
import type { Measured, Shapes } from './useShapes'

/** A new shape: which, what it is called, its measures; its drawing follows while they are typed. */
const props = defineProps<{ project: Project; shapes: Shapes }>()
const emit = defineEmits<{ made: [called: string] }>()
const open = defineModel<boolean>({ required: true })
const shape = ref<string>(SHAPES[0].name)
const called = ref('')
const measures = ref<Measured>({})
const preview = ref<ShapePreview>()
const busy = ref(false)
const faults = useFaults('called')
const drawn = useTemplateRef<HTMLElement>('drawn')
const { width } = useElementSize(drawn)
const kind = computed(() => kindOf(shape.value))
const asked = computed(() => kind.value.asks.filter((ask) => !ask.usual && !ask.open))
const more = computed(() => kind.value.asks.filter((ask) => ask.usual || ask.open))
const changed = computed(() => called.value !== '' || Object.values(measures.value).some(Boolean))
/** Once all that has to be said is said, what is wrong is told. */
const isSaid = computed(() => asked.value.every(({ name }) => measures.value[name]?.trim()))
const front = computed(() => preview.value?.views[0])

const look = useDebounceFn(async () => {
  try {
    const { data } = await api.POST('/api/projects/{project_id}/reading/shape', {
      params: { path: { project_id: props.project.id } },
      body: {
        called: called.value || 'shape',
        shape: shape.value,
        measures: measures.value,
        wide: Math.max(200, Math.floor(width.value)),
        high: 300,
      },
    })
    preview.value = data
  } catch {
    preview.value = undefined
  }
}, 120)

watch(shape, () => (measures.value = {}))
watch([shape, called, measures, width], () => void look(), { deep: true, immediate: true })

function fault(ask: Ask): string[] {
  const told = faults.at(ask.name)
  if (told.length) return told
  const typed = measures.value[ask.name]?.trim()
  const wrong = preview.value?.problems.filter(({ place }) => place === ask.name) ?? []
  return typed || isSaid.value ? wrong.map(({ message }) => message) : []
}

function bind(ask: Ask) {
  return {
    modelValue: measures.value[ask.name] ?? '',
    label: ask.heading,
    errorMessages: fault(ask),
    'onUpdate:modelValue': (text: string) => (measures.value[ask.name] = text),
  }
}

async function save() {
  busy.value = true
  const outcome = await props.shapes.addShape(called.value, shape.value, measures.value)
  busy.value = false
  if (!faults.settle(outcome)) return
  emit('made', called.value)
  open.value = false
}
</script>

<template>
  <FormDialog
    v-model="open"
    title="A shape: what makes parts"
    :width="980"
    :busy="busy"
    :changed="changed"
    act="Add"
    @save="save"
  >
    <div class="both">
      <div class="asked">
        <v-select
          v-model="shape"
          label="Shape"
          :items="SHAPES.map((one) => ({ value: one.name, title: one.heading }))"
          :hint="kind.help"
          persistent-hint
        />
        <v-text-field
          v-model="called"
          label="Called"
          placeholder="bay frame"
          :error-messages="faults.at('called')"
        />
        <template v-for="ask in asked" :key="`${shape} ${ask.name}`">
          <v-text-field
            v-bind="bind(ask)"
            :placeholder="ask.kind === 'stock' ? '2x4' : 'a figure, or a measure'"
          />
        </template>
        <details>
          <summary>What is usual, and can be said otherwise</summary>
          <div class="asked">
            <template v-for="ask in more" :key="`${shape} ${ask.name}`">
              <v-select
                v-if="ask.kind === 'choice'"
                :model-value="measures[ask.name] || ask.usual"
                :label="ask.heading"
                :items="ask.choices.map(String)"
                :error-messages="fault(ask)"
                @update:model-value="measures[ask.name] = $event ?? ''"
              />
              <v-text-field v-else v-bind="bind(ask)" :placeholder="usualOf(ask)" />
            </template>
          </div>
        </details>
      </div>
      <div ref="drawn" class="drawn" aria-live="polite">
        <ShapeView v-if="front" :view="front" :called="called || kind.heading" />
        <p v-else class="quiet">Its drawing follows what you type.</p>
        <p v-if="kind.caution" class="quiet">{{ kind.caution }}</p>
        <table v-if="preview?.parts.length">
          <tbody>
            <tr v-for="part in preview.parts" :key="part.mark">
              <td class="figure">{{ part.quantity }}</td>
              <td>{{ part.name }}</td>
              <td class="quiet">{{ part.stock }}</td>
              <td class="figure"><LengthText :length="part.length" /></td>
            </tr>
          </tbody>
        </table>
      </div>
    </div>
  </FormDialog>
</template>

<style scoped>
.both {
  display: grid;
  grid-template-columns: 360px minmax(0, 1fr);
  gap: 26px;
}

.asked {
  display: grid;
  gap: 12px;
  align-content: start;
}

summary {
  cursor: pointer;
  padding: 6px 0 12px;
  color: rgb(var(--v-theme-primary));
}

.drawn {
  min-width: 0;
  position: sticky;
  top: 0;
  align-self: start;
}

table {
  margin-top: 12px;
  border-collapse: collapse;
}

td {
  padding: 2px 14px 2px 0;
}

@media (max-width: 900px) {
  .both {
    grid-template-columns: minmax(0, 1fr);
  }

  .drawn {
    position: static;
  }
}
</style>
