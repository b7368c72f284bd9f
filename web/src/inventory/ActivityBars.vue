<script setup lang="ts">
import { computed } from "vue";

const props = defineProps<{ days?: (number | null)[] }>();
const most = computed(() => Math.max(0.001, ...(props.days ?? []).map((value) => value ?? 0)));
const said = computed(() => {
  const days = props.days?.filter((value) => value != null).length ?? 0;
  return days ? `Samples on ${days} of 28 days; busiest day ${most.value.toFixed(2)} cores on average` : "No counters yet";
});
</script>

<template>
  <span v-if="!days" class="unknown">none yet</span>
  <svg v-else width="56" height="14" role="img" :aria-label="said">
    <title>{{ said }}</title>
    <rect
      v-for="(value, i) in days"
      :key="i"
      :x="i * 2"
      :y="value == null ? 13 : 14 - Math.max(1, (13 * value) / most)"
      width="1.5"
      :height="value == null ? 1 : Math.max(1, (13 * value) / most)"
      :fill="value == null ? 'var(--rule)' : 'var(--current)'"
    />
  </svg>
</template>
