<script setup lang="ts">
import type { Hardware } from '../api/client'
import LengthText from '../shared/LengthText.vue'

defineProps<{ hardware: Hardware }>()
</script>

<template>
  <div class="scroll" tabindex="0" role="region" aria-label="Hardware">
    <table v-if="hardware.lines.length" class="ruled">
      <thead>
        <tr>
          <th>what</th>
          <th class="to-right">needed</th>
          <th>packs</th>
          <th class="roomy">for</th>
          <th class="to-right">together</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in hardware.lines" :key="line.name">
          <td class="called">
            {{ line.name }} <LengthText v-if="line.length" :length="line.length" />
          </td>
          <td class="to-right figure">
            {{ line.needed }}
            <span v-if="line.have" class="quiet small">{{ line.have }} in the drawer</span>
          </td>
          <td>
            <span v-for="pack in line.packs" :key="pack.name" class="pack">
              {{ pack.count
              }}<template v-if="pack.content"> of {{ pack.content }} at {{ pack.price }}</template
              ><template v-else> at {{ pack.price }}</template>
            </span>
            <span v-if="line.packs.length && line.left" class="quiet small"
              >{{ line.left }} left over</span
            >
          </td>
          <td class="roomy quiet small">{{ line.used_for.join('; ') }}</td>
          <td class="to-right figure">{{ line.price ?? 'no price' }}</td>
        </tr>
      </tbody>
    </table>
  </div>
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
.scroll {
  overflow-x: auto;
}

.small {
  font-size: var(--text-small);
}

.pack + .pack::before {
  content: ', ';
}

.pack + .small,
.figure .small {
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
  .roomy {
    display: none;
  }

  .joints {
    grid-template-columns: 1fr;
  }
}
</style>
