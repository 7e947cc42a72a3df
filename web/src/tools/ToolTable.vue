<script setup lang="ts">
import { computed } from 'vue'
import type { OwnedTool, Toolbox, ToolKind } from '../api'
import { ChoiceSelect, EditableCell, RuledTable, useDrafts } from '../shared'
import type { ToolsInHand } from './useTools'

/** The tools of a workshop, the limits of which can be typed over. */
const props = defineProps<{ box: Toolbox; held: ToolsInHand }>()
const COLUMNS = [
  { name: 'kind', title: 'tool', look: 'called kind' },
  { name: 'name', title: 'name, where there are two' },
  { name: 'acts', title: 'take away', unseen: true, right: true },
]
const { drafts, keep, drop } = useDrafts('tools')
const kinds = computed(() => new Map(props.box.kinds.map((one) => [one.kind, one])))
const tools = computed(() => props.box.tools.filter((one) => kinds.value.has(one.kind)))

type Limit = ToolKind['limits'][number]

function called(tool: OwnedTool): string {
  return tool.name || tool.kind
}

function limitsOf(tool: OwnedTool): Limit[] {
  return kinds.value.get(tool.kind)?.limits ?? []
}

function typed(tool: OwnedTool, name: string) {
  const key = `${tool.id}.${name}`
  return {
    draft: drafts.value[key],
    place: name,
    onKeep: (text: string) => keep(key, text),
    onDrop: () => drop(key),
  }
}

function write(tool: OwnedTool, name: string, text: string) {
  return props.held.write(tool.id, { limits: { [name]: text } })
}

/** What is chosen or ticked is a limit like those that are typed. */
function choices(limit: Limit) {
  const words = limit.kind === 'flag' ? ['yes', 'no'] : limit.choices
  return [{ title: '–', value: '' }, ...words.map((one) => ({ title: one, value: one }))]
}
</script>

<template>
  <RuledTable
    called="Your tools"
    :columns="COLUMNS"
    :rows="tools"
    :key-of="(tool) => tool.id"
    :is-open="() => true"
  >
    <template #name="{ row }">
      <EditableCell
        v-bind="typed(row, 'name')"
        class="name"
        :saved="row.name"
        :label="`Name of ${called(row)}`"
        :save="(text: string) => held.write(row.id, { name: text })"
      />
    </template>
    <template #under="{ row }">
      <dl v-if="limitsOf(row).length" class="limits">
        <div v-for="limit in limitsOf(row)" :key="limit.name" class="limit">
          <dt>
            {{ limit.heading }}
            <span v-if="limit.help" class="help">{{ limit.help }}</span>
          </dt>
          <dd>
            <ChoiceSelect
              v-if="limit.kind === 'flag' || limit.kind === 'choice'"
              :model-value="row.limits[limit.name] ?? ''"
              :choices="choices(limit)"
              :called="`${limit.heading} of ${called(row)}`"
              @update:model-value="(now: string) => write(row, limit.name, now)"
            />
            <EditableCell
              v-else
              v-bind="typed(row, limit.name)"
              class="figure"
              :saved="row.limits[limit.name] ?? ''"
              :label="`${limit.heading} of ${called(row)}`"
              :takes-length="limit.kind === 'length'"
              :save="(text: string) => write(row, limit.name, text)"
              >{{ row.limits[limit.name] || '–'
              }}{{ limit.kind === 'angle' && row.limits[limit.name] ? '°' : '' }}</EditableCell
            >
          </dd>
        </div>
      </dl>
      <span v-else class="quiet">No limits to enter.</span>
    </template>
    <template #acts="{ row }">
      <v-btn
        variant="text"
        size="small"
        :aria-label="`Take away ${called(row)}`"
        @click="held.remove(row.id)"
        >Take away</v-btn
      >
    </template>
  </RuledTable>
</template>

<style scoped>
:deep(tbody tr:nth-child(odd) td) {
  padding-bottom: 0;
  border-bottom: 0;
}

:deep(.kind) {
  font-size: var(--text-lead);
}

:deep(.kind)::first-letter {
  text-transform: uppercase;
}

.name :deep(input:not(:focus)) {
  border-bottom-color: rgb(var(--v-theme-rule));
}

.limits {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 4px 26px;
  margin: 0;
}

.limit {
  display: grid;
  grid-template-columns: 1fr 104px;
  gap: 10px;
  align-items: start;
  min-height: 34px;
}

dt {
  line-height: 1.25;
  font-size: var(--text-plain);
  padding-top: 3px;
}

.help {
  display: block;
  font-size: var(--text-fine);
  color: rgb(var(--v-theme-quiet));
}

dd {
  margin: 0;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}
</style>
