<script setup lang="ts">
import { useElementSize } from "@vueuse/core";
import { computed, ref } from "vue";
import type { Schemas } from "../api/client";
import { markPath, markWords } from "../frame/marks";
import { day, time } from "../shared/format";
import { HEAD, layout, type LaneBox } from "./pictureLayout";

const props = defineProps<{ picture: Schemas["Picture"]; zone: string; subject: string }>();
const emit = defineEmits<{ open: [key: string] }>();
const box = ref<HTMLElement | null>(null);
const { width } = useElementSize(box);
const drawn = computed(() => layout(props.picture.marks, props.picture.lanes, width.value - 1));
const crossing = computed(() => drawn.value.bands.filter((band) => band.crossing));

function when(lane: LaneBox): string {
  if (!lane.lane) return `${lane.databases} databases`;
  const hours = (Date.parse(lane.lane.end) - Date.parse(lane.lane.start)) / 3_600_000;
  if (tonight(lane)) return `${time(lane.lane.start, props.zone, false)} to ${time(lane.lane.end, props.zone, false)}`;
  return Date.parse(lane.lane.end) < Date.parse(props.picture.at)
    ? `was ${day(lane.lane.start, props.zone)}`
    : `${day(lane.lane.start, props.zone)}, ${Math.round(hours)} h`;
}
function tonight(lane: LaneBox): boolean {
  const at = Date.parse(props.picture.at);
  return !!lane.lane && Date.parse(lane.lane.start) - at < 24 * 3_600_000 && Date.parse(lane.lane.end) > at;
}
const tib = (bytes: number) => (bytes / 2 ** 40).toFixed(1);
const said = (mark: Schemas["Mark"]) => `${mark.database}: ${markWords(mark)}`;
</script>

<template>
  <div ref="box" class="picture scroll" tabindex="0" role="group" aria-label="Crossing picture">
    <svg :width="drawn.width" :height="drawn.height" role="img" aria-label="Each database as a mark: its wave as the row, its place in the programme as the column. The table after it says the same.">
      <rect x="0" y="0" :width="drawn.left" :height="drawn.height" fill="var(--paper)" />
      <rect :x="drawn.right" y="0" :width="drawn.width - drawn.right" :height="drawn.height" fill="var(--paper)" />
      <g v-for="band in drawn.bands" :key="band.id">
        <rect :x="band.x" y="0" :width="band.width" :height="drawn.height" :fill="band.crossing ? 'var(--water)' : 'var(--surface)'" />
        <path :d="`M${band.x} 0V${drawn.height}`" stroke="var(--rule)" />
        <text class="h" :x="band.x + band.width / 2" y="40" text-anchor="middle">{{ band.label }}</text>
      </g>
      <path :d="`M${drawn.right} 0V${drawn.height}`" stroke="var(--rule)" />
      <text class="h over" :x="(crossing[0].x + crossing[4].x + crossing[4].width) / 2" y="16" text-anchor="middle">crossing</text>
      <path :d="`M${crossing[0].x + 6} 22H${crossing[4].x + crossing[4].width - 6}`" stroke="var(--current)" />
      <text class="h" x="12" y="40">Own sites</text>
      <text class="h" :x="drawn.right + 10" y="40">Destination</text>
      <path :d="`M0 ${HEAD}H${drawn.width}`" stroke="var(--rule)" />
      <g v-for="lane in drawn.lanes" :key="lane.wave">
        <rect v-if="tonight(lane)" x="0" :y="lane.y" :width="drawn.width" :height="lane.height" fill="var(--look-soft)" opacity=".6" />
        <text x="12" :y="lane.y + 19" class="wave">{{ lane.wave }}</text>
        <text x="44" :y="lane.y + 19" class="name">{{ lane.name.length > 24 ? lane.name.slice(0, 23) + "…" : lane.name }}<title>{{ lane.name }}</title></text>
        <text x="12" :y="lane.y + 35" class="s" :class="{ soon: tonight(lane) }">{{ when(lane) }}</text>
        <text :x="drawn.right + 10" :y="lane.y + 19" class="s">{{ lane.databases ? Math.round((100 * lane.crossed) / lane.databases) + "% across" : "empty" }}</text>
        <text v-if="lane.databases" :x="drawn.right + 10" :y="lane.y + 35" class="s">{{ tib(lane.crossedBytes) }} of {{ tib(lane.bytes) }} TiB</text>
        <path :d="`M0 ${lane.y + lane.height}H${drawn.width}`" stroke="var(--rule)" />
        <g
          v-for="placed in lane.marks"
          :key="placed.mark.database"
          :transform="`translate(${placed.x} ${placed.y})`"
          class="mark"
          :class="{ subject: placed.mark.database === subject }"
          @click="emit('open', placed.mark.database)"
        >
          <rect x="-7.5" y="-7.5" width="15" height="15" fill="transparent" />
          <title>{{ said(placed.mark) }}</title>
          <path v-for="(part, i) in markPath(placed.mark)" :key="i" v-bind="part" />
        </g>
      </g>
    </svg>
    <table class="sr">
      <caption>Where each database stands</caption>
      <tbody>
        <tr v-for="mark in picture.marks" :key="mark.database">
          <th scope="row">{{ mark.database }}</th>
          <td>{{ mark.wave ?? "no wave" }}</td>
          <td>{{ markWords(mark) }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.picture { flex: 1; position: relative; min-height: 0; }
text { font-size: 12px; fill: var(--ink); }
.h { font-size: 11px; font-weight: 600; fill: var(--ink2); font-stretch: 92%; }
.h.over { fill: var(--current); }
.s { font-size: 11px; fill: var(--ink2); }
.s.soon { fill: var(--look); font-weight: 600; }
.wave { font-weight: 650; }
.name { font-size: 11.5px; font-stretch: 88%; }
.mark { cursor: pointer; }
.mark:hover rect, .mark.subject rect { stroke: var(--ink); stroke-width: 1; }
</style>
