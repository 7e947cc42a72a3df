<script setup lang="ts" generic="T extends Read">
import type { TableColumn } from '../api'
import { counted } from '../shared'
import ColumnChoice from './ColumnChoice.vue'
import FaultList from './FaultList.vue'
import FilePick from './FilePick.vue'
import type { Read, TableInHand } from './useTableFile'

/** A file with a table: which it is, what each column is, and what is wrong with it. */
const props = defineProps<{ label: string; accept: string; held: TableInHand<T> }>()
const { file, reading, problems } = props.held
const columns = (): TableColumn[] => reading.value?.columns ?? []
</script>

<template>
  <FilePick :label="label" :accept="accept" :file="file" @picked="held.chosen" />
  <ColumnChoice
    v-if="columns().length"
    :columns="columns()"
    :choices="reading?.choices ?? []"
    @choose="held.choose"
  />
  <FaultList
    :problems="problems"
    :lead="`Nothing is imported: ${counted(problems.length, 'thing')} to mend.`"
  />
</template>
