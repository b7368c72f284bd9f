<script setup lang="ts">
import { computed } from "vue";
import VChart from "vue-echarts";
import type { Schemas } from "../api/client";
import { quantity } from "../shared/format";
import { axisQuantity, axisTop, limitLines, useChartLook, type TierLimit } from "./chart";
import { shareAbove } from "./shareAbove";

const props = defineProps<{ series: Schemas["SeriesView"]; percentile: number; limits: TierLimit[] }>();
const { look, axis, text, tooltip } = useChartLook();
const curve = computed(() => props.series.curve.map((value) => value * props.series.factor));
const option = computed(() => {
  const top = axisTop(curve.value, null, props.limits);
  const dimension = props.series.dimension;
  const at = 100 - props.percentile;
  const index = Math.round((at / 100) * (curve.value.length - 1));
  return {
    animation: false,
    grid: { left: 56, right: 10, top: 8, bottom: 22 },
    tooltip: {
      ...tooltip.value,
      formatter: (items: { value: [number, number] }[]) =>
        `${items[0].value[0].toFixed(1)}% of the time at or above<br><b>${quantity(dimension, items[0].value[1])}</b>`,
    },
    xAxis: { type: "value", min: 0, max: 100, ...axis.value, axisLabel: { ...text.value, formatter: "{value}%" } },
    yAxis: {
      type: "value",
      min: 0,
      max: top,
      ...axis.value,
      axisLabel: { ...text.value, formatter: (value: number) => (value === top ? "" : axisQuantity(dimension, value)) },
    },
    series: [
      {
        type: "line",
        data: curve.value.map((value, i) => [(100 * i) / (curve.value.length - 1), value]),
        showSymbol: false,
        lineStyle: { width: 1.5, color: look.value.current },
        areaStyle: { color: look.value.current, opacity: 0.16 },
        markLine: {
          symbol: "none",
          silent: true,
          data: [
            ...limitLines(props.limits, dimension, top, look.value),
            {
              xAxis: at,
              lineStyle: { color: look.value.ink, type: "dashed" },
              label: {
                formatter: `P${props.percentile} = ${quantity(dimension, curve.value[index])}`,
                color: look.value.ink,
                position: at < 30 ? "insideEndBottom" : "insideEndTop",
                fontFamily: text.value.fontFamily,
                fontSize: 11,
                rotate: 0,
                offset: at < 30 ? [58, 4] : [-58, 4],
              },
            },
          ],
        },
      },
    ],
  };
});
const short = computed(() => {
  const limit = props.limits.find((one) => !one.chosen && shareAbove(curve.value, one.value) > 0);
  return limit ? `Above what ${limit.name} gives ${(100 * shareAbove(curve.value, limit.value)).toFixed(1)}% of the time` : "";
});
</script>

<template>
  <figure>
    <figcaption class="cap">Duration: share of time at or above</figcaption>
    <VChart :option="option" autoresize class="chart" role="img" aria-label="Values sorted, share of time across" />
    <p class="dim">{{ short }}</p>
  </figure>
</template>

<style scoped>
figure { margin: 4px 0; min-width: 0; }
.chart { height: max(190px, 26vh); width: 100%; }
</style>
