<script setup lang="ts">
import { computed } from "vue";
import { markPath, markWords, type MarkState } from "./marks";

const props = withDefaults(defineProps<{ state: MarkState; size?: number }>(), { size: 14 });
const shape = computed(() => markPath(props.state));
</script>

<template>
  <svg :width="size" :height="size" viewBox="-7 -7 14 14" role="img" :aria-label="markWords(state)">
    <title>{{ markWords(state) }}</title>
    <path v-for="(part, i) in shape" :key="i" v-bind="part" />
  </svg>
</template>
