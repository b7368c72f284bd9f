<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { useVirtualizer } from "@tanstack/vue-virtual";
import { computed, ref, watch } from "vue";
import { api, data } from "../api/client";
import StatusMark from "../frame/StatusMark.vue";
import { bytes, gib, minutes, UNKNOWN } from "../shared/format";
import type { PlaceView } from "../shared/queries";
import ActivityBars from "./ActivityBars.vue";
import type { SortColumn, TableLine } from "./rows";

const props = defineProps<{
  lines: TableLine[];
  places: Map<string, PlaceView>;
  selected: Set<string>;
  cursor?: string;
  subject: string;
  sortBy: SortColumn;
  down: boolean;
}>();
const emit = defineEmits<{ open: [key: string]; select: [key: string]; sort: [column: SortColumn] }>();

const columns: { id: SortColumn; label: string; num?: boolean; wide?: boolean }[] = [
  { id: "name", label: "Database" },
  { id: "sizeBytes", label: "Size, GiB", num: true },
  { id: "criticality", label: "Criticality" },
  { id: "permittedOutageMinutes", label: "May be down", num: true },
  { id: "owner", label: "Owner" },
  { id: "disposition", label: "Disposition" },
];
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
    overscan: 20,
  })),
);
const items = computed(() => virtual.value.getVirtualItems());
const before = computed(() => items.value[0]?.start ?? 0);
const after = computed(() => virtual.value.getTotalSize() - (items.value[items.value.length - 1]?.end ?? 0));
watch(
  () => props.cursor,
  (key) => {
    const index = props.lines.findIndex((line) => line.kind === "row" && line.row.key === key);
    if (index >= 0) virtual.value.scrollToIndex(index);
  },
);
const sortWord = (id: SortColumn) => (props.sortBy !== id ? "none" : props.down ? "descending" : "ascending");
</script>

<template>
  <div ref="box" class="scroll table-box">
    <table class="t-table" aria-label="Databases" :aria-rowcount="lines.length">
      <thead>
        <tr>
          <th class="tick"><span class="sr">Selected</span></th>
          <th v-for="column in columns" :key="column.id" :class="{ num: column.num }" :aria-sort="sortWord(column.id)">
            <button class="sort" @click="emit('sort', column.id)">
              {{ column.label }}<span aria-hidden="true">{{ sortBy === column.id ? (down ? " ↓" : " ↑") : "" }}</span>
            </button>
          </th>
          <th>CPU, 4 weeks</th>
          <th>Wave</th>
        </tr>
      </thead>
      <tbody>
        <tr v-if="before" aria-hidden="true"><td :style="{ height: before + 'px', padding: 0, border: 0 }" colspan="9" /></tr>
        <template v-for="item in items" :key="String(item.key)">
          <tr v-if="lines[item.index]?.kind === 'group'" class="group">
            <td />
            <td colspan="6">
              <b>{{ (lines[item.index] as any).key }}</b>
              <span class="dim">{{ (lines[item.index] as any).words }}</span>
            </td>
            <td colspan="2" class="dim">{{ (lines[item.index] as any).count }}, {{ bytes((lines[item.index] as any).sizeBytes) }}</td>
          </tr>
          <tr
            v-else-if="lines[item.index]"
            v-for="row in [(lines[item.index] as any).row]"
            :key="row.key"
            class="pick"
            :class="{ sel: row.key === subject || selected.has(row.key), at: row.key === cursor }"
            :aria-selected="selected.has(row.key)"
            @click="emit('open', row.key)"
          >
            <td class="tick" @click.stop>
              <input type="checkbox" :checked="selected.has(row.key)" :aria-label="`Select ${row.key}`" @change="emit('select', row.key)" />
            </td>
            <td class="name"><StatusMark v-if="places.get(row.key)" :state="places.get(row.key)!" /> {{ row.name }}</td>
            <td class="num" :title="row.sizeBytes == null ? 'No source has told its size' : `${row.sizeBytes.toLocaleString('en-GB')} bytes`" :class="{ unknown: row.sizeBytes == null }">{{ gib(row.sizeBytes) }}</td>
            <td :class="row.criticality === 'critical' ? '' : 'dim'">{{ row.criticality ?? UNKNOWN }}</td>
            <td class="num">{{ minutes(row.permittedOutageMinutes) }}</td>
            <td :class="{ unknown: !row.owner }" :title="row.owner ? undefined : 'Nobody has said who owns it'">{{ row.owner ?? UNKNOWN }}</td>
            <td class="dim">{{ row.disposition ?? UNKNOWN }}</td>
            <td><ActivityBars :days="activity.get(row.key)" /></td>
            <td class="dim">{{ places.get(row.key)?.wave ?? UNKNOWN }}</td>
          </tr>
        </template>
        <tr v-if="after > 0" aria-hidden="true"><td :style="{ height: after + 'px', padding: 0, border: 0 }" colspan="9" /></tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.table-box { flex: 1; background: var(--surface); }
.tick { width: 34px; padding-left: 14px !important; }
.tick input { accent-color: var(--current); }
.group td { background: var(--paper); }
.group b { font-weight: 600; margin-right: 8px; }
.name svg { vertical-align: -2px; margin-right: 4px; }
.sort { background: none; border: 0; font: inherit; color: inherit; cursor: pointer; padding: 0; }
tr.at td { box-shadow: inset 0 1px var(--current), inset 0 -1px var(--current); }
td, th { padding: 0 6px; }
td.dim, td:nth-child(6) { font-stretch: 90%; }
td { max-width: 190px; overflow: hidden; text-overflow: ellipsis; }
</style>
