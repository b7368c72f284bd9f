<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { computed, watch } from "vue";
import { api, data, type Schemas } from "../api/client";
import { exact } from "../shared/format";
import { attempt } from "../shared/notices";

const props = defineProps<{ id: number }>();
const emit = defineEmits<{ done: [job: Schemas["Job"]] }>();
const { data: job } = useQuery({
  queryKey: ["jobs", () => props.id],
  queryFn: () => data(api.GET("/api/v1/jobs/{id}", { params: { path: { id: props.id } } })),
  refetchInterval: (query) => (query.state.data?.state === "RUNNING" ? 1000 : false),
});
watch(
  () => job.value?.state,
  (state) => {
    if (state === "DONE" && job.value) emit("done", job.value);
  },
);
const bad = computed(() => job.value?.state === "FAILED");
const cancel = () =>
  attempt(() => data(api.DELETE("/api/v1/jobs/{id}", { params: { path: { id: props.id } } })));
</script>

<template>
  <div v-if="job" class="job" :class="{ bad }" role="status">
    <v-progress-circular v-if="job.state === 'RUNNING'" indeterminate size="16" width="2" />
    <div class="grow">
      <b>{{ job.title }}</b>
      <div>{{ job.state === "RUNNING" ? job.progress : job.message }}</div>
      <ul v-if="job.problems.length > 1">
        <li v-for="(one, i) in job.problems.slice(0, 20)" :key="i">
          <template v-if="one.row">row {{ exact(one.row) }}</template
          ><template v-if="one.column">, {{ one.column }}</template
          >: {{ one.sentence }}
        </li>
      </ul>
    </div>
    <v-btn v-if="job.state === 'RUNNING'" @click="cancel">Cancel</v-btn>
    <slot v-else :job="job" />
  </div>
</template>

<style scoped>
.job { display: flex; gap: 10px; align-items: center; background: var(--proved-soft); border-radius: 4px; padding: 8px 12px; }
.job.bad { background: var(--act-soft); color: var(--act); }
ul { padding-left: 18px; max-height: 180px; overflow: auto; }
</style>
