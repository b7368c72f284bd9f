<script setup lang="ts">
import { useQueryClient } from "@tanstack/vue-query";
import { ref } from "vue";
import { api, data } from "../api/client";
import { attempt } from "../shared/notices";
import { useProgramme } from "../shared/queries";
import { isLead } from "../team/session";
import type { EstateTable } from "./estate";
import { inLens, type Lens } from "./rows";

defineProps<{ table: EstateTable; lens?: Lens }>();
const emit = defineEmits<{ look: [lens: Lens | undefined] }>();
const client = useQueryClient();
const { data: programme } = useProgramme();
const LENSES: { id: Lens; label: string; words: string }[] = [
  { id: "gaps", label: "Gaps", words: "What a move cannot be planned without is unknown" },
  { id: "contradicted", label: "Disagree", words: "Sources tell different values and nobody has pinned one" },
  { id: "stale", label: "Stale", words: "No source has told it lately" },
];
const days = ref(30);
const set = () =>
  attempt(async () => {
    const now = await data(
      api.PUT("/api/v1/programme/stale-after", {
        params: { header: { "If-Match": `"${programme.value?.version ?? 0}"` } },
        body: { days: days.value },
      }),
    );
    client.setQueryData(["programme"], now);
    await client.invalidateQueries({ queryKey: ["inventory"] });
  }, "Limit kept");
</script>

<template>
  <button v-for="one in LENSES.filter((lens) => lens.id !== 'gaps' || table.kind === 'DATABASE')" :key="one.id" class="chip" :class="{ on: lens === one.id }" :title="one.words" :aria-pressed="lens === one.id" @click="emit('look', lens === one.id ? undefined : one.id)">
    {{ one.label }} {{ inLens(table.rows, one.id) }}
  </button>
  <v-menu v-if="lens === 'stale'" :close-on-content-click="false" @update:model-value="days = programme?.staleAfterDays ?? 30">
    <template #activator="{ props: on }"><button class="link limit" v-bind="on">after {{ programme?.staleAfterDays }} days</button></template>
    <form class="menu" @submit.prevent="set">
      <label>A fact is stale when no source has told it for <input v-model.number="days" type="number" min="1" max="1000" :disabled="!isLead" /> days.</label>
      <v-btn v-if="isLead" type="submit" class="go">Keep</v-btn>
      <p v-else class="dim">The lead sets the limit.</p>
    </form>
  </v-menu>
</template>

<style scoped>
.limit { white-space: nowrap; font-size: 12px; }
.menu { background: var(--surface); border: 1px solid var(--rule); padding: 12px; width: 270px; display: grid; gap: 8px; }
input { width: 64px; font: inherit; color: inherit; background: var(--paper); border: 1px solid var(--rule); border-radius: 4px; padding: 2px 6px; text-align: right; }
</style>
