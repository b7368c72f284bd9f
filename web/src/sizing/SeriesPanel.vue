<script setup lang="ts">
import { computed, ref, watch } from "vue";
import type { Schemas } from "../api/client";
import { useDossier } from "../frame/useDossier";
import { words } from "../shared/format";
import { useProgramme } from "../shared/queries";
import DurationCurve from "./DurationCurve.vue";
import HeatGrid from "./HeatGrid.vue";
import SeriesChart from "./SeriesChart.vue";

const props = defineProps<{ sizing: Schemas["DatabaseSizing"] }>();
const { zone } = useProgramme();
const dossier = useDossier();
const wanted = ref("CPU");
const series = computed(
  () => props.sizing.series.find((one) => one.dimension === wanted.value) ?? props.sizing.series[0],
);
watch(
  () => props.sizing.key,
  () => {
    if (!series.value) wanted.value = "CPU";
  },
);
const demand = computed(() => props.sizing.demand.find((value) => value.dimension === series.value?.dimension));
/** The tiers around the fit, as limits to draw: the next cheaper that falls short, the fit, the runner-up. */
const limits = computed(() => {
  const { ladder, chosen, runnerUp } = props.sizing;
  const at = ladder.findIndex((rung) => rung.tierId === chosen);
  const shorter = [...ladder.slice(0, Math.max(0, at))].reverse().find((rung) => !rung.feasible);
  const dimension = series.value?.dimension ?? "CPU";
  return [shorter, ladder[at], ladder.find((rung) => rung.tierId === runnerUp)]
    .flatMap((rung) => {
      const value = rung?.limits[dimension];
      return rung && value != null ? [{ name: rung.tier, value, chosen: rung.tierId === chosen }] : [];
    })
    .filter((limit, i, all) => all.findIndex((other) => other.value === limit.value) === i);
});
</script>

<template>
  <section class="panel scroll" :aria-label="`Series of ${sizing.key}`">
    <h2>
      {{ sizing.key }} <span class="dim" :title="sizing.words">{{ sizing.words }}</span>
      <button class="link open" @click="dossier.open(sizing.key)">Open dossier</button>
    </h2>
    <div v-if="series" class="chips" role="tablist" aria-label="Dimension">
      <button v-for="one in sizing.series" :key="one.dimension" class="chip" role="tab" :class="{ on: one === series }" :aria-selected="one === series" @click="wanted = one.dimension">{{ one.label }}</button>
    </div>
    <p class="dim conf">Confidence {{ words(sizing.confidence.level) }}: {{ sizing.confidence.reason }}</p>
    <template v-if="series && demand">
      <SeriesChart :series="series" :demand="demand" :limits="limits" :zone="zone" />
      <div class="pair">
        <DurationCurve :series="series" :percentile="sizing.settings.percentile" :limits="limits" />
        <HeatGrid :series="series" :percentile="sizing.settings.percentile" />
      </div>
    </template>
    <div v-else class="empty">
      <h2>No counters of this database</h2>
      <p>{{ sizing.reason }}</p>
      <p style="margin-top: 8px">Counters come from a CSV, or from sampling its server; both are under Inventory, Read a file or a server.</p>
    </div>
  </section>
</template>

<style scoped>
.panel { flex: 1; min-width: 0; padding: 10px 14px; }
h2 { font-size: 15px; font-weight: 650; display: flex; gap: 10px; align-items: baseline; }
h2 .dim { font-weight: 400; font-size: 13px; white-space: nowrap; overflow: hidden; text-overflow: ellipsis; flex: 1; min-width: 0; }
.open { font-size: 13px; white-space: nowrap; }
.chips { display: flex; gap: 6px; margin: 8px 0 6px; flex-wrap: wrap; }
.conf { margin-bottom: 2px; }
.pair { display: grid; grid-template-columns: 1fr 1fr; gap: 14px; }
</style>
