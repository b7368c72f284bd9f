import { LineChart } from "echarts/charts";
import { GridComponent, MarkLineComponent, TooltipComponent } from "echarts/components";
import { use } from "echarts/core";
import { CanvasRenderer } from "echarts/renderers";
import { computed } from "vue";
import { useTheme } from "vuetify";
import { quantity } from "../shared/format";

use([LineChart, GridComponent, MarkLineComponent, TooltipComponent, CanvasRenderer]);

export interface TierLimit {
  name: string;
  value: number;
  chosen: boolean;
}

const FONT = '"Archivo Variable", sans-serif';

/** The one palette and axis style of all charts, after the theme in use. */
export function useChartLook() {
  const theme = useTheme();
  const look = computed(() => {
    const night = theme.global.name.value === "night";
    return night
      ? { ink: "#E4ECEC", ink2: "#9DB0B5", rule: "#2A3C43", current: "#5FB6CF", proved: "#6CBF95", surface: "#16242A" }
      : { ink: "#16252C", ink2: "#51636B", rule: "#D9DED9", current: "#0D5C75", proved: "#2A704F", surface: "#FFFFFF" };
  });
  const text = computed(() => ({ fontFamily: FONT, fontSize: 11, color: look.value.ink2 }));
  const axis = computed(() => ({
    axisLine: { lineStyle: { color: look.value.rule } },
    axisTick: { show: false },
    axisLabel: text.value,
    splitLine: { show: false },
  }));
  const tooltip = computed(() => ({
    trigger: "axis" as const,
    backgroundColor: look.value.surface,
    borderColor: look.value.rule,
    textStyle: { ...text.value, color: look.value.ink, fontSize: 12 },
  }));
  return { look, text, axis, tooltip };
}

/** Horizontal lines at what tiers give; those far above what is drawn are left out. */
export function limitLines(
  limits: TierLimit[],
  dimension: string,
  most: number,
  look: { proved: string; ink2: string },
) {
  return limits
    .filter((limit) => limit.value <= most)
    .map((limit) => ({
      yAxis: limit.value,
      lineStyle: { color: limit.chosen ? look.proved : look.ink2, type: "solid" as const, width: limit.chosen ? 1.5 : 1 },
      label: {
        formatter: `${limit.name} gives ${quantity(dimension, limit.value)}`,
        color: limit.chosen ? look.proved : look.ink2,
        position: "insideStartTop" as const,
        fontFamily: FONT,
        fontSize: 11,
        fontWeight: 600,
      },
    }));
}

/** A quantity on an axis: no more digits than tell its ticks apart. */
export function axisQuantity(dimension: string, value: number): string {
  return dimension === "CPU" ? String(Math.round(value * 100) / 100) : quantity(dimension, value);
}

/** The top of the value axis: room for the demand and for the fit's limit where that is near. */
export function axisTop(values: number[], needed: number | null | undefined, limits: TierLimit[]): number {
  const peak = Math.max(0.0001, needed ?? 0, ...values);
  const chosen = limits.find((limit) => limit.chosen)?.value ?? 0;
  return Math.max(peak, chosen <= 1.6 * peak ? chosen : 0) * 1.08;
}
