<script setup lang="ts">
import type { Length } from '../api'

defineProps<{ length: Length; bare?: boolean }>()
</script>

<template>
  <span class="length" :title="length.exact ? undefined : 'rounded to what the tape shows'"
    >{{ length.exact ? '' : '≈' }}{{ length.whole
    }}<span v-if="length.numerator" class="fraction"
      >{{ length.numerator }}⁄{{ length.denominator }}</span
    >{{ bare ? '' : length.mark }}</span
  >
</template>

<style scoped>
.length {
  white-space: nowrap;
}
</style>
