<script setup lang="ts">
import type { Length } from '../api'
import { LengthText } from '../shared'

/** What a line is, with its length typeset. */
defineProps<{
  line: { name: string; named_length: string; length: Length | null; content: string }
}>()
</script>

<template>
  <span
    >{{ line.named_length ? `${line.name} ${line.named_length}` : line.name
    }}<template v-if="line.length">&nbsp;<LengthText :length="line.length" /></template
    ><template v-if="line.content">, {{ line.content }}</template></span
  >
</template>
