<script setup lang="ts">
import ELK, { type ElkNode } from "elkjs/lib/elk.bundled.js";
import { ref, watch } from "vue";
import type { Schemas } from "../api/client";
import { shortName } from "../shared/format";
import { neighbourhood } from "./neighbourhood";

type Tie = Schemas["TieView"];
const props = defineProps<{ ties: Tie[]; from: string; to: string }>();
const emit = defineEmits<{ open: [key: string] }>();
const WIDTH = 84;
const HEIGHT = 22;
const elk = new ELK();
interface Drawn {
  width: number;
  height: number;
  nodes: { key: string; x: number; y: number }[];
  edges: { tie: Tie; path: string }[];
}
const drawn = ref<Drawn>();
let run = 0;

watch(
  () => [props.ties, props.from, props.to] as const,
  async () => {
    const mine = ++run;
    const near = neighbourhood(props.ties, [props.from, props.to], 2, 16);
    const graph: ElkNode = await elk.layout<ElkNode>({
      id: "near",
      layoutOptions: { "elk.algorithm": "layered", "elk.direction": "DOWN", "elk.spacing.nodeNode": "12", "elk.layered.spacing.nodeNodeBetweenLayers": "26" },
      children: near.keys.map((id) => ({ id, width: WIDTH, height: HEIGHT })),
      edges: near.ties.map((tie) => ({ id: String(tie.id), sources: [tie.from], targets: [tie.to] })),
    });
    if (mine !== run) return;
    const place = new Map((graph.children ?? []).map((node) => [node.id, { x: node.x ?? 0, y: node.y ?? 0 }]));
    const middle = (key: string) => `${(place.get(key)?.x ?? 0) + WIDTH / 2} ${(place.get(key)?.y ?? 0) + HEIGHT / 2}`;
    drawn.value = {
      width: graph.width ?? 100,
      height: graph.height ?? 100,
      nodes: near.keys.map((key) => ({ key, ...place.get(key)! })),
      edges: near.ties.map((tie) => ({ tie, path: `M${middle(tie.from)}L${middle(tie.to)}` })),
    };
  },
  { immediate: true },
);
</script>

<template>
  <div class="near">
    <svg v-if="drawn" :viewBox="`-4 -4 ${drawn.width + 8} ${drawn.height + 8}`" role="img" aria-label="What is tied to both, two steps deep">
      <path v-for="edge in drawn.edges" :key="edge.tie.id" :d="edge.path" stroke="var(--current)" fill="none" :stroke-width="edge.tie.kind === 'BOUND' ? 2.4 : 1.2" :stroke-dasharray="edge.tie.kind === 'LOOSE' ? '3 3' : undefined" />
      <g v-for="node in drawn.nodes" :key="node.key" :transform="`translate(${node.x} ${node.y})`" class="node" @click="emit('open', node.key)">
        <title>{{ node.key }}</title>
        <rect :width="WIDTH" :height="HEIGHT" rx="3" :class="{ own: node.key === from || node.key === to }" />
        <text :x="WIDTH / 2" y="15" text-anchor="middle">{{ shortName(node.key).slice(0, 14) }}</text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.near { background: var(--paper); border: 1px solid var(--rule); border-radius: 4px; margin-top: 10px; padding: 6px; height: 250px; display: grid; place-items: center; }
svg { max-width: 100%; max-height: 236px; }
rect { fill: var(--surface); stroke: var(--rule); }
rect.own { fill: var(--current-soft); stroke: var(--current); }
text { font-size: 11px; font-stretch: 88%; fill: var(--ink); }
.node { cursor: pointer; }
</style>
