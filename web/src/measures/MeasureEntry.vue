<script setup lang="ts">
import { useDebounceFn, useLocalStorage } from '@vueuse/core'
import { computed, nextTick, ref, useId, useTemplateRef, watch } from 'vue'
import { api, type MeasureReading, type Problem, type Project } from '../api'
import { FaultList } from '../imports'
import { NamesOffered, useCompletion, ValueText } from '../shared'
import type { Measures } from './useMeasures'

/** The line in which a measure is typed, with what it would come to beneath it. */
const props = defineProps<{ project: Project; measures: Measures }>()
const field = useTemplateRef<HTMLInputElement>('field')
const text = useLocalStorage(`grain-tally:measure:${props.project.id}`, '')
const reading = ref<MeasureReading>()
const refused = ref<Problem[]>([])
const sending = ref(false)
const listId = useId()
const { offered, at, ...names } = useCompletion(field, text, (now) => (text.value = now), true)
const shown = computed(() => (text.value.includes('=') ? offered.value : []))
const isWhole = computed(() => /=\s*\S/.test(text.value))

const read = useDebounceFn(async () => {
  const line = text.value
  if (!isWhole.value) return
  try {
    const { data } = await api.POST('/api/projects/{project_id}/reading/measure', {
      params: { path: { project_id: props.project.id } },
      body: { line },
    })
    if (data && text.value === line) reading.value = data
  } catch {
    reading.value = undefined
  }
}, 120)

watch(
  [text, () => props.project.version],
  () => {
    refused.value = []
    if (!isWhole.value) reading.value = undefined
    else void read()
  },
  { immediate: true },
)

async function add() {
  const sent = text.value
  if (!sent.trim() || sending.value) return
  sending.value = true
  const outcome = await props.measures.addMeasure(sent)
  sending.value = false
  if (outcome.kind === 'done' && text.value === sent) text.value = ''
  else if (outcome.kind === 'refused') refused.value = outcome.problems
  else if (outcome.kind === 'conflict') await add()
}

function key(event: KeyboardEvent) {
  if (shown.value.length && names.key(event)) return
  if (event.key === 'Escape') field.value?.blur()
}

async function typed() {
  await nextTick()
  names.typed()
}

defineExpose({ focus: () => field.value?.focus() })
</script>

<template>
  <form class="entry" @submit.prevent="add">
    <div class="line">
      <input
        ref="field"
        v-model="text"
        class="typed"
        role="combobox"
        aria-label="New measure"
        aria-describedby="measure-echo"
        :aria-expanded="shown.length > 0"
        :aria-controls="shown.length ? listId : undefined"
        :aria-activedescendant="shown.length ? `${listId}-${at}` : undefined"
        :placeholder="project.unit === 'mm' ? 'opening = 1210' : 'lid = depth + 1 1/2'"
        autocomplete="off"
        spellcheck="false"
        @input="typed"
        @blur="names.close"
        @keydown="key"
      />
      <v-btn type="submit" class="add" :loading="sending" :disabled="!text.trim()">Add</v-btn>
      <NamesOffered
        v-if="shown.length"
        :id="listId"
        class="above"
        :names="shown"
        :at="at"
        @choose="names.choose"
      />
    </div>
    <div id="measure-echo" class="echo" aria-live="polite">
      <FaultList v-if="refused.length" :problems="refused" />
      <FaultList v-else-if="reading?.problems.length" :problems="reading.problems" />
      <p v-else-if="reading?.value" class="understood">
        {{ reading.name }} = <ValueText :value="reading.value" />, named for use in any length
      </p>
      <p v-else class="quiet">
        A name, = and a size, a count, an angle such as 8°, or a formula of other names.
      </p>
    </div>
  </form>
</template>

<style scoped src="../styles/entry.css"></style>
