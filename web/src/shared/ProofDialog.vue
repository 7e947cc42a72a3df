<script setup lang="ts">
import { computed } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api, keys } from '../api'
import NoticeLine from './NoticeLine.vue'
import PlainDialog from './PlainDialog.vue'
import RuledTable from './RuledTable.vue'

/** Why no purchase is cheaper, material by material, in figures that can be added up. */
const props = defineProps<{ plan: string }>()
const open = defineModel<boolean>({ required: true })

const { data: proofs, error } = useQuery({
  queryKey: computed(() => keys.proof(props.plan)),
  enabled: open,
  retry: false,
  queryFn: async () => {
    const answer = await api.GET('/api/plans/{plan_id}/proof', {
      params: { path: { plan_id: props.plan } },
    })
    if (!answer.data) throw new Error('The project has changed. Close this and look again.')
    return answer.data
  },
})

type Count = NonNullable<typeof proofs.value>[number]['counts'][number]

const COLUMNS = [
  { name: 'board', title: 'one board', look: 'called' },
  { name: 'price', title: 'price', right: true, look: 'figure' },
  { name: 'holds', title: 'holds at most', right: true, look: 'figure' },
]

const figure = (n: number) => n.toLocaleString('en-US')

function partsTold(count: Count): string {
  return count.parts.map((one) => `${one.part} ${figure(one.counts)}`).join(', ')
}
</script>

<template>
  <PlainDialog v-model="open" title="The proof" :width="680" is-long>
    <p class="intro">
      Give each part a count. One board holds only so much of it: add up what a purchase holds, and
      compare it with what all parts need.
    </p>
    <NoticeLine v-if="error" wrong>{{ error.message }}</NoticeLine>
    <section v-for="proof in proofs" :key="proof.of" :aria-label="proof.of">
      <h3>{{ proof.of }}</h3>
      <p class="says" :class="{ whole: proof.whole }">{{ proof.says }}</p>
      <template v-if="proof.tried.length">
        <p>
          Below that only these meet every count. Each was filled in every way, and some part is
          left over:
        </p>
        <ul class="tried">
          <li v-for="one in proof.tried" :key="one">{{ one }}</li>
        </ul>
      </template>
      <div v-for="(count, n) in proof.counts" :key="n" class="count">
        <p>
          <template v-if="proof.counts.length > 1">Count {{ n + 1 }}: </template
          >{{ partsTold(count) }}. All parts need <b>{{ figure(count.needed) }}</b>.
        </p>
        <RuledTable
          :called="`What one board holds, ${proof.of}, ${n + 1}`"
          :columns="COLUMNS"
          :rows="count.boards"
          :key-of="(_, at) => at"
        >
          <template #holds="{ row }">{{ figure(row.holds) }}</template>
        </RuledTable>
      </div>
    </section>
    <template #acts>
      <v-spacer />
      <v-btn @click="open = false">Close</v-btn>
    </template>
  </PlainDialog>
</template>

<style scoped>
.intro,
.says,
.tried {
  margin-bottom: 10px;
}

h3 {
  font-size: var(--text-large);
  font-weight: 650;
  margin-top: 18px;
}

.says {
  font-weight: 600;
}

.whole {
  color: rgb(var(--v-theme-proven));
}

.tried {
  padding-left: 20px;
}

.count {
  margin-bottom: 14px;
}

.count p {
  margin-bottom: 4px;
}
</style>
