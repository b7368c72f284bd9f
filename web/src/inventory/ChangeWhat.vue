<script setup lang="ts">
import { computed } from "vue";
import type { Schemas } from "../api/client";
import { factValue } from "./facts";

/** What one change of a difference is about, and what is said of a doubtful one. */
export type Decision = "out" | "same" | "new";
const props = defineProps<{
  change: Schemas["Change"];
  words: Map<string, Schemas["AttributeWords"]>;
  decision: Decision;
  mayDecide: boolean;
}>();
defineEmits<{ decide: [what: Decision] }>();
const value = (attribute: string, written: string) => factValue(props.words.get(attribute)?.type ?? "TEXT", written);
const facts = computed(() =>
  props.change.attributes.map((told) => ({
    name: told.attribute,
    label: props.words.get(told.attribute)?.label ?? told.attribute,
    before: told.before ? value(told.attribute, told.before.value) : "unknown",
    after: value(told.attribute, told.after),
    stays: !told.kept ? "" : told.before?.pinned ? "pinned, stays" : "observed, stays",
  })),
);
</script>

<template>
  <span v-if="change.type === 'GONE'" class="dim">no longer told by this source</span>
  <template v-else-if="change.type === 'NEW'">
    <span v-if="!facts.length" class="dim">no facts, {{ change.place }}</span>
    <details v-else>
      <summary class="dim">{{ facts.length }} {{ facts.length === 1 ? "fact" : "facts" }}, {{ change.place }}</summary>
      <div v-for="fact in facts" :key="fact.name">{{ fact.label }}: <b>{{ fact.after }}</b></div>
    </details>
  </template>
  <template v-else>
    <div v-for="fact in facts" :key="fact.name">
      {{ fact.label }}: <s class="dim">{{ fact.before }}</s> → <b>{{ fact.after }}</b>
      <span v-if="fact.stays" class="chip warn" title="The value that counts is pinned or was observed on the server; this one is recorded beside it">{{ fact.stays }}</span>
    </div>
  </template>
  <div v-if="change.doubt" class="doubt">
    <span>May be <b>{{ change.doubt.key }}</b>: {{ change.doubt.why }}.</span>
    <select :value="decision" :disabled="!mayDecide" :aria-label="`What is ${change.key}?`" @change="$emit('decide', ($event.target as HTMLSelectElement).value as Decision)">
      <option value="out">leave it out</option>
      <option value="same">it is the same; remember its other name</option>
      <option value="new">it is another, take it as new</option>
    </select>
  </div>
</template>

<style scoped>
summary { cursor: pointer; }
.doubt { display: grid; gap: 4px; margin-top: 4px; }
select { font: inherit; color: inherit; background: var(--surface); border: 1px solid var(--rule); border-radius: 4px; height: 26px; padding: 0 6px; justify-self: start; }
</style>
