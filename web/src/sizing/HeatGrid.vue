<script setup lang="ts">
import { computed } from "vue";
import type { Schemas } from "../api/client";
import { quantity } from "../shared/format";

const props = defineProps<{ series: Schemas["SeriesView"]; percentile: number }>();
const DAYS = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"];
const most = computed(() => Math.max(0.0001, ...props.series.heat.flat().map((value) => value ?? 0)));
const said = (weekday: number, hour: number, value: number | null) =>
  `${DAYS[weekday]} ${String(hour).padStart(2, "0")}:00, ${value == null ? "no sample" : quantity(props.series.dimension, value * props.series.factor)}`;
const hours = Array.from({ length: 24 }, (_, i) => i);
</script>

<template>
  <figure>
    <figcaption class="cap">Hour by weekday, P{{ percentile }}</figcaption>
    <table aria-label="Percentile by weekday and hour">
      <thead>
        <tr><td /><th v-for="hour in hours" :key="hour" scope="col"><span v-if="hour % 6 === 0">{{ String(hour).padStart(2, "0") }}</span></th></tr>
      </thead>
      <tbody>
        <tr v-for="(row, weekday) in series.heat" :key="weekday">
          <th scope="row">{{ DAYS[weekday] }}</th>
          <td v-for="(value, hour) in row" :key="hour" :title="said(weekday, hour, value)">
            <i :style="{ opacity: value == null ? 0.06 : 0.1 + (0.9 * value) / most }" /><span class="sr">{{ said(weekday, hour, value) }}</span>
          </td>
        </tr>
      </tbody>
    </table>
  </figure>
</template>

<style scoped>
figure { margin: 4px 0; min-width: 0; }
table { width: 100%; border-collapse: separate; border-spacing: 1px 3px; table-layout: fixed; margin-top: 4px; }
th { font-size: 11px; font-weight: 400; color: var(--ink2); text-align: left; white-space: nowrap; overflow: visible; }
th[scope="row"], thead td { width: 32px; }
td { padding: 0; height: max(22px, 3vh); position: relative; }
i { display: block; height: 100%; background: var(--current); }
</style>
