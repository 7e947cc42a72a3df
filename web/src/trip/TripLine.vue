<script setup lang="ts">
import { computed } from 'vue'
import { LengthText } from '../shared'
import type { LineNow } from './unsent'

const props = defineProps<{ line: LineNow; open: boolean; tag: string | undefined }>()
defineEmits<{
  open: []
  took: [count: number]
  putBack: []
  none: []
  only: []
  measure: []
  tag: []
  release: [event: string]
}>()

const plain = computed(
  () => props.line.taken - props.line.boards.filter((one) => one.kept && !one.idle).length,
)
const done = computed(() => props.line.wanted > 0 && props.line.toTake === 0)
const priced = computed(() => {
  const { price } = props.line
  if (props.tag !== undefined) return props.tag ? `tag says ${props.tag}` : 'no tag'
  if (props.line.tag)
    return price ? `tag ${props.line.tag}, list ${price}` : `tag ${props.line.tag}`
  return price ? `${price} each, tag?` : 'no price, tag?'
})
</script>

<template>
  <li class="line" :class="{ open, done, gone: !line.wanted }">
    <div class="top">
      <button type="button" class="what" :aria-expanded="open" @click="$emit('open')">
        <span class="count">
          <span class="figure">{{ Math.min(line.taken, line.wanted) }}</span>{{ ' '
          }}<span class="quiet">of {{ line.wanted }}</span>
        </span>
        <span class="name">
          <span class="thing"
            ><span v-if="line.is_board" class="said-only">{{ line.name }}</span
            >{{ line.is_board ? line.named_length : line.name
            }}<template v-if="line.length">&nbsp;<LengthText :length="line.length" /></template
          ></span>
          <span v-if="line.content" class="quiet small">{{ line.content }}</span>
          <span v-if="line.real_length" class="quiet small"
            >really <LengthText :length="line.real_length"
          /></span>
          <span v-if="line.spare" class="quiet small">{{ line.spare }} of them spare</span>
          <span class="quiet small">{{ priced }}</span>
          <span v-if="line.limited" class="quiet small">{{
            line.left ? `${line.left} left there` : 'none left there'
          }}</span>
        </span>
      </button>
      <button
        v-if="line.wanted"
        type="button"
        class="got"
        :class="{ all: done }"
        :disabled="done"
        :aria-label="done ? `${line.called}: all got` : `Got 1 ${line.called}`"
        @click="$emit('took', 1)"
      >
        {{ done ? 'All got' : 'Got 1' }}
      </button>
    </div>
    <p v-if="line.put_back" class="back" role="status">
      {{ line.put_back }} in your cart {{ line.put_back === 1 ? 'is' : 'are' }} not needed: put
      {{ line.put_back === 1 ? 'it' : 'them' }} back
    </p>
    <ul v-if="line.boards.length" class="boards">
      <li v-for="board in line.boards" :key="board.event">
        <span :class="{ rejected: !board.kept }"
          ><LengthText :length="board.length" /><template v-for="note in board.notes" :key="note"
            >, {{ note }}</template
          ></span
        >
        <span class="quiet"
          >{{ board.kept ? 'kept' : 'rejected' }}{{ board.idle ? ', serves no part' : '' }}</span
        >
        <button type="button" class="take-back" @click="$emit('release', board.event)">
          Take back
        </button>
      </li>
    </ul>
    <div v-if="open" class="acts">
      <button v-if="line.toTake > 1" type="button" @click="$emit('took', line.toTake)">
        Got all {{ line.toTake }}
      </button>
      <button v-if="plain > 0" type="button" @click="$emit('putBack')">Put 1 back</button>
      <button v-if="line.toTake" type="button" @click="$emit('none')">
        {{ line.taken ? 'No more of these' : 'None of these' }}
      </button>
      <button type="button" @click="$emit('tag')">Tag says …</button>
      <button type="button" @click="$emit('only')">Only a few …</button>
      <button v-if="line.is_board" type="button" @click="$emit('measure')">
        This one measures …
      </button>
    </div>
  </li>
</template>

<style scoped>
.line {
  position: relative;
  padding: 10px 18px 12px;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}

.line.open {
  box-shadow: inset 5px 0 rgb(var(--v-theme-primary));
}

.line.done {
  background: color-mix(in srgb, rgb(var(--v-theme-proven)) 9%, transparent);
}

.line.gone .thing,
.line.gone .figure {
  color: rgb(var(--v-theme-quiet));
  font-weight: 500;
}

.top {
  display: flex;
  align-items: center;
  gap: 12px;
}

.what {
  flex: 1;
  min-width: 0;
  min-height: 52px;
  display: flex;
  align-items: center;
  text-align: left;
  padding: 0;
}

.count {
  flex: none;
  min-width: 92px;
  padding-right: 10px;
  white-space: nowrap;
}

.count .figure {
  font-size: var(--text-huge);
  line-height: 1;
  margin-right: 5px;
}

.done .figure,
.all {
  color: rgb(var(--v-theme-proven));
}

.name {
  display: flex;
  flex-direction: column;
  min-width: 0;
}

.thing {
  font-size: var(--text-lead);
  font-weight: 600;
  line-height: 1.2;
}

.small {
  font-size: var(--text-small);
}

.got {
  flex: none;
  width: 88px;
  min-height: 54px;
  font-size: var(--text-large);
  font-weight: 650;
  border: 2px solid rgb(var(--v-theme-on-background));
  border-radius: var(--corner);
}

.got:active {
  background: rgb(var(--v-theme-selected));
}

.got.all {
  border-color: color-mix(in srgb, rgb(var(--v-theme-proven)) 45%, transparent);
  cursor: default;
}

.back {
  margin: 2px 0 6px;
  padding-left: 10px;
  border-left: 4px solid rgb(var(--v-theme-saw));
}

.boards {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
  font-size: var(--text-plain);
}

.boards li {
  display: flex;
  align-items: center;
  gap: 10px;
}

.rejected {
  text-decoration: line-through;
}

.take-back {
  min-height: 48px;
  margin-left: auto;
  padding: 0 8px;
  text-decoration: underline;
  text-underline-offset: 4px;
}

.acts {
  margin-top: 10px;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.acts button {
  flex: 1 1 104px;
  min-height: 52px;
  padding: 4px 6px;
  line-height: 1.15;
  font-weight: 550;
  border: 1px solid rgb(var(--v-theme-quiet));
  border-radius: var(--corner);
}

.acts button:active {
  background: rgb(var(--v-theme-selected));
}
</style>
