<script setup lang="ts">
import { computed, ref } from 'vue'
import { KindSwatch, SectionText } from '../shared'
import TripLine from './TripLine.vue'
import type { LineNow } from './unsent'
import type { TripAtYard } from './useTrip'

/** One rack of a yard: what to take from it, size by size. */
const props = defineProps<{ at: TripAtYard; rack: { name: string; lines: LineNow[] } }>()
defineEmits<{ only: [line: LineNow]; measure: [line: LineNow]; tag: [line: LineNow] }>()
const open = ref('')

/** The lines by size; packs are of none. */
const sizes = computed(() => {
  const found: { name: string; lines: LineNow[] }[] = []
  for (const line of props.rack.lines) {
    const name = line.is_board ? line.name : ''
    const last = found.at(-1)
    if (last?.name === name) last.lines.push(line)
    else found.push({ name, lines: [line] })
  }
  return found
})

function none(line: LineNow) {
  void props.at.tell('only', { line: line.key, count: line.taken })
}

/** What was typed for the tag of a line and is not sent yet. */
function tagTyped(line: LineNow): string | undefined {
  const tags = props.at.unsent.value.filter((one) => one.kind === 'tag' && one.line === line.key)
  return tags.at(-1)?.price
}
</script>

<template>
  <section v-for="size in sizes" :key="size.name" :aria-label="size.name || 'Packs'">
    <h2 v-if="size.name">
      <KindSwatch :kind="size.lines[0]?.kind" />{{ size.name }}
      <span v-if="size.lines[0]?.section" class="quiet real"
        >really <SectionText :section="size.lines[0].section"
      /></span>
    </h2>
    <ul class="lines">
      <TripLine
        v-for="line in size.lines"
        :key="line.key"
        :line="line"
        :open="open === line.key"
        :tag="tagTyped(line)"
        @open="open = open === line.key ? '' : line.key"
        @took="(count) => at.took(line, count)"
        @put-back="at.tell('put back', { line: line.key })"
        @none="none(line)"
        @only="$emit('only', line)"
        @measure="$emit('measure', line)"
        @tag="$emit('tag', line)"
        @release="(event) => at.tell('undone', { undoes: event })"
      />
    </ul>
  </section>
</template>

<style scoped>
h2 {
  margin: 0;
  padding: 14px 18px 2px;
  font-size: var(--text-lead);
  font-stretch: var(--wide);
  font-weight: 650;
}

.real {
  margin-left: 8px;
  font-size: var(--text-plain);
  font-weight: 400;
  font-stretch: 92%;
}

.lines {
  list-style: none;
  margin: 0;
  padding: 0;
}
</style>
