<script setup lang="ts">
import { computed, ref } from "vue";
import type { EstateTable } from "./estate";
import { FACETS, facetCounts, type Places, type Query } from "./rows";

const props = defineProps<{ table: EstateTable; query: Query; places: Places }>();
defineEmits<{ toggle: [facet: string, value: string] }>();
const open = ref(false);
const chosen = ref("");
const facets = computed(() => FACETS[props.table.kind]);
const facet = computed(() => (facets.value.includes(chosen.value) ? chosen.value : facets.value[0]));
const wanted = ref("");
const values = computed(() => {
  if (!open.value) return [];
  const all = facetCounts(props.table.rows, props.query, facet.value, props.places);
  return all.filter((entry) => entry.value.toLowerCase().includes(wanted.value.toLowerCase()));
});
const label = (name: string) => (name === "wave" ? name : (props.table.column(name)?.label ?? name));
</script>

<template>
  <v-menu v-model="open" :close-on-content-click="false">
    <template #activator="{ props: on }"><button class="chip" v-bind="on">+ narrow by</button></template>
    <div class="menu">
      <ul role="tablist" aria-label="Facet">
        <li v-for="name in facets" :key="name" role="presentation">
          <button role="tab" :aria-selected="facet === name" @click="chosen = name">{{ label(name) }}</button>
        </li>
      </ul>
      <div class="values">
        <input v-model="wanted" type="search" :placeholder="`Find in ${label(facet)}`" :aria-label="`Find in ${label(facet)}`" />
        <ul class="scroll">
          <li v-if="!values.length" class="dim none">nothing like that</li>
          <li v-for="entry in values.slice(0, 200)" :key="entry.value">
            <label>
              <input type="checkbox" :checked="query.filters[facet]?.includes(entry.value)" @change="$emit('toggle', facet, entry.value)" />
              <span class="grow">{{ entry.value }}</span>
              <span class="dim">{{ entry.count }}</span>
            </label>
          </li>
        </ul>
      </div>
    </div>
  </v-menu>
</template>

<style scoped>
.menu { background: var(--surface); border: 1px solid var(--rule); display: grid; grid-template-columns: 130px 250px; height: 320px; }
ul { list-style: none; padding: 6px; }
.menu > ul { border-right: 1px solid var(--rule2); }
button[role="tab"] { width: 100%; text-align: left; background: none; border: 0; font: inherit; color: inherit; padding: 5px 8px; cursor: pointer; border-radius: 3px; }
button[aria-selected="true"] { background: var(--current-soft); color: var(--current); font-weight: 600; }
.values { display: flex; flex-direction: column; min-height: 0; }
.values > input { border: 0; border-bottom: 1px solid var(--rule2); font: inherit; color: inherit; background: none; padding: 8px 12px; }
.values ul { overflow: auto; flex: 1; }
.none { padding: 6px; }
label { display: flex; gap: 8px; padding: 4px 6px; cursor: pointer; align-items: center; }
label input { accent-color: var(--current); }
</style>
