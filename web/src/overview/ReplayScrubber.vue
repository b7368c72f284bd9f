<script setup lang="ts">
import { computed } from "vue";
import type { Schemas } from "../api/client";
import { day } from "../shared/format";

const props = defineProps<{ activity: Schemas["DayCount"][]; zone: string }>();
const at = defineModel<string | undefined>("at");
const DAY = 86_400_000;
const first = computed(() => (props.activity.length ? Date.parse(props.activity[0].onDay) : Date.now()));
const days = computed(() => Math.max(1, Math.floor((Date.now() - first.value) / DAY) + 1));
const counts = computed(() => {
  const of = new Map(props.activity.map((entry) => [Date.parse(entry.onDay), entry.entries]));
  return Array.from({ length: days.value }, (_, i) => of.get(first.value + i * DAY) ?? 0);
});
const most = computed(() => Math.max(1, ...counts.value));
const position = computed(() => (at.value ? Math.min(days.value, (Date.parse(at.value) - first.value) / DAY) : days.value));

function move(event: Event) {
  const value = Number((event.target as HTMLInputElement).value);
  at.value = value >= days.value ? undefined : new Date(first.value + value * DAY - 1000).toISOString();
}
const bar = (count: number) => (count ? Math.max(2, (24 * Math.sqrt(count)) / Math.sqrt(most.value)) : 1);
</script>

<template>
  <div class="replay">
    <div class="label">
      <b>Replay the journal</b>
      <span class="dim">{{ day(new Date(first), zone) }} to now</span>
    </div>
    <div class="track">
      <svg :viewBox="`0 0 ${days} 26`" preserveAspectRatio="none" aria-hidden="true">
        <rect v-for="(count, i) in counts" :key="i" :x="i + 0.12" :y="26 - bar(count)" width=".76" :height="bar(count)" fill="var(--current)" :opacity="i < position ? 0.6 : 0.2" />
      </svg>
      <input type="range" min="1" :max="days" step="0.25" :value="position" aria-label="Time that the picture shows" :aria-valuetext="at ? day(at, zone) : 'now'" @input="move" />
    </div>
    <div class="when">
      <b>{{ at ? day(at, zone) : "now" }}</b>
      <button v-if="at" class="link" @click="at = undefined">Back to now</button>
    </div>
  </div>
</template>

<style scoped>
.replay { height: 62px; flex: none; display: flex; align-items: center; gap: 12px; padding: 0 12px; border-top: 1px solid var(--rule); background: var(--surface); }
.label { width: 152px; display: grid; font-size: 11.5px; }
.label b { font-weight: 600; }
.track { flex: 1; position: relative; height: 44px; }
svg { position: absolute; left: 0; right: 0; top: 2px; width: 100%; height: 26px; }
input { position: absolute; left: 0; right: 0; top: 26px; width: 100%; margin: 0; accent-color: var(--current); height: 16px; }
.when { width: 100px; display: grid; }
</style>
