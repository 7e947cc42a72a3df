<script setup lang="ts">
import { computed, nextTick, ref, useId, useTemplateRef } from 'vue'
import type { Outcome } from '../api'
import NamesOffered from './NamesOffered.vue'
import { useCompletion } from './useCompletion'

const props = defineProps<{
  saved: string
  draft: string | undefined
  label: string
  place: string
  right?: boolean
  takesLength?: boolean
  /** What is shown may take several lines. */
  wraps?: boolean
  /** Whether it takes a formula: after an =, or as it is. */
  formula?: 'after =' | 'as it is'
  save: (text: string) => Promise<Outcome<unknown>>
}>()
const emit = defineEmits<{ keep: [text: string]; drop: [] }>()

const input = useTemplateRef<HTMLInputElement>('input')
const focused = ref(false)
const saving = ref(false)
const fault = ref('')
const text = computed(() => props.draft ?? props.saved)
const dirty = computed(() => props.draft !== undefined && props.draft !== props.saved)
const faultId = computed(() => `fault-${props.label.replace(/\W+/g, '-')}`)

const listId = useId()
const { offered, at, ...names } = useCompletion(
  input,
  text,
  (now) => emit('keep', now),
  props.formula === 'as it is',
)

async function typed(event: Event) {
  emit('keep', (event.target as HTMLInputElement).value)
  await nextTick()
  if (props.formula) names.typed()
}

function key(event: KeyboardEvent) {
  if (props.formula && names.key(event)) return
  if (event.key === 'Enter') {
    event.preventDefault()
    void enter()
  } else if (event.key === 'Escape') {
    event.preventDefault()
    event.stopPropagation()
    void giveUp()
  }
}

function left() {
  focused.value = false
  names.close()
  void commit()
}

async function commit() {
  if (saving.value) return
  if (!dirty.value) {
    fault.value = ''
    if (props.draft !== undefined) emit('drop')
    return
  }
  const sent = text.value
  saving.value = true
  const outcome = await props.save(sent)
  saving.value = false
  if (outcome.kind === 'done') {
    fault.value = ''
    if (text.value === sent) emit('drop')
    else if (!focused.value) await commit()
  } else if (outcome.kind === 'refused') {
    const mine = outcome.problems.find((p) => p.place === props.place) ?? outcome.problems[0]
    fault.value = mine ? mine.message : outcome.detail
  } else if (outcome.kind === 'conflict') {
    fault.value = 'changed elsewhere meanwhile: Enter saves yours, Escape takes theirs'
  }
}

async function giveUp() {
  fault.value = ''
  emit('drop')
  await nextTick()
  input.value?.select()
}

async function enter() {
  names.close()
  await commit()
  if (!fault.value) input.value?.blur()
}

defineExpose({ focus: () => input.value?.focus() })
</script>

<template>
  <div class="cell" :class="{ focused, dirty, 'to-right': right, wrong: fault, wraps }">
    <input
      ref="input"
      :value="text"
      :aria-label="label"
      :aria-invalid="fault ? true : undefined"
      :aria-describedby="fault ? faultId : undefined"
      :data-takes="takesLength ? 'length' : undefined"
      :data-dirty="dirty || undefined"
      :role="formula ? 'combobox' : undefined"
      :aria-expanded="formula ? offered.length > 0 : undefined"
      :aria-controls="offered.length ? listId : undefined"
      :aria-activedescendant="offered.length ? `${listId}-${at}` : undefined"
      autocomplete="off"
      spellcheck="false"
      @input="typed"
      @focus="((focused = true), input?.select())"
      @blur="left"
      @keydown="key"
    />
    <NamesOffered
      v-if="offered.length"
      :id="listId"
      :names="offered"
      :at="at"
      @choose="names.choose"
    />
    <span v-if="!focused && !dirty" class="shown" aria-hidden="true"
      ><slot>{{ saved }}</slot></span
    >
    <span v-if="saving" class="said-only" role="status">saving</span>
    <p v-if="fault" :id="faultId" class="fault" role="alert">{{ fault }}</p>
    <span v-else-if="dirty && !focused && !saving" class="unread" role="status"
      >not taken: {{ saved || 'nothing' }} is used</span
    >
  </div>
</template>

<style scoped>
.cell {
  position: relative;
  min-width: 0;
}

input {
  width: 100%;
  font: inherit;
  color: transparent;
  caret-color: rgb(var(--v-theme-on-surface));
  background: transparent;
  border: 0;
  border-bottom: 1px solid transparent;
  min-height: 24px;
  padding: 1px 2px;
  outline-offset: 0;
}

.to-right input {
  text-align: right;
}

.focused input,
.dirty input {
  color: rgb(var(--v-theme-on-surface));
  background: rgb(var(--v-theme-surface));
  border-bottom-color: rgb(var(--v-theme-primary));
}

.dirty:not(.focused) input {
  border-bottom: 2px dotted rgb(var(--v-theme-error));
}

.shown {
  position: absolute;
  inset: 0;
  height: 24px;
  line-height: 22px;
  padding: 1px 2px;
  pointer-events: none;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.wraps:not(.focused, .dirty) input {
  position: absolute;
  inset: 0;
  height: 100%;
}

.wraps .shown {
  position: relative;
  display: block;
  height: auto;
  min-height: 24px;
  line-height: 1.25;
  padding-top: 3px;
  white-space: normal;
}

.to-right .shown {
  text-align: right;
}

.cell:hover input:not(:focus) {
  border-bottom-color: rgb(var(--v-theme-quiet));
}

.unread {
  display: block;
  font-size: var(--text-fine);
  line-height: 1.15;
  color: rgb(var(--v-theme-error));
}

.fault {
  position: absolute;
  z-index: 5;
  top: 100%;
  left: 0;
  width: max-content;
  max-width: 300px;
  margin: 2px 0 0;
  padding: 5px 9px;
  font-size: var(--text-small);
  font-weight: 500;
  line-height: 1.3;
  text-align: left;
  color: rgb(var(--v-theme-on-surface));
  background: rgb(var(--v-theme-surface));
  border: 1px solid rgb(var(--v-theme-error));
  border-left-width: 4px;
}

.to-right :deep(.names) {
  left: auto;
  right: 0;
}

.to-right .fault {
  left: auto;
  right: 0;
}
</style>
