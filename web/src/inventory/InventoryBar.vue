<script setup lang="ts">
import { mdiDotsHorizontal } from "@mdi/js";
import { computed, ref, watch } from "vue";
import { mayWork } from "../team/session";
import ColumnsMenu from "./ColumnsMenu.vue";
import { GROUPINGS, header, noun } from "./columns";
import type { EstateTable, ObjectKind } from "./estate";
import FacetMenu from "./FacetMenu.vue";
import LensChips from "./LensChips.vue";
import { FACETS, type Places, type Query } from "./rows";
import SavedViews from "./SavedViews.vue";
import type { TableState } from "./useTableState";

const props = defineProps<{ state: TableState; table: EstateTable; places: Places; query: Query; waiting: number }>();
defineEmits<{ accept: []; read: []; ask: []; accepted: []; paste: [] }>();
const KINDS: ObjectKind[] = ["DATABASE", "INSTANCE", "HOST", "APPLICATION"];
const label = (kind: ObjectKind) => header("", noun(kind), "");
const chosen = computed(() =>
  FACETS[props.table.kind].flatMap((facet) => (props.query.filters[facet] ?? []).map((value) => ({ facet, value }))),
);
const find = ref(props.query.text);
watch(() => props.query.text, (text) => (find.value = text));
let timer: ReturnType<typeof setTimeout> | undefined;
function search() {
  clearTimeout(timer);
  timer = setTimeout(() => void props.state.search(find.value), 80);
}
</script>

<template>
  <div class="bar first">
    <h1>Inventory</h1>
    <v-menu>
      <template #activator="{ props: on }"><v-btn v-bind="on">{{ label(table.kind) }}</v-btn></template>
      <v-list density="compact">
        <v-list-item v-for="one in KINDS" :key="one" :title="label(one)" :active="one === table.kind" @click="state.show(one)" />
      </v-list>
    </v-menu>
    <LensChips :table="table" :lens="state.lens.value" @look="state.look" />
    <div class="grow" />
    <v-btn v-if="waiting" class="waiting" @click="$emit('accept')">{{ waiting }} to accept</v-btn>
    <v-menu>
      <template #activator="{ props: on }">
        <v-btn v-bind="on" aria-label="More of the inventory"><svg width="18" height="18" viewBox="0 0 24 24"><path :d="mdiDotsHorizontal" fill="currentColor" /></svg></v-btn>
      </template>
      <v-list density="compact">
        <v-list-item title="Ask the owners…" @click="$emit('ask')" />
        <v-list-item v-if="mayWork" title="Paste a table…" @click="$emit('paste')" />
        <v-list-item title="Accepted readings…" @click="$emit('accepted')" />
      </v-list>
    </v-menu>
    <v-btn v-if="mayWork" class="go" aria-label="Read a file or a server" @click="$emit('read')"><span class="long">Read a file or a server</span><span class="short">Read…</span></v-btn>
  </div>
  <div class="bar second">
    <input v-model="find" type="search" class="find" placeholder="Find in all facts" aria-label="Find in all facts" @input="search" />
    <button v-for="one in chosen" :key="one.facet + one.value" class="chip on" :title="`Remove ${one.facet} ${one.value}`" @click="state.toggle(one.facet, one.value)">
      {{ one.facet.replaceAll("_", " ") }} {{ one.value }} ✕
    </button>
    <FacetMenu :table="table" :query="query" :places="places" @toggle="state.toggle" />
    <div class="grow" />
    <v-menu>
      <template #activator="{ props: on }"><v-btn v-bind="on">{{ state.grouping.value === "none" ? "Not grouped" : `Grouped by ${state.grouping.value}` }}</v-btn></template>
      <v-list density="compact">
        <v-list-item v-for="by in GROUPINGS[table.kind]" :key="by" :title="by === 'none' ? 'Not grouped' : `By ${by}`" @click="state.groupBy(by)" />
      </v-list>
    </v-menu>
    <ColumnsMenu :table="table" :columns="state.columns.value" :column-set="state.columnSet.value" @show="state.showColumns" />
    <SavedViews :address="state.address.value" @open="state.open" />
  </div>
</template>

<style scoped>
.first { container-type: inline-size; }
.short { display: none; }
@container (max-width: 720px) { .long { display: none; } .short { display: inline; } }
.second { height: 38px; background: var(--paper); }
.find { width: 190px; flex: none; height: 26px; border: 1px solid var(--rule); border-radius: 4px; font: inherit; color: inherit; background: var(--surface); padding: 0 8px; }
.find::placeholder { color: var(--ink3); opacity: 1; }
.t-btn.v-btn.waiting { background: var(--look-soft); color: var(--look); border-color: transparent; }
</style>
