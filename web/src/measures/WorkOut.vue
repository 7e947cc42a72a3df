<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api, type MeasureReading, type Outcome, type Project, QUESTIONS } from '../api'
import { FormDialog, ValueText } from '../shared'

/** Common questions, each answered by a formula that goes into a length and can be read there. */
const props = defineProps<{
  project: Pick<Project, 'id'>
  called: string
  take: (formula: string) => Promise<Outcome<unknown>>
}>()
const open = defineModel<boolean>({ required: true })
const name = ref<string>(QUESTIONS[0].name)
const question = computed(() => QUESTIONS.find((one) => one.name === name.value) ?? QUESTIONS[0])
const given = ref<Record<string, string>>({})
const answer = ref<MeasureReading>()
const busy = ref(false)
const refused = ref('')
const changed = computed(() =>
  question.value.asks.some((one) => (given.value[one.name] ?? '') !== one.usual),
)

const ask = useDebounceFn(async () => {
  try {
    const { data } = await api.POST('/api/projects/{project_id}/reading/question', {
      params: { path: { project_id: props.project.id } },
      body: { question: name.value, given: given.value },
    })
    answer.value = data
  } catch {
    answer.value = undefined
  }
}, 120)

watch(
  name,
  () => {
    given.value = Object.fromEntries(question.value.asks.map((one) => [one.name, one.usual]))
  },
  { immediate: true },
)
watch(given, () => void ask(), { deep: true, immediate: true })

async function save() {
  if (!answer.value?.value) {
    refused.value = answer.value?.problems[0]?.message ?? 'it is not worked out yet'
    return
  }
  busy.value = true
  const outcome = await props.take(`=${answer.value.formula}`)
  busy.value = false
  if (outcome.kind === 'done') open.value = false
  else refused.value = outcome.kind === 'refused' ? outcome.detail : 'not saved: try again'
}
</script>

<template>
  <FormDialog
    v-model="open"
    :title="`Work out the length of ${called}`"
    :width="520"
    :busy="busy"
    :changed="changed"
    act="Take it"
    @save="save"
  >
    <div class="asked">
      <v-select
        v-model="name"
        label="Question"
        :items="QUESTIONS.map((one) => ({ title: one.title, value: one.name }))"
      />
      <v-text-field
        v-for="one in question.asks"
        :key="one.name"
        v-model="given[one.name]"
        :label="one.heading"
      />
    </div>
    <p v-if="answer?.value" role="status" class="answer">
      = {{ answer.formula }} is <strong><ValueText :value="answer.value" /></strong>
    </p>
    <p v-else-if="changed && answer?.problems.length" class="quiet" role="status">
      {{ answer.problems[0]?.message }}
    </p>
    <p v-if="refused" role="alert" class="text-error">{{ refused }}</p>
  </FormDialog>
</template>

<style scoped>
.asked {
  display: grid;
  gap: 12px;
  margin-bottom: 12px;
}

.answer {
  color: rgb(var(--v-theme-proven));
}
</style>
