<script setup lang="ts">
import { computed, ref } from "vue";
import type { DatabaseRow } from "../shared/queries";
import { FACETS, facetCounts, type Facet, type Filters } from "./rows";

const props = defineProps<{ rows: DatabaseRow[]; filters: Filters }>();
defineEmits<{ toggle: [facet: Facet, value: string] }>();
const open = ref(false);
const facet = ref<Facet>("site");
const values = computed(() => (open.value ? facetCounts(props.rows, props.filters, facet.value) : []));
</script>

<template>
  <v-menu v-model="open" :close-on-content-click="false">
    <template #activator="{ props: on }"><button class="chip" v-bind="on">+ narrow by</button></template>
    <div class="menu">
      <ul role="tablist" aria-label="Facet">
        <li v-for="name in FACETS" :key="name">
          <button role="tab" :aria-selected="facet === name" @click="facet = name">{{ name }}</button>
        </li>
      </ul>
      <ul class="values scroll">
        <li v-for="entry in values" :key="entry.value">
          <label>
            <input type="checkbox" :checked="filters[facet]?.includes(entry.value)" @change="$emit('toggle', facet, entry.value)" />
            <span class="grow">{{ entry.value }}</span>
            <span class="dim">{{ entry.count }}</span>
          </label>
        </li>
      </ul>
    </div>
  </v-menu>
</template>

<style scoped>
.menu { background: var(--surface); border: 1px solid var(--rule); display: grid; grid-template-columns: 120px 240px; height: 300px; }
ul { list-style: none; padding: 6px; border-right: 1px solid var(--rule2); }
button[role="tab"] { width: 100%; text-align: left; background: none; border: 0; font: inherit; color: inherit; padding: 5px 8px; cursor: pointer; border-radius: 3px; }
button[aria-selected="true"] { background: var(--current-soft); color: var(--current); font-weight: 600; }
.values { overflow: auto; }
label { display: flex; gap: 8px; padding: 4px 6px; cursor: pointer; align-items: center; }
input { accent-color: var(--current); }
</style>
