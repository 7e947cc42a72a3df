<script setup lang="ts">
import type { Layout, Part } from '../api'
import { LengthText } from '../shared'

/** The cuts of a board in the order in which they are made, as they are set up at the saw. */
const props = defineProps<{ layout: Layout; parts: Map<string, Part> }>()

type Cut = Layout['cuts'][number]

function piece(cut: Cut): string {
  return cut.of ? `piece ${cut.of}` : 'the board'
}

/** A part where its cut is told: whether it is to be held back. */
function called(part: Part | undefined): string {
  return part?.is_held ? `${part.mark} (hold: cut after measuring)` : (part?.mark ?? '')
}

function made(one: Cut['makes'][number]): string {
  const marks = one.parts.map((id) => called(props.parts.get(id))).join(' ')
  if (one.is_part) return marks
  if (one.parts.length) return `piece ${one.number} (${marks})`
  return one.keep ? 'an offcut to keep' : 'waste'
}
</script>

<template>
  <details v-if="layout.cuts.length" class="cuts">
    <summary>{{ layout.cuts.length }} cut{{ layout.cuts.length > 1 ? 's' : '' }}</summary>
    <ol>
      <li v-for="cut in layout.cuts" :key="cut.number">
        <template v-if="cut.saw === 'crosscut'"
          >Crosscut {{ piece(cut) }} at <strong><LengthText :length="cut.at" /></strong
          ><template v-if="cut.angle"
            >, {{ cut.angle }}, long point at the {{ cut.long_point }}</template
          >, saw {{ cut.waste }} the line</template
        >
        <template v-else-if="cut.held"
          >{{ cut.saw === 'rip' ? 'Rip' : 'Resaw' }} {{ piece(cut) }} along a line
          <strong><LengthText :length="cut.fence" /></strong> from the {{ cut.against
          }}<template v-if="cut.angle"
            >&nbsp;on the face below, blade tilted {{ cut.angle }}, {{ cut.face_up }} up</template
          >; {{ cut.held }}</template
        >
        <template v-else-if="cut.saw === 'resaw'"
          >Resaw {{ piece(cut) }}, fence <strong><LengthText :length="cut.fence" /></strong>,
          {{ cut.against }} against it</template
        >
        <template v-else
          >Rip {{ piece(cut) }}, fence <strong><LengthText :length="cut.fence" /></strong>,
          {{ cut.against }} against it<template v-if="cut.angle"
            >, blade tilted {{ cut.angle }} away from the fence, {{ cut.face_up }} up</template
          ></template
        >: <span class="quiet">{{ cut.makes.map(made).join(', ') }}</span>
      </li>
    </ol>
  </details>
</template>

<style scoped>
.cuts {
  font-size: var(--text-small);
  margin: 0 0 8px;
}

summary {
  cursor: pointer;
  min-height: 24px;
  color: rgb(var(--v-theme-quiet));
}

ol {
  margin: 2px 0 0;
  padding-left: 26px;
}

li {
  padding: 1px 0;
}
</style>
