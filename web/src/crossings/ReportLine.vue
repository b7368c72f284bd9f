<script setup lang="ts">
import { ref, watch } from "vue";

const props = defineProps<{ label: string; value: number; max: number }>();
const emit = defineEmits<{ report: [value: number] }>();
const typed = ref(props.value);
const editing = ref(false);
watch(
  () => props.value,
  (now) => {
    if (!editing.value) typed.value = now;
  },
);
function send() {
  editing.value = false;
  emit("report", Math.min(props.max, Math.max(0, Number(typed.value))));
}
</script>

<template>
  <form class="report" @submit.prevent="send">
    <v-text-field v-model="typed" type="number" min="0" :max="max" :label="label" @focus="editing = true" />
    <v-btn type="submit">Report</v-btn>
  </form>
</template>

<style scoped>
.report { display: flex; gap: 8px; align-items: center; margin-top: 12px; }
</style>
