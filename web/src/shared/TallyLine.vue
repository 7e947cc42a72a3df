<script setup lang="ts">
import { useElementSize, useMediaQuery } from '@vueuse/core'
import {
  computed,
  defineAsyncComponent,
  onBeforeUnmount,
  ref,
  useTemplateRef,
  watchEffect,
} from 'vue'
import type { Plan } from '../api'
import { counted } from './counted'

const ProofDialog = defineAsyncComponent(() => import('./ProofDialog.vue'))

/** The totals that are always in view; on a list, with its hardware in them. Where there is little
 * room they fold to a line, which opens. */
const props = defineProps<{
  plan: Plan
  planning: boolean
  outdated: boolean
  failed: boolean
  wholeList?: boolean
  /** Where it is bought. */
  yard?: string | undefined
}>()
defineEmits<{ stop: []; again: [] }>()

const tally = computed(() => props.plan.tally)
const status = computed(() => props.plan.status)
const shopping = computed(() => props.plan.shopping)
const boards = computed(() => tally.value.boards + tally.value.spare)

/** Whether what is in view costs more than what the claim is made of. */
const ofTheWood = computed(() => props.wholeList && shopping.value.hardware.lines.length > 0)

const cost = computed(() => {
  const { cost: wood, with_tax, unpriced } = tally.value
  if (props.wholeList && shopping.value.lines.length + shopping.value.hardware.lines.length)
    return {
      figure: shopping.value.total,
      name: shopping.value.total_note || 'in all, with tax',
    }
  if (unpriced)
    return {
      figure: wood ?? 'no price',
      name: wood
        ? `without ${unpriced} unpriced`
        : props.yard
          ? `at ${props.yard}`
          : 'choose a yard',
    }
  if (with_tax) return { figure: wood ?? 'no price', name: `with tax ${with_tax}` }
  return boards.value
    ? { figure: wood ?? 'no price', name: 'no tax' }
    : { figure: '–', name: 'cost' }
})

const boardsTold = computed(() => {
  const { owned, spare, longest } = tally.value
  if (owned) return `to buy, ${owned} from the rack`
  const one = boards.value === 1 ? 'board' : 'boards'
  if (spare) return `${one}, ${spare} of them spare`
  return longest ? `${one}, longest ${longest}` : one
})

const figures = computed(() => [
  { figure: String(boards.value), name: boardsTold.value },
  cost.value,
  {
    figure: `${tally.value.waste} %`,
    name: tally.value.keepable
      ? `waste, ${counted(tally.value.keepable, 'offcut')} to keep`
      : 'waste',
  },
  { figure: `${tally.value.board_feet} bf`, name: 'board feet' },
  { figure: tally.value.weight, name: 'weight, air-dry' },
])

const folds = useMediaQuery('(max-width: 480px), (max-height: 520px)')
const opened = ref(false)
const why = ref(false)
const folded = computed(() => folds.value && !opened.value)

const line = useTemplateRef<HTMLElement>('line')
const { height } = useElementSize(line, undefined, { box: 'border-box' })
watchEffect(() => document.documentElement.style.setProperty('--under', `${height.value}px`))
onBeforeUnmount(() => document.documentElement.style.removeProperty('--under'))
</script>

<template>
  <footer ref="line" class="tally" :class="{ folded }" aria-label="Tally">
    <button
      v-if="folds"
      type="button"
      class="fold"
      :aria-expanded="opened"
      @click="opened = !opened"
    >
      {{ opened ? 'Less' : 'More' }}<span class="said-only"> of the tally</span>
    </button>
    <div v-for="(one, n) in figures" :key="n" class="one">
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
        <button
          v-if="tally.claim.checked && !folded"
          type="button"
          class="statement called why"
          aria-haspopup="dialog"
          @click="why = true"
        >
          {{ tally.claim.headline }}<span class="said-only">: show why</span>
        </button>
        <span v-else class="statement called">{{ tally.claim.headline }}</span>
        <span class="name">
          <template v-if="ofTheWood">of the wood, </template>{{ tally.claim.detail }}
          <v-btn v-if="status === 'stopped'" size="small" class="act" @click="$emit('again')">
            Go on
          </v-btn>
        </span>
      </template>
    </div>
    <ProofDialog v-if="why" v-model="why" :plan="plan.id" />
  </footer>
</template>

<style scoped src="./foot-figures.css"></style>
<style scoped>
.tally {
  display: flex;
  border-top: 3px solid rgb(var(--v-theme-on-background));
  background: rgb(var(--v-theme-surface));
  padding: 0 6px;
  min-height: 78px;
}

.one,
.claim {
  position: relative;
}

.claim {
  margin-left: auto;
}

.one + .one::before,
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

.why {
  min-height: 24px;
  text-decoration: underline;
  text-decoration-thickness: 1px;
  text-underline-offset: 4px;
  text-align: inherit;
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

  .one + .one::before,
  .claim::before {
    display: none;
  }

  .one .figure {
    font-size: var(--text-lead);
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

.fold {
  order: 9;
  min-height: 44px;
  margin-left: auto;
  padding: 0 14px;
  font-size: var(--text-small);
  text-decoration: underline;
  text-underline-offset: 4px;
}

.folded {
  flex-wrap: nowrap;
  align-items: center;
  min-height: 44px;
  padding-bottom: 0;
}

.folded .one:nth-of-type(n + 3),
.folded .name {
  display: none;
}

.folded .one {
  padding: 4px 10px;
}

.folded .one .figure {
  font-size: var(--text-large);
}

.folded .claim {
  width: auto;
  flex: 1;
  min-width: 0;
  padding: 0 4px;
}

.folded .statement {
  font-size: var(--text-small);
  font-stretch: var(--condensed);
  line-height: 1.15;
}
</style>
