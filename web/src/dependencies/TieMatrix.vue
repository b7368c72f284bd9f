<script setup lang="ts">
import { useElementSize } from "@vueuse/core";
import { computed, ref } from "vue";
import { shortName, words } from "../shared/format";
import type { Matrix, MatrixCell } from "./matrixLayout";

const props = defineProps<{ matrix: Matrix; subject: string; chosen?: number }>();
const emit = defineEmits<{ choose: [id: number]; open: [key: string] }>();
const box = ref<HTMLElement | null>(null);
const { width, height } = useElementSize(box);
const LEFT = 64;
const TOP = 26;
const count = computed(() => Math.max(1, props.matrix.order.length));
const step = computed(() => Math.max(4.4, Math.min(22, Math.min(width.value - LEFT - 20, height.value - TOP - 48) / count.value)));
const size = computed(() => step.value * count.value);
const over = ref<{ row: number; column: number }>();
const at = computed(() => {
  const index = props.matrix.order.indexOf(props.subject);
  return over.value ?? (index < 0 ? undefined : { row: index, column: index });
});
const colour = (cell: MatrixCell) => (cell.cut ? "var(--look-mark)" : cell.tie.state === "PROPOSED" ? "var(--ink3)" : "var(--current)");
const said = (cell: MatrixCell) =>
  `${cell.tie.from} to ${cell.tie.to}: ${words(cell.tie.kind)}${cell.tie.state === "PROPOSED" ? ", to confirm" : ""}${cell.cut ? ", cut by the plan" : ""}`;

function move(event: MouseEvent) {
  const bounds = (event.currentTarget as SVGElement).getBoundingClientRect();
  const column = Math.floor((event.clientX - bounds.left - LEFT) / step.value);
  const row = Math.floor((event.clientY - bounds.top - TOP) / step.value);
  const inside = row >= 0 && column >= 0 && row < count.value && column < count.value;
  over.value = inside ? { row, column } : undefined;
}
const roomy = (band: { from: number; to: number }) => (band.to - band.from) * step.value > 26;
</script>

<template>
  <div ref="box" class="matrix scroll" tabindex="0" role="group" aria-label="Tie matrix">
    <svg :width="LEFT + size + 16" :height="TOP + size + 12" role="img" aria-label="Ties as a matrix; the table after it says the same" @mousemove="move" @mouseleave="over = undefined">
      <g v-for="band in matrix.bands" :key="band.wave">
        <rect :x="LEFT + band.from * step" :y="TOP + band.from * step" :width="(band.to - band.from) * step" :height="(band.to - band.from) * step" fill="var(--water)" />
        <path :d="`M${LEFT} ${TOP + band.from * step}h${size}M${LEFT + band.from * step} ${TOP}v${size}`" stroke="var(--rule)" fill="none" />
        <template v-if="roomy(band)">
          <text :x="LEFT + band.from * step + 3" :y="TOP - 8" class="wave">{{ band.wave === "no wave" ? "none" : band.wave }}</text>
          <text :x="LEFT - 8" :y="TOP + band.from * step + 12" text-anchor="end" class="wave">{{ band.wave }}</text>
          <text :x="LEFT - 8" :y="TOP + band.from * step + 25" text-anchor="end" class="s">{{ band.to - band.from }} db</text>
        </template>
      </g>
      <path :d="`M${LEFT} ${TOP + size}h${size}M${LEFT + size} ${TOP}v${size}`" stroke="var(--rule)" fill="none" />
      <rect v-for="group in matrix.groups" :key="group.key" :x="LEFT + group.from * step" :y="TOP + group.from * step" :width="(group.to - group.from) * step" :height="(group.to - group.from) * step" fill="none" stroke="var(--ink2)" />
      <path v-if="at" :d="`M${LEFT} ${TOP + (at.row + 0.5) * step}h${size}M${LEFT + (at.column + 0.5) * step} ${TOP}v${size}`" stroke="var(--current)" opacity=".45" fill="none" />
      <g v-for="cell in matrix.cells" :key="cell.tie.id" :transform="`translate(${LEFT + (cell.column + 0.5) * step} ${TOP + (cell.row + 0.5) * step})`" class="cell" :class="{ chosen: cell.tie.id === chosen }" @click="emit('choose', cell.tie.id)">
        <title>{{ said(cell) }}</title>
        <rect x="-6" y="-6" width="12" height="12" fill="transparent" class="hit" />
        <rect v-if="cell.tie.kind === 'BOUND'" x="-3" y="-3" width="6" height="6" :fill="cell.tie.state === 'PROPOSED' ? 'none' : colour(cell)" :stroke="colour(cell)" />
        <path v-else-if="cell.tie.kind === 'ORDERED'" d="M-3.2 -3.2L3.6 0L-3.2 3.2Z" :fill="colour(cell)" />
        <circle v-else r="2.8" fill="var(--surface)" :stroke="colour(cell)" :stroke-width="1 + Math.min(1.4, cell.tie.weight * 0.35)" />
      </g>
    </svg>
    <div class="legend dim">
      <span><svg width="12" height="12" viewBox="-6 -6 12 12"><rect x="-3" y="-3" width="6" height="6" fill="var(--current)" /></svg> bound</span>
      <span><svg width="12" height="12" viewBox="-6 -6 12 12"><path d="M-3.2 -3.2L3.6 0L-3.2 3.2Z" fill="var(--current)" /></svg> ordered</span>
      <span><svg width="12" height="12" viewBox="-6 -6 12 12"><circle r="2.8" fill="var(--surface)" stroke="var(--current)" stroke-width="1.4" /></svg> loose</span>
      <span><svg width="12" height="12" viewBox="-6 -6 12 12"><circle r="3" fill="var(--look-mark)" /></svg> cut: in two waves</span>
      <span><svg width="12" height="12" viewBox="-6 -6 12 12"><rect x="-4" y="-4" width="8" height="8" fill="none" stroke="var(--ink2)" /></svg> move group</span>
      <span v-if="at" class="names"><b>{{ matrix.order[at.row] }}</b><template v-if="at.row !== at.column"> to <b>{{ matrix.order[at.column] }}</b></template></span>
    </div>
    <table class="sr">
      <caption>Ties</caption>
      <tbody>
        <tr v-for="cell in matrix.cells" :key="cell.tie.id">
          <td><button @click="emit('choose', cell.tie.id)">{{ said(cell) }}</button></td>
          <td><button @click="emit('open', cell.tie.from)">{{ shortName(cell.tie.from) }}</button></td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.matrix { flex: 1; min-width: 0; background: var(--surface); position: relative; padding: 4px 0 0 12px; display: flex; flex-direction: column; }
svg { flex: none; }
text { font-size: 12px; fill: var(--ink); }
.wave { font-weight: 650; font-size: 11.5px; }
.s { font-size: 10.5px; fill: var(--ink2); }
.cell { cursor: pointer; }
.cell:hover .hit, .cell.chosen .hit { stroke: var(--ink); }
.legend { display: flex; gap: 16px; padding: 2px 0 8px 64px; font-size: 12px; align-items: center; flex-wrap: wrap; }
.legend span { display: inline-flex; gap: 5px; align-items: center; }
.names { margin-left: auto; padding-right: 16px; color: var(--ink); }
</style>
