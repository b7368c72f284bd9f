<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { api, data } from "../api/client";
import { coverageWords, dayOf, strength } from "./coverage";

const props = defineProps<{ subject: string }>();
const { data: coverage } = useQuery({
  queryKey: ["counters", "coverage", () => props.subject],
  queryFn: () => data(api.GET("/api/v1/counters/coverage", { params: { query: { key: props.subject } } })),
});
const WIDTH = 5;
</script>

<template>
  <section v-if="coverage?.length" class="strips" aria-label="Where there are samples">
    <h3 class="cap">Samples, the last six weeks</h3>
    <div v-for="one in coverage" :key="one.label" class="strip">
      <span class="dim">{{ one.label }}</span>
      <svg :width="one.days.length * WIDTH" height="12" role="img" :aria-label="`${one.label}: ${coverageWords(one.days)}`">
        <rect v-for="(share, i) in one.days" :key="i" :x="i * WIDTH" y="0" :width="WIDTH - 1" height="12" :fill="share ? 'var(--current)' : 'var(--rule)'" :opacity="strength(share)">
          <title>{{ dayOf(one.from, i) }}: {{ Math.round(share * 100) }}% covered</title>
        </rect>
      </svg>
    </div>
  </section>
  <p v-else-if="coverage" class="dim none">No samples yet: read a file of counters, a metrics server, or sample the live server.</p>
</template>

<style scoped>
.strips { margin: 10px 0; }
h3 { margin-bottom: 4px; }
.strip { display: grid; grid-template-columns: 110px 1fr; align-items: center; height: 18px; font-size: 12px; }
.none { margin-top: 10px; }
</style>
