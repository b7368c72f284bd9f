<script setup lang="ts">
import { computed } from "vue";
import VChart from "vue-echarts";
import type { Schemas } from "../api/client";
import { day, quantity, time } from "../shared/format";
import { axisQuantity, axisTop, limitLines, useChartLook, type TierLimit } from "./chart";

const props = defineProps<{
  series: Schemas["SeriesView"];
  demand: Schemas["DimensionView"];
  limits: TierLimit[];
  zone: string;
}>();
const { look, axis, text, tooltip } = useChartLook();
const points = computed(() =>
  props.series.values.map((value, i) => [
    (props.series.startSeconds + i * props.series.stepSeconds) * 1000,
    value == null ? null : value * props.series.factor,
  ]),
);
const option = computed(() => {
  const values = points.value.map((point) => point[1] ?? 0);
  const top = axisTop(values, props.demand.needed, props.limits);
  const dimension = props.series.dimension;
  return {
    animation: false,
    grid: { left: 56, right: 12, top: 10, bottom: 24 },
    tooltip: {
      ...tooltip.value,
      formatter: (items: { value: [number, number | null] }[]) =>
        `${time(new Date(items[0].value[0]), props.zone)}<br><b>${quantity(dimension, items[0].value[1])}</b>`,
    },
    xAxis: {
      type: "time",
      ...axis.value,
      axisLabel: { ...text.value, hideOverlap: true, formatter: (value: number) => day(new Date(value), props.zone) },
    },
    yAxis: {
      type: "value",
      min: 0,
      max: top,
      ...axis.value,
      axisLabel: { ...text.value, formatter: (value: number) => (value === top ? "" : axisQuantity(dimension, value)) },
      splitLine: { show: true, lineStyle: { color: look.value.rule, opacity: 0.5 } },
    },
    series: [
      {
        type: "line",
        data: points.value,
        showSymbol: false,
        connectNulls: false,
        sampling: "max",
        lineStyle: { width: 1, color: look.value.current },
        areaStyle: { color: look.value.current, opacity: 0.16 },
        markLine: {
          symbol: "none",
          silent: true,
          data: [
            ...limitLines(props.limits, dimension, top, look.value),
            ...(props.demand.needed == null
              ? []
              : [
                  {
                    yAxis: props.demand.needed,
                    lineStyle: { color: look.value.ink, type: "dashed", width: 1.3 },
                    label: {
                      formatter: `needs ${quantity(dimension, props.demand.needed)}`,
                      color: look.value.ink,
                      position: "insideEndTop",
                      fontFamily: text.value.fontFamily,
                      fontSize: 11,
                      fontWeight: 600,
                      backgroundColor: look.value.surface,
                      padding: [1, 4],
                    },
                  },
                ]),
          ],
        },
      },
    ],
  };
});
const said = computed(
  () => `${props.series.label} over time; needed ${quantity(props.series.dimension, props.demand.needed)}: ${props.demand.reason}`,
);
</script>

<template>
  <figure>
    <figcaption class="cap">{{ series.label }}, {{ series.dimension === "CPU" ? "reference cores used" : "over time" }}; {{ demand.reason }}</figcaption>
    <VChart :option="option" autoresize class="chart" role="img" :aria-label="said" />
  </figure>
</template>

<style scoped>
figure { margin: 4px 0; }
.chart { height: max(216px, 34vh); width: 100%; }
</style>
