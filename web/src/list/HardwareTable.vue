<script setup lang="ts">
import type { Hardware } from '../api'
import { LengthText, RuledTable } from '../shared'

defineProps<{ hardware: Hardware }>()
const COLUMNS = [
  { name: 'name', title: 'what', look: 'called' },
  { name: 'needed', title: 'needed', right: true, look: 'figure' },
  { name: 'packs', title: 'packs' },
  { name: 'for', title: 'for', roomy: true, look: 'quiet small' },
  { name: 'together', title: 'together', right: true, look: 'figure' },
]
</script>

<template>
  <RuledTable
    v-if="hardware.lines.length"
    called="Hardware"
    :columns="COLUMNS"
    :rows="hardware.lines"
    :key-of="(line) => line.name"
  >
    <template #name="{ row }">
      {{ row.name }} <LengthText v-if="row.length" :length="row.length" />
    </template>
    <template #needed="{ row }">
      {{ row.needed }}
      <span v-if="row.have" class="quiet small">{{ row.have }} in the drawer</span>
    </template>
    <template #packs="{ row }">
      <span v-for="pack in row.packs" :key="pack.name" class="pack">
        {{ pack.count
        }}<template v-if="pack.content"> of {{ pack.content }} at {{ pack.price }}</template
        ><template v-else> at {{ pack.price }}</template>
      </span>
      <span v-if="row.packs.length && row.left" class="quiet small">{{ row.left }} left over</span>
    </template>
    <template #for="{ row }">{{ row.used_for.join('; ') }}</template>
    <template #together="{ row }">{{ row.price ?? 'no price' }}</template>
  </RuledTable>
  <div v-if="hardware.problems.length" role="alert">
    <ul class="wrong">
      <li v-for="problem in hardware.problems" :key="problem">{{ problem }}</li>
    </ul>
  </div>
  <dl v-if="hardware.joints.length" class="joints">
    <template v-for="(joint, index) in hardware.joints" :key="index">
      <dt>{{ joint.text }}</dt>
      <dd>
        <template v-if="joint.fastener"
          >{{ joint.count }} × {{ joint.fastener }}
          <LengthText v-if="joint.length" :length="joint.length"
        /></template>
        <strong v-for="warning in joint.warnings" :key="warning" class="minded">{{
          warning
        }}</strong>
        <span v-for="note in joint.notes" :key="note" class="quiet"
          >{{ joint.warnings.length ? '' : '; ' }}{{ note }}</span
        >
      </dd>
    </template>
  </dl>
</template>

<style scoped>
/* Also of a whole cell. */
.small,
:deep(.small) {
  font-size: var(--text-small);
}

.pack + .pack::before {
  content: ', ';
}

.pack + .small,
:deep(.figure) .small {
  margin-left: 8px;
  font-weight: 400;
}

.wrong {
  list-style: none;
  padding: 0 0 0 12px;
  margin: 12px 0;
  border-left: 4px solid rgb(var(--v-theme-error));
}

.joints {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 2px 18px;
  margin: 14px 0 0;
  font-size: var(--text-small);
}

.joints dt {
  color: rgb(var(--v-theme-quiet));
}

.joints dd {
  margin: 0;
}

.minded {
  display: block;
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}

@media (max-width: 600px) {
  .joints {
    grid-template-columns: 1fr;
  }
}
</style>
