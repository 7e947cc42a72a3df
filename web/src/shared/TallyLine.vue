<script setup lang="ts">
import { computed } from 'vue'
import type { Plan } from '../api/client'

const props = defineProps<{ plan: Plan; planning: boolean; outdated: boolean; failed: boolean }>()
defineEmits<{ stop: []; again: [] }>()

const tally = computed(() => props.plan.tally)
const status = computed(() => props.plan.status)
const figures = computed(() => [
  {
    figure: String(tally.value.boards + tally.value.spare),
    name: tally.value.owned
      ? `to buy, ${tally.value.owned} from the rack`
      : tally.value.spare
        ? `boards, ${tally.value.spare} of them spare`
        : tally.value.longest
          ? `boards, longest ${tally.value.longest}`
          : 'boards',
  },
  {
    figure: tally.value.cost ?? (tally.value.boards ? 'no price' : '–'),
    name: tally.value.unpriced
      ? tally.value.cost
        ? `without ${tally.value.unpriced} unpriced`
        : 'choose a yard'
      : tally.value.with_tax
        ? `with tax ${tally.value.with_tax}`
        : tally.value.boards
          ? 'no tax'
          : 'cost',
  },
  {
    figure: `${tally.value.waste} %`,
    name: tally.value.keepable
      ? `waste, ${tally.value.keepable} offcut${tally.value.keepable > 1 ? 's' : ''} to keep`
      : 'waste',
  },
  { figure: `${tally.value.board_feet} bf`, name: 'board feet' },
  { figure: tally.value.weight, name: 'weight, air-dry' },
])
</script>

<template>
  <footer class="tally" aria-label="Tally">
    <div v-for="one in figures" :key="one.name" class="one">
      <span class="figure">{{ one.figure }}</span>
      <span class="name">{{ one.name }}</span>
    </div>
    <div
      class="claim"
      :class="{ proven: tally.claim.proven && !outdated && !failed }"
      role="status"
    >
      <template v-if="failed || status === 'failed'">
        <span class="statement called">Planning failed</span>
        <span class="name"
          ><v-btn size="small" class="act" @click="$emit('again')">Try again</v-btn></span
        >
      </template>
      <template v-else-if="outdated">
        <span class="statement called">Planning what was changed</span>
        <span class="name">drawn is the plan before it</span>
      </template>
      <template v-else-if="planning && !tally.claim.proven">
        <span class="statement called">Closing in on the least</span>
        <span class="name">
          {{ (plan.seconds ?? 0).toFixed(0) }} s; drawn is the best so far<template
            v-if="tally.bound"
            >, none below {{ tally.bound }} exists</template
          >
          <v-btn size="small" class="act" @click="$emit('stop')">Stop</v-btn>
        </span>
      </template>
      <template v-else>
        <span class="statement called">{{ tally.claim.headline }}</span>
        <span class="name">
          {{ tally.claim.detail }}
          <v-btn v-if="status === 'stopped'" size="small" class="act" @click="$emit('again')">
            Go on
          </v-btn>
        </span>
        <span v-if="tally.later" class="name">
          {{ tally.later }} part{{ tally.later > 1 ? 's' : '' }} not planned yet
        </span>
      </template>
    </div>
  </footer>
</template>

<style scoped>
.tally {
  display: flex;
  border-top: 3px solid rgb(var(--v-theme-on-background));
  background: rgb(var(--v-theme-surface));
  padding: 0 6px;
  min-height: 78px;
}

.one {
  position: relative;
  display: flex;
  flex-direction: column;
  padding: 11px 26px 8px 14px;
  white-space: nowrap;
}

.one + .one::before {
  content: '';
  position: absolute;
  left: 0;
  top: 0;
  height: 15px;
  border-left: 1px solid rgb(var(--v-theme-on-background));
}

.one .figure {
  font-size: 1.72rem;
  line-height: 1.2;
  font-stretch: 80%;
}

.name {
  font-size: 0.78rem;
  color: rgb(var(--v-theme-quiet));
}

.claim {
  margin-left: auto;
  padding: 11px 14px 8px 24px;
  text-align: right;
  display: flex;
  flex-direction: column;
  position: relative;
}

.claim::before {
  content: '';
  position: absolute;
  left: 0;
  top: 0;
  height: 15px;
  border-left: 1px solid rgb(var(--v-theme-on-background));
}

.act {
  margin-left: 10px;
  min-height: 26px;
  height: 26px !important;
}

.statement {
  font-size: 1.08rem;
}

.proven .statement {
  color: rgb(var(--v-theme-proven));
}

@media (max-width: 900px) {
  .tally {
    flex-wrap: wrap;
    padding-bottom: 8px;
  }

  .one {
    padding: 8px 12px 4px;
  }

  .one + .one::before {
    display: none;
  }

  .one .figure {
    font-size: 1.3rem;
  }

  .claim {
    width: 100%;
    text-align: left;
    padding: 6px 12px;
  }

  .claim::before {
    display: none;
  }
}
</style>
