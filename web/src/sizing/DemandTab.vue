<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { computed } from "vue";
import { api, data } from "../api/client";
import CoverageStrips from "../counters/CoverageStrips.vue";
import { exact, money, quantity, words } from "../shared/format";

const props = defineProps<{ subject: string }>();
const { data: sizing } = useQuery({
  queryKey: ["sizing", "database", () => props.subject],
  queryFn: () => data(api.GET("/api/v1/sizing/database", { params: { query: { key: props.subject } } })),
});
const chosen = computed(() => sizing.value?.ladder.find((rung) => rung.tierId === sizing.value?.chosen));
</script>

<template>
  <template v-if="sizing">
    <p class="fit">
      <b v-if="chosen">{{ chosen.tier }}, {{ exact(chosen.storageGib) }} GiB: {{ money(chosen.monthlyPrice, sizing.currency ?? "") }} a month</b>
      <b v-else class="look">No fit yet</b>
      <span class="dim">{{ sizing.reason }}</span>
    </p>
    <p class="dim">Confidence {{ words(sizing.confidence.level) }}: {{ sizing.confidence.reason }}</p>
    <CoverageStrips :subject="subject" />
    <table class="t-table">
      <thead><tr><th>Dimension</th><th class="num">Measured</th><th class="num">Needed</th></tr></thead>
      <tbody>
        <template v-for="value in sizing.demand" :key="value.dimension">
          <tr>
            <td>{{ value.label }}</td>
            <td class="num" :class="{ unknown: value.measured == null }">{{ quantity(value.dimension, value.measured) }}</td>
            <td class="num" :class="{ unknown: value.needed == null }"><b>{{ quantity(value.dimension, value.needed) }}</b></td>
          </tr>
          <tr class="why"><td colspan="3" class="dim">{{ value.reason }}</td></tr>
        </template>
      </tbody>
    </table>
  </template>
</template>

<style scoped>
.fit { padding: 8px 0; display: grid; gap: 3px; }
.t-table tr:not(.why) td { border-bottom: 0; height: 24px; padding: 4px 4px 0; }
.why td { white-space: normal; font-size: 11.5px; font-stretch: 92%; height: auto; padding: 0 4px 5px; }
</style>
