<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { useEventListener } from "@vueuse/core";
import { computed, ref, watch } from "vue";
import { api, data, type Schemas } from "../api/client";
import { useDossier } from "../frame/useDossier";
import { useViewKeys } from "../frame/useKeys";
import { exact } from "../shared/format";
import { attempt } from "../shared/notices";
import { useEstate, usePlaces } from "../shared/queries";
import { mayWork } from "../team/session";
import AcceptedSheet from "./AcceptedSheet.vue";
import { DRAWN } from "./columns";
import DifferenceSheet from "./DifferenceSheet.vue";
import EditSheet from "./EditSheet.vue";
import EmptyInventory from "./EmptyInventory.vue";
import InventoryBar from "./InventoryBar.vue";
import MappingSheet from "./MappingSheet.vue";
import ObjectTable from "./ObjectTable.vue";
import QuestionsSheet from "./QuestionsSheet.vue";
import ReadSheet from "./ReadSheet.vue";
import { asTable, filtered, grouped, sizeTogether, sorted } from "./rows";
import { useTableState } from "./useTableState";

const state = useTableState();
const dossier = useDossier();
const { data: table, isPending, isError } = useEstate(state.kind);
const { byKey } = usePlaces();
const { data: readings } = useQuery({
  queryKey: ["inventory", "readings"],
  queryFn: () => data(api.GET("/api/v1/inventory/readings")),
});
const reading = ref<number>();
const file = ref<Schemas["FileToMap"]>();
const sheet = ref<"read" | "questions" | "accepted">();
const edit = ref<{ attribute?: string; text?: string }>();
const selected = ref(new Set<string>());
const cursor = ref(0);
watch(state.kind, () => (selected.value = new Set()));

const places = computed(() => (state.kind.value === "DATABASE" ? byKey.value : new Map()));
const query = computed(() => ({ filters: state.filters.value, lens: state.lens.value, text: state.find.value }));
const shown = computed(() => filtered(table.value?.rows ?? [], query.value, places.value));
const ordered = computed(() => (table.value ? sorted(shown.value, table.value, state.sortBy.value, state.down.value) : []));
const lines = computed(() => grouped(ordered.value, state.grouping.value, places.value));
const rows = computed(() => lines.value.flatMap((line) => (line.kind === "row" ? [line.row] : [])));
const picked = computed(() => (selected.value.size ? rows.value.filter((row) => selected.value.has(row.key)) : []));
const shownSize = computed(() => sizeTogether(shown.value));
const facts = computed(() => state.columns.value.filter((column) => !DRAWN.includes(column)));

function select(key: string) {
  const next = new Set(selected.value);
  if (!next.delete(key)) next.add(key);
  selected.value = next;
}
const selectAll = () =>
  (selected.value = picked.value.length === rows.value.length ? new Set() : new Set(rows.value.map((row) => row.key)));
useViewKeys((key) => {
  if (key === "j") cursor.value = Math.min(cursor.value + 1, rows.value.length - 1);
  if (key === "k") cursor.value = Math.max(cursor.value - 1, 0);
  const at = rows.value[cursor.value];
  if (at && key === "Enter") void dossier.open(at.key, state.kind.value);
  if (at && key === "x") select(at.key);
});
function open(key: string) {
  cursor.value = rows.value.findIndex((row) => row.key === key);
  void dossier.open(key, state.kind.value);
}
const copy = () =>
  attempt(
    () => navigator.clipboard.writeText(asTable(picked.value, state.kind.value, facts.value)),
    `${picked.value.length} rows copied; paste them into a spreadsheet`,
  );
useEventListener(document, "paste", (event: ClipboardEvent) => {
  const text = event.clipboardData?.getData("text/plain") ?? "";
  const typing = event.target instanceof HTMLElement && event.target.closest("input, textarea, [role=dialog]");
  if (!typing && mayWork.value && text.includes("\t")) edit.value = { text };
});
</script>

<template>
  <div class="view">
    <InventoryBar
      v-if="table"
      :state="state"
      :table="table"
      :places="places"
      :query="query"
      :waiting="readings?.length ?? 0"
      @accept="reading = readings?.[0]?.id"
      @read="sheet = 'read'"
      @ask="sheet = 'questions'"
      @accepted="sheet = 'accepted'"
      @paste="edit = { text: '' }"
    />
    <div class="work">
      <div v-if="isPending" class="empty">Reading the inventory…</div>
      <div v-else-if="isError && !table" class="empty"><h2>The inventory could not be read</h2><p>It is shown again as soon as the server answers.</p></div>
      <EmptyInventory v-else-if="!table?.rows.length" :kind="state.kind.value" @read="sheet = 'read'" />
      <div v-else-if="!rows.length" class="empty">
        <h2>Nothing matches</h2>
        <div class="row"><v-btn @click="state.clear()">Show all {{ table.rows.length }}</v-btn></div>
      </div>
      <ObjectTable
        v-else
        :table="table"
        :lines="lines"
        :columns="state.columns.value"
        :places="places"
        :selected="selected"
        :cursor="rows[cursor]?.key"
        :subject="dossier.kind.value === state.kind.value ? dossier.subject.value : ''"
        :sort-by="state.sortBy.value"
        :down="state.down.value"
        :all-selected="picked.length > 0 && picked.length === rows.length"
        @open="open"
        @select="select"
        @all="selectAll"
        @sort="state.sort"
      />
    </div>
    <div class="foot" role="status">
      <template v-if="picked.length">
        <b>{{ exact(picked.length) }} selected</b> <span>{{ sizeTogether(picked) }}</span>
        <template v-if="mayWork">
          <button v-if="state.kind.value !== 'HOST' && state.kind.value !== 'INSTANCE'" @click="edit = { attribute: 'owner' }">Set owner…</button>
          <button v-if="state.kind.value === 'DATABASE'" @click="edit = { attribute: 'disposition' }">Set disposition…</button>
          <button @click="edit = {}">Set another…</button>
        </template>
        <button @click="copy">Copy as table</button>
        <button @click="selected = new Set()">Select none</button>
      </template>
      <span class="grow" />
      <span class="total">{{ exact(rows.length) }} of {{ exact(table?.rows.length ?? 0) }} shown, {{ shownSize }}</span>
    </div>
    <ReadSheet v-if="sheet === 'read'" @close="sheet = undefined" @read="(id) => { sheet = undefined; reading = id; }" @map="(one) => { sheet = undefined; file = one; }" />
    <QuestionsSheet v-if="sheet === 'questions'" @close="sheet = undefined" />
    <AcceptedSheet v-if="sheet === 'accepted'" @close="sheet = undefined" />
    <MappingSheet v-if="file" :file="file" @close="file = undefined" @read="(id) => { file = undefined; reading = id; }" />
    <DifferenceSheet v-if="reading" :id="reading" @close="reading = undefined" />
    <EditSheet v-if="edit && table" :table="table" :keys="picked.map((row) => row.key)" :attribute="edit.attribute" :text="edit.text" @close="edit = undefined" />
  </div>
</template>

<style scoped>
.foot { height: 36px; flex: none; background: #16252c; color: #f5f6f2; display: flex; align-items: center; gap: 16px; padding: 0 16px; white-space: nowrap; overflow: hidden; }
.total { overflow: hidden; text-overflow: ellipsis; }
.foot button { flex: none; background: none; border: 0; color: inherit; font: inherit; cursor: pointer; text-decoration: underline; text-underline-offset: 3px; }
.v-theme--night .foot { background: #213239; color: #e4ecec; }
</style>
