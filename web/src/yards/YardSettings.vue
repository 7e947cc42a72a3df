<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useFaults, type Yard, type YardPatch } from '../api'
import { FormDialog } from '../shared'
import type { YardInHand } from './useYard'

const props = defineProps<{ yard: Yard; held: YardInHand }>()
const open = defineModel<boolean>({ required: true })

function asTyped() {
  const { name, currency, tax_rate, prices_include_tax, board_foot_rounding } = props.yard
  const { price_service, service_code, packs, walk } = props.yard
  const price_age_days = String(props.yard.price_age_days)
  return {
    name,
    currency,
    tax_rate,
    prices_include_tax,
    board_foot_rounding,
    price_age_days,
    price_service,
    service_code,
    packs,
    walk,
  }
}

const form = ref(asTyped())
const faults = useFaults('name')

watch(open, (now) => {
  if (now) {
    form.value = asTyped()
    faults.clear()
  }
})

function patch(): YardPatch {
  const before = asTyped()
  return Object.fromEntries(
    Object.entries(form.value).filter(
      ([name, value]) => value !== before[name as keyof typeof before],
    ),
  )
}

const isChanged = computed(() => open.value && Object.keys(patch()).length > 0)

async function save() {
  const changed = patch()
  if (!Object.keys(changed).length) {
    open.value = false
    return
  }
  if (faults.settle(await props.held.changeYard(changed))) open.value = false
}
</script>

<template>
  <FormDialog
    v-model="open"
    title="How this yard prices"
    :width="480"
    :changed="isChanged"
    @save="save"
  >
    <div class="form">
      <v-text-field
        v-model="form.name"
        label="Name"
        class="wide"
        :error-messages="faults.at('name')"
      />
      <v-text-field
        v-model="form.currency"
        label="Currency"
        :error-messages="faults.at('currency')"
      />
      <v-text-field
        v-model="form.tax_rate"
        label="Tax, percent"
        :error-messages="faults.at('tax_rate')"
      />
      <v-checkbox v-model="form.prices_include_tax" label="Prices include the tax" class="wide" />
      <v-select
        v-model="form.board_foot_rounding"
        label="Board feet"
        class="wide"
        :items="[
          { title: 'fractions kept', value: 'total' },
          { title: 'width and length to whole inches', value: 'each' },
        ]"
      />
      <v-text-field
        v-model="form.price_age_days"
        label="A price is old after, days"
        inputmode="numeric"
        class="wide"
        :error-messages="faults.at('price_age_days')"
      />
      <v-select
        v-model="form.price_service"
        label="Price service"
        :items="[
          { title: 'none', value: '' },
          ...yard.services.map((name) => ({ title: name, value: name })),
        ]"
      />
      <v-text-field
        v-model="form.service_code"
        label="Its code for this yard"
        placeholder="tallow-street"
        :error-messages="faults.at('service_code')"
      />
      <v-text-field
        v-model="form.walk"
        label="Walking order of its racks"
        class="wide"
        hint="cedar, treated: these come first at the yard, the others as they stand in the list"
        persistent-hint
        :error-messages="faults.at('walk')"
      />
      <v-textarea
        v-model="form.packs"
        label="Sold by the pack, one a line"
        class="wide"
        rows="4"
        auto-grow
        hint="what, how many it holds, its price: screw 2 1/2in, 100, 9.50"
        persistent-hint
        :error-messages="faults.at('packs')"
      />
    </div>
  </FormDialog>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
  padding-top: 4px;
}

.wide {
  grid-column: 1 / -1;
}
</style>
