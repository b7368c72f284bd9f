<script setup lang="ts">
import type { Problem } from "../api/client";
import { exact } from "../shared/format";

defineProps<{ problem: Problem }>();
defineEmits<{ leaveOut: [] }>();
const LISTED = 20;
</script>

<template>
  <div class="problem" role="alert">
    <b>{{ problem.detail }}</b>
    <ul v-if="problem.problems && problem.problems.length > 1">
      <li v-for="(one, i) in problem.problems.slice(0, LISTED)" :key="i">
        <template v-if="one.row">row {{ exact(one.row) }}</template
        ><template v-if="one.column">, {{ one.column }}</template
        >: {{ one.sentence }}
      </li>
      <li v-if="problem.problems.length > LISTED">and {{ problem.problems.length - LISTED }} more</li>
    </ul>
    <div v-if="problem.restReadable" class="rest">
      <v-btn @click="$emit('leaveOut')">Leave out what is named here and read the rest</v-btn>
    </div>
  </div>
</template>

<style scoped>
.rest { margin-top: 8px; }
ul { padding-left: 18px; margin-top: 6px; max-height: 200px; overflow: auto; }
</style>
