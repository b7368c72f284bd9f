<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { computed, ref } from "vue";
import { api, data } from "../api/client";
import { useDossier } from "../frame/useDossier";
import { useViewKeys } from "../frame/useKeys";
import { bytes } from "../shared/format";
import { attempt } from "../shared/notices";
import { useDatabases, usePlaces } from "../shared/queries";
import { mayWork } from "../team/session";
import DatabaseTable from "./DatabaseTable.vue";
import DifferenceSheet from "./DifferenceSheet.vue";
import FacetMenu from "./FacetMenu.vue";
import ReadSheet from "./ReadSheet.vue";
import { asTable, FACETS, filtered, grouped, sorted, totalBytes, type Grouping } from "./rows";
import { useTableState } from "./useTableState";

const { data: all, isPending, isError } = useDatabases();
const { byKey } = usePlaces();
const { data: readings } = useQuery({
  queryKey: ["inventory", "readings"],
  queryFn: () => data(api.GET("/api/v1/inventory/readings")),
});
const state = useTableState();
const dossier = useDossier();
const reading = ref<number>();
const reads = ref(false);
const selected = ref(new Set<string>());
const cursor = ref(0);

const shown = computed(() => filtered(all.value ?? [], state.filters.value, state.gapsOnly.value));
const ordered = computed(() => sorted(shown.value, state.sortBy.value, state.down.value));
const lines = computed(() => grouped(ordered.value, state.grouping.value, byKey.value));
const rows = computed(() => lines.value.flatMap((line) => (line.kind === "row" ? [line.row] : [])));
const gaps = computed(() => (all.value ?? []).filter((row) => row.unknown.length).length);
const picked = computed(() => rows.value.filter((row) => selected.value.has(row.key)));
const groupings: { title: string; value: Grouping }[] = [
  { title: "instance", value: "instance" },
  { title: "application", value: "application" },
  { title: "wave", value: "wave" },
  { title: "nothing", value: "none" },
];

function select(key: string) {
  const next = new Set(selected.value);
  if (!next.delete(key)) next.add(key);
  selected.value = next;
}
useViewKeys((key) => {
  if (key === "j") cursor.value = Math.min(cursor.value + 1, rows.value.length - 1);
  if (key === "k") cursor.value = Math.max(cursor.value - 1, 0);
  const at = rows.value[cursor.value];
  if (at && key === "Enter") void dossier.open(at.key);
  if (at && key === "x") select(at.key);
});
function open(key: string) {
  cursor.value = rows.value.findIndex((row) => row.key === key);
  void dossier.open(key);
}
const copy = () =>
  attempt(() => navigator.clipboard.writeText(asTable(picked.value)), `${picked.value.length} rows copied`);
</script>

<template>
  <div class="view">
    <div class="bar">
      <h1>Inventory</h1>
      <template v-for="facet in FACETS" :key="facet">
        <button v-for="value in state.filters.value[facet]" :key="value" class="chip on" :title="`Remove ${facet} ${value}`" @click="state.toggle(facet, value)">
          {{ facet }} {{ value }} ✕
        </button>
      </template>
      <FacetMenu :rows="all ?? []" :filters="state.filters.value" @toggle="state.toggle" />
      <div class="grow" />
      <span class="dim">grouped by</span>
      <v-menu>
        <template #activator="{ props }">
          <v-btn v-bind="props">{{ groupings.find((g) => g.value === state.grouping.value)?.title }}</v-btn>
        </template>
        <v-list density="compact">
          <v-list-item v-for="g in groupings" :key="g.value" :title="g.title" @click="state.groupBy(g.value)" />
        </v-list>
      </v-menu>
      <v-btn :aria-pressed="state.gapsOnly.value" :class="{ pressed: state.gapsOnly.value }" @click="state.showGaps(!state.gapsOnly.value)">Gaps {{ gaps }}</v-btn>
      <v-btn v-if="readings?.length" class="waiting" @click="reading = readings[0].id">{{ readings.length }} to accept</v-btn>
      <v-btn v-if="mayWork" class="go" @click="reads = true">Read a file or a server</v-btn>
    </div>
    <div class="work">
      <div v-if="isPending" class="empty">Reading the inventory…</div>
      <div v-else-if="isError" class="empty"><h2>The inventory could not be read</h2><p>It is shown again as soon as the server answers.</p></div>
      <div v-else-if="!all?.length" class="empty">
        <h2>Nothing in the inventory yet</h2>
        <p>Read a spreadsheet of your servers and databases, or a live PostgreSQL server. You see what it would change before anything is stored.</p>
        <div class="row"><v-btn v-if="mayWork" class="go" @click="reads = true">Read an inventory</v-btn></div>
        <p style="margin-top: 12px">To look around first, start <span class="mono">./transitum demo</span>.</p>
      </div>
      <div v-else-if="!rows.length" class="empty">
        <h2>No database matches</h2>
        <div class="row"><v-btn @click="state.clear()">Show all {{ all.length }}</v-btn></div>
      </div>
      <DatabaseTable
        v-else
        :lines="lines"
        :places="byKey"
        :selected="selected"
        :cursor="rows[cursor]?.key"
        :subject="dossier.subject.value"
        :sort-by="state.sortBy.value"
        :down="state.down.value"
        @open="open"
        @select="select"
        @sort="state.sort"
      />
    </div>
    <div class="foot" role="status">
      <template v-if="picked.length">
        <b>{{ picked.length }} selected</b> <span>{{ bytes(totalBytes(picked)) }}</span>
        <button @click="copy">Copy as table</button>
        <button @click="selected = new Set()">Select none</button>
      </template>
      <span class="grow" />
      <span>{{ rows.length }} of {{ all?.length ?? 0 }} shown, {{ bytes(totalBytes(rows)) }}</span>
    </div>
    <ReadSheet v-if="reads" @close="reads = false" @read="(id) => { reads = false; reading = id; }" />
    <DifferenceSheet v-if="reading" :id="reading" @close="reading = undefined" />
  </div>
</template>

<style scoped>
.foot { height: 36px; flex: none; background: #16252c; color: #f5f6f2; display: flex; align-items: center; gap: 16px; padding: 0 16px; }
.foot button { background: none; border: 0; color: inherit; font: inherit; cursor: pointer; text-decoration: underline; text-underline-offset: 3px; }
.v-theme--night .foot { background: #213239; color: #e4ecec; }
.t-btn.v-btn.pressed { background: var(--current-soft); color: var(--current); border-color: var(--current); }
.t-btn.v-btn.waiting { background: var(--look-soft); color: var(--look); border-color: transparent; }
</style>
