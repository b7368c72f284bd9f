<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { api, data } from "../api/client";
import { time } from "../shared/format";
import { useProgramme } from "../shared/queries";
import type { ObjectKind } from "../inventory/estate";
import { entryWords } from "./entryWords";

const props = defineProps<{ subject: string; kind: ObjectKind }>();
const { zone } = useProgramme();
const { data: entries } = useQuery({
  queryKey: ["journal", () => props.kind, () => props.subject],
  queryFn: () =>
    data(api.GET("/api/v1/journal", { params: { query: { kind: props.kind, key: props.subject, limit: 200 } } })),
});
</script>

<template>
  <p v-if="entries?.length === 0" class="empty">Nothing was done with it yet.</p>
  <ol v-else class="entries">
    <li v-for="entry in entries" :key="entry.id">
      <b>{{ entryWords(entry) }}</b>
      <span class="dim">
        {{ time(entry.at, zone) }}, {{ entry.person }}<template v-if="entry.note">; {{ entry.note }}</template>
      </span>
    </li>
  </ol>
</template>

<style scoped>
.entries { list-style: none; padding: 0; }
li { padding: 7px 0; border-bottom: 1px solid var(--rule2); }
b { font-weight: 600; display: block; }
span { font-size: 12px; }
</style>
