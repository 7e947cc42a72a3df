<script setup lang="ts">
import { computed } from 'vue'
import type { OwnedTool, ToolKind } from '../api/client'
import EditableCell from '../shared/EditableCell.vue'
import { useDrafts } from '../shared/useDrafts'
import type { ToolsInHand } from './useTools'

/** One tool, the limits of which can be typed over. */
const props = defineProps<{ tool: OwnedTool; kind: ToolKind; held: ToolsInHand }>()
const { drafts, keep, drop } = useDrafts('tools')
const called = computed(() => props.tool.name || props.tool.kind)

type Limit = ToolKind['limits'][number]

function typed(name: string) {
  const key = `${props.tool.id}.${name}`
  return {
    draft: drafts.value[key],
    place: name,
    onKeep: (text: string) => keep(key, text),
    onDrop: () => drop(key),
  }
}

function write(name: string, text: string) {
  return props.held.write(props.tool.id, { limits: { [name]: text } })
}

/** What is chosen or ticked is a limit like those that are typed. */
function choices(limit: Limit) {
  const words = limit.kind === 'flag' ? ['yes', 'no'] : limit.choices
  return [{ title: '–', value: '' }, ...words.map((one) => ({ title: one, value: one }))]
}
</script>

<template>
  <section class="tool" :aria-label="called">
    <div class="head">
      <h2>{{ tool.kind }}</h2>
      <EditableCell
        v-bind="typed('name')"
        class="name"
        :saved="tool.name"
        :label="`Name of ${called}`"
        :save="(text: string) => held.write(tool.id, { name: text })"
        ><span class="quiet">{{ tool.name || 'a name, where there are two' }}</span></EditableCell
      >
      <v-btn
        variant="text"
        size="small"
        :aria-label="`Take away ${called}`"
        @click="held.remove(tool.id)"
        >Take away</v-btn
      >
    </div>
    <dl v-if="kind.limits.length" class="limits">
      <div v-for="limit in kind.limits" :key="limit.name" class="limit">
        <dt>
          {{ limit.heading }}
          <span v-if="limit.help" class="help">{{ limit.help }}</span>
        </dt>
        <dd>
          <v-select
            v-if="limit.kind === 'flag' || limit.kind === 'choice'"
            :model-value="tool.limits[limit.name] ?? ''"
            :items="choices(limit)"
            :aria-label="`${limit.heading} of ${called}`"
            density="compact"
            @update:model-value="(now: string) => write(limit.name, now)"
          />
          <EditableCell
            v-else
            v-bind="typed(limit.name)"
            class="figure"
            :saved="tool.limits[limit.name] ?? ''"
            :label="`${limit.heading} of ${called}`"
            :takes-length="limit.kind === 'length'"
            :save="(text: string) => write(limit.name, text)"
            >{{ tool.limits[limit.name] || '–'
            }}{{ limit.kind === 'angle' && tool.limits[limit.name] ? '°' : '' }}</EditableCell
          >
        </dd>
      </div>
    </dl>
    <p v-else class="quiet small">Lends a hand: nothing more is asked.</p>
  </section>
</template>

<style scoped>
.tool {
  padding: 12px 0 14px;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}

.head {
  display: flex;
  align-items: baseline;
  gap: 14px;
}

.page .head h2 {
  margin: 0;
}

.head h2::first-letter {
  text-transform: uppercase;
}

.name {
  flex: 1;
  max-width: 280px;
}

.limits {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 4px 26px;
  margin: 8px 0 0;
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

dd :deep(.v-field__input) {
  padding-top: 0;
  min-height: 26px;
}
</style>
