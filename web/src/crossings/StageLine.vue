<script setup lang="ts">
import { computed } from "vue";
import { words } from "../shared/format";

const props = defineProps<{ stage: string; condition: string }>();
const STAGES = ["SETTING_UP", "COPYING", "FOLLOWING", "HELD", "SWITCHING", "PROVING", "DONE"];
const at = computed(() => STAGES.indexOf(props.stage));
</script>

<template>
  <ol class="stages" :class="condition.toLowerCase()" aria-label="Stages">
    <li v-for="(one, i) in STAGES" :key="one" :class="{ past: i < at, here: i === at }" :aria-current="i === at ? 'step' : undefined">
      <i /><span>{{ words(one) }}</span>
    </li>
  </ol>
</template>

<style scoped>
.stages { list-style: none; padding: 0; display: grid; grid-template-columns: repeat(7, 1fr); margin-bottom: 6px; }
li { display: grid; justify-items: center; gap: 3px; position: relative; }
li::before { content: ""; position: absolute; top: 5px; left: -50%; width: 100%; height: 2px; background: var(--rule); }
li:first-child::before { display: none; }
i { width: 12px; height: 12px; border-radius: 50%; border: 2px solid var(--ink3); background: var(--surface); z-index: 1; }
.past i, .here i { border-color: var(--current); background: var(--current); }
.past::before, .here::before { background: var(--current) !important; }
.stalled .here i, .stopped .here i, .reverted .here i { border-color: var(--act); background: var(--act); border-radius: 1px; transform: rotate(45deg) scale(0.85); }
span { font-size: 10.5px; font-stretch: 85%; color: var(--ink2); white-space: nowrap; }
.here span { color: var(--ink); font-weight: 650; }
</style>
