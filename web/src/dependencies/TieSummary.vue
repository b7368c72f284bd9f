<script setup lang="ts">
import { computed } from "vue";
import type { Schemas } from "../api/client";
import { shortName, words } from "../shared/format";
import type { MatrixCell } from "./matrixLayout";

const props = defineProps<{ cells: MatrixCell[]; groups: Schemas["MoveGroup"][] }>();
const emit = defineEmits<{ choose: [id: number]; open: [key: string] }>();
const waiting = computed(() => props.cells.filter((cell) => cell.tie.state === "PROPOSED"));
const cut = computed(() => props.cells.filter((cell) => cell.cut).sort((a, b) => b.tie.weight - a.tie.weight));
const large = computed(() =>
  [...props.groups].filter((group) => group.members.length > 1).sort((a, b) => b.members.length - a.members.length),
);
</script>

<template>
  <aside class="summary scroll" aria-label="What stands out">
    <template v-if="waiting.length">
      <h2 class="cap look">To confirm: {{ waiting.length }}</h2>
      <button v-for="cell in waiting" :key="cell.tie.id" class="line" @click="emit('choose', cell.tie.id)">
        <b>{{ cell.tie.from }}</b> to <b>{{ cell.tie.to }}</b> <span class="dim">{{ cell.tie.evidence[0]?.words }}</span>
      </button>
    </template>
    <h2 class="cap">Cut by the plan: {{ cut.length }}</h2>
    <p v-if="!cut.length" class="dim">Every tie stays within one wave.</p>
    <button v-for="cell in cut" :key="cell.tie.id" class="line" @click="emit('choose', cell.tie.id)">
      <b>{{ shortName(cell.tie.from) }}</b> to <b>{{ shortName(cell.tie.to) }}</b>
      <span class="dim">{{ words(cell.tie.kind) }}<template v-if="cell.tie.kind === 'LOOSE'">, {{ cell.tie.weight }} a day</template></span>
    </button>
    <h2 class="cap">Largest move groups</h2>
    <button v-for="group in large.slice(0, 12)" :key="group.key" class="line" @click="emit('open', group.key)">
      <b>{{ group.members.length }}</b> <span class="dim">{{ group.members.map(shortName).join(", ") }}</span>
    </button>
  </aside>
</template>

<style scoped>
.summary { width: 340px; flex: none; border-left: 1px solid var(--rule); background: var(--surface); padding: 10px 16px; }
h2 { margin: 12px 0 4px; }
.line { display: block; width: 100%; text-align: left; background: none; border: 0; border-bottom: 1px solid var(--rule2); font: inherit; color: inherit; padding: 6px 0; cursor: pointer; }
.line:hover { color: var(--current); }
b { font-weight: 600; }
.dim { margin-left: 5px; }
</style>
