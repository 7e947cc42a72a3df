<script setup lang="ts">
import { useDebounceFn, useLocalStorage } from '@vueuse/core'
import { computed, nextTick, ref, useId, useTemplateRef, watch } from 'vue'
import { api, type Project, type Reading } from '../api'
import { ColumnChoice, FaultList } from '../imports'
import type { ProjectOnDesk } from '../project'
import { LengthText, NamesOffered, SectionText, useCompletion } from '../shared'

const props = defineProps<{ project: Project; desk: ProjectOnDesk }>()
const emit = defineEmits<{ added: [ids: string[]] }>()
const field = useTemplateRef<HTMLTextAreaElement>('field')
const text = useLocalStorage(`grain-tally:entry:${props.project.id}`, '')
const reading = ref<Reading>()
const sending = ref(false)
const columns = ref('')
const several = computed(() => text.value.trimEnd().includes('\n'))
const unplaced = computed(() => !reading.value?.problems.length)

const read = useDebounceFn(async () => {
  const asked = text.value
  if (!asked.trim()) return
  try {
    const { data } = await api.POST('/api/reading/parts', {
      body: {
        text: asked,
        unit: props.project.unit,
        notation: props.project.notation,
        columns: columns.value,
        project: props.project.id,
      },
    })
    if (data && text.value === asked) reading.value = data
  } catch {
    reading.value = undefined
  }
}, 120)

watch(
  text,
  (now) => {
    columns.value = ''
    if (!now.trim()) reading.value = undefined
    else void read()
  },
  { immediate: true },
)

function choose(names: string[]) {
  columns.value = names.join(',')
  void read()
}

async function add() {
  const sent = text.value
  if (!sent.trim() || sending.value) return
  sending.value = true
  const known = new Set(props.project.parts.map(({ id }) => id))
  const outcome = await props.desk.addParts(sent, columns.value)
  sending.value = false
  if (outcome.kind === 'done') {
    if (text.value === sent) text.value = ''
    emit(
      'added',
      outcome.data.parts.filter(({ id }) => !known.has(id)).map(({ id }) => id),
    )
  } else if (outcome.kind === 'refused') {
    reading.value = { columns: [], choices: [], parts: [], problems: outcome.problems }
  } else if (outcome.kind === 'conflict') await add()
}

const listId = useId()
const { offered, at, ...names } = useCompletion(field, text, (now) => (text.value = now), true)
/** Names are offered after an = only: before it stand the name and the stock. */
const shown = computed(() => (text.value.includes('=') ? offered.value : []))

function key(event: KeyboardEvent) {
  if (shown.value.length && names.key(event)) return
  if (event.key === 'Escape') field.value?.blur()
  if (event.key !== 'Enter' || event.shiftKey) return
  event.preventDefault()
  void add()
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
      <textarea
        ref="field"
        v-model="text"
        class="typed"
        :rows="several ? Math.min(6, text.split('\n').length) : 1"
        aria-label="New part"
        aria-describedby="entry-echo"
        :placeholder="project.unit === 'mm' ? '6 bearers 2x6 1130' : '6 bearers 2x6 44 1/2'"
        spellcheck="false"
        autocomplete="off"
        :aria-controls="shown.length ? listId : undefined"
        :aria-activedescendant="shown.length ? `${listId}-${at}` : undefined"
        @input="typed"
        @blur="names.close"
        @keydown="key"
      ></textarea>
      <NamesOffered
        v-if="shown.length"
        :id="listId"
        class="above"
        :names="shown"
        :at="at"
        @choose="names.choose"
      />
      <v-btn type="submit" class="add" :loading="sending" :disabled="!text.trim()">Add</v-btn>
    </div>
    <ColumnChoice
      v-if="text.trim() && reading?.columns.length"
      :columns="reading.columns"
      :choices="reading.choices"
      @choose="choose"
    />
    <div id="entry-echo" class="echo" aria-live="polite">
      <template v-if="reading && unplaced">
        <div v-for="(part, index) in reading.parts.slice(0, 8)" :key="index" class="understood">
          {{ part.quantity }} × {{ part.name }}, {{ part.stock }}
          <template v-if="part.section">(<SectionText :section="part.section" />)</template>,
          <LengthText :length="part.length" />
          <span v-if="part.later" class="note">{{ part.later }}: not planned yet</span>
          <span v-for="warning in part.warnings" :key="warning" class="note">{{ warning }}</span>
        </div>
        <p v-if="reading.parts.length > 8" class="quiet">and {{ reading.parts.length - 8 }} more</p>
        <p class="quiet">
          Enter adds {{ reading.parts.length > 1 ? `all ${reading.parts.length}` : 'it' }}.
        </p>
      </template>
      <FaultList v-else-if="reading" :problems="reading.problems" />
      <p v-else class="quiet">
        Count, name, stock, length. Paste rows from a spreadsheet, with or without a header.
      </p>
    </div>
  </form>
</template>

<style scoped src="../styles/entry.css"></style>
<style scoped>
.note {
  display: block;
  color: rgb(var(--v-theme-on-surface));
  font-weight: 400;
}
</style>
