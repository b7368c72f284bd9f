<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { useVirtualizer } from "@tanstack/vue-virtual";
import { computed, ref, watch } from "vue";
import { api, data } from "../api/client";
import StatusMark from "../frame/StatusMark.vue";
import { exact, gib, minutes, UNKNOWN } from "../shared/format";
import ActivityBars from "./ActivityBars.vue";
import { header, noun } from "./columns";
import type { EstateRow, EstateTable } from "./estate";
import type { Places, TableLine } from "./rows";

const props = defineProps<{
  table: EstateTable;
  lines: TableLine[];
  columns: string[];
  places: Places;
  selected: Set<string>;
  cursor?: string;
  subject: string;
  sortBy: string;
  down: boolean;
  allSelected: boolean;
}>();
const emit = defineEmits<{ open: [key: string]; select: [key: string]; all: []; sort: [column: string] }>();

const shown = computed(() =>
  props.columns.map((name) => {
    const column = props.table.column(name);
    return { name, type: column?.type ?? "TEXT", num: column?.numeric ?? false, label: header(name, column?.label ?? name, column?.type ?? ""), sorts: !!column };
  }),
);
const { data: glances } = useQuery({
  queryKey: ["counters", "glances"],
  queryFn: () => data(api.GET("/api/v1/counters/glances")),
});
const activity = computed(() => new Map((glances.value ?? []).map((glance) => [glance.key, glance.days])));

const box = ref<HTMLElement | null>(null);
const virtual = useVirtualizer(
  computed(() => ({
    count: props.lines.length,
    getScrollElement: () => box.value,
    estimateSize: () => 30,
    overscan: 24,
  })),
);
const items = computed(() => virtual.value.getVirtualItems());
const before = computed(() => items.value[0]?.start ?? 0);
const after = computed(() => virtual.value.getTotalSize() - (items.value[items.value.length - 1]?.end ?? 0));
const span = computed(() => shown.value.length + 2);
watch(
  () => props.cursor,
  (key) => {
    const index = props.lines.findIndex((line) => line.kind === "row" && line.row.key === key);
    if (index >= 0) virtual.value.scrollToIndex(index);
  },
);
const sortWord = (id: string) => (props.sortBy !== id ? "none" : props.down ? "descending" : "ascending");
const arrow = (id: string) => (props.sortBy === id ? (props.down ? " ↓" : " ↑") : "");

function cell(row: EstateRow, column: { name: string; type: string }): string {
  const value = row.cell(column.name);
  if (value == null) return UNKNOWN;
  if (column.type === "BYTES") return gib(Number(value));
  if (column.type === "MINUTES") return minutes(Number(value));
  return typeof value === "number" ? exact(value) : value;
}
function hint(row: EstateRow, column: { name: string; type: string }): string | undefined {
  const value = row.cell(column.name);
  const unsized = column.name === "total_size_bytes" ? row.number("unsized") : 0;
  if (value == null) return unsized ? "Of none of its databases is the size known" : "No source has told it";
  const notes = [
    row.contradicted.includes(column.name) ? "sources disagree" : "",
    row.stale.includes(column.name) ? "no source has told it lately" : "",
    unsized ? `${unsized} of its ${row.number("databases")} databases have no known size` : "",
  ].filter(Boolean);
  const whole = column.type === "BYTES" ? `${exact(Number(value))} bytes` : String(value);
  return [whole, ...notes].join("; ");
}
const tone = (row: EstateRow, column: { name: string; sorts: boolean }) => ({
  unknown: column.sorts && row.cell(column.name) == null,
  doubt: row.contradicted.includes(column.name),
  old: row.stale.includes(column.name),
});
</script>

<template>
  <div ref="box" class="scroll table-box">
    <table class="t-table" :aria-label="header('', noun(table.kind), '')" :aria-rowcount="lines.length">
      <thead>
        <tr>
          <th class="tick"><input type="checkbox" :checked="allSelected" aria-label="Select all that are shown" @change="emit('all')" /></th>
          <th :aria-sort="sortWord('name')"><button class="sort" @click="emit('sort', 'name')">{{ header("", noun(table.kind, 1), "") }}<span aria-hidden="true">{{ arrow("name") }}</span></button></th>
          <th v-for="column in shown" :key="column.name" :class="{ num: column.num }" :aria-sort="column.sorts ? sortWord(column.name) : undefined">
            <button v-if="column.sorts" class="sort" @click="emit('sort', column.name)">{{ column.label }}<span aria-hidden="true">{{ arrow(column.name) }}</span></button>
            <template v-else>{{ column.label }}</template>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-if="before" aria-hidden="true"><td :style="{ height: before + 'px', padding: 0, border: 0 }" :colspan="span" /></tr>
        <template v-for="item in items" :key="String(item.key)">
          <tr v-for="line in lines.slice(item.index, item.index + 1)" :key="line.kind"
            :class="line.kind === 'group' ? 'group' : ['pick', { sel: line.row.key === subject || selected.has(line.row.key), at: line.row.key === cursor }]"
            :aria-selected="line.kind === 'row' ? selected.has(line.row.key) : undefined"
            @click="line.kind === 'row' && emit('open', line.row.key)"
          >
            <template v-if="line.kind === 'group'">
              <td />
              <td :colspan="span - 1">
                <span class="heading"><b>{{ line.key }}</b> <span class="dim">{{ line.words }}</span><span class="grow" /><span class="dim total">{{ exact(line.count) }} {{ noun(table.kind, line.count) }}, {{ line.size }}</span></span>
              </td>
            </template>
            <template v-else>
              <td class="tick" @click.stop><input type="checkbox" :checked="selected.has(line.row.key)" :aria-label="`Select ${line.row.key}`" @change="emit('select', line.row.key)" /></td>
              <td class="name"><StatusMark v-if="places.get(line.row.key)" :state="places.get(line.row.key)!" /> {{ line.row.name }}</td>
              <td v-for="column in shown" :key="column.name" :class="[{ num: column.num, dim: !column.num }, tone(line.row, column)]" :title="column.sorts ? hint(line.row, column) : undefined">
                <ActivityBars v-if="column.name === 'activity'" :days="activity.get(line.row.key)" />
                <template v-else-if="column.name === 'wave'">{{ places.get(line.row.key)?.wave ?? UNKNOWN }}</template>
                <template v-else>{{ cell(line.row, column) }}</template>
              </td>
            </template>
          </tr>
        </template>
        <tr v-if="after > 0" aria-hidden="true"><td :style="{ height: after + 'px', padding: 0, border: 0 }" :colspan="span" /></tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.table-box { flex: 1; background: var(--surface); }
.tick { width: 34px; padding-left: 14px !important; }
.tick input { accent-color: var(--current); }
.group td { background: var(--paper); max-width: none; }
.group b { font-weight: 600; }
.heading { display: flex; gap: 8px; }
.name svg { vertical-align: -2px; margin-right: 4px; }
.sort { background: none; border: 0; font: inherit; color: inherit; cursor: pointer; padding: 0; }
tr.at td { box-shadow: inset 0 1px var(--current), inset 0 -1px var(--current); }
td, th { padding: 0 6px; }
td.num:last-child, th.num:last-child { padding-right: 16px; }
.heading .total { padding-right: 10px; }
td.dim { font-stretch: 92%; }
td { max-width: 190px; overflow: hidden; text-overflow: ellipsis; }
td.doubt { color: var(--look); text-decoration: underline dotted; text-underline-offset: 3px; }
td.old:not(.doubt) { color: var(--ink3); font-style: italic; }
</style>
