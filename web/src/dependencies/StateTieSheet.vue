<script setup lang="ts">
import { useQueryClient } from "@tanstack/vue-query";
import { computed, ref } from "vue";
import { api, data } from "../api/client";
import { attempt } from "../shared/notices";
import { useEstate } from "../shared/queries";

const emit = defineEmits<{ close: [] }>();
const client = useQueryClient();
const { data: databases } = useEstate("DATABASE");
const keys = computed(() => (databases.value?.rows ?? []).map((row) => row.key));
const from = ref<string | null>(null);
const to = ref<string | null>(null);
const kind = ref<"BOUND" | "ORDERED" | "LOOSE">("LOOSE");
const weight = ref(1);
const evidence = ref("");
const kinds = [
  { title: "bound: must cross together", value: "BOUND" },
  { title: "ordered: the first not later than the second", value: "ORDERED" },
  { title: "loose: may be split, at a cost", value: "LOOSE" },
];
async function store() {
  const ok = await attempt(
    () =>
      data(
        api.POST("/api/v1/dependencies/ties", {
          body: { from: from.value ?? "", to: to.value ?? "", kind: kind.value, weight: weight.value, words: evidence.value },
        }),
      ),
    "Tie stored",
  );
  await client.invalidateQueries({ queryKey: ["dependencies"] });
  if (ok) emit("close");
}
</script>

<template>
  <v-dialog :model-value="true" max-width="520" @update:model-value="emit('close')">
    <form class="sheet" role="dialog" aria-label="State a tie" @submit.prevent="store">
      <header><h2>State a tie</h2></header>
      <div class="body form">
        <v-autocomplete v-model="from" :items="keys" label="First database" />
        <v-autocomplete v-model="to" :items="keys" label="Second database" />
        <v-select v-model="kind" :items="kinds" label="Kind" />
        <v-text-field v-if="kind === 'LOOSE'" v-model.number="weight" type="number" min="0" max="1000" label="Cost for each day while split" />
        <v-text-field v-model="evidence" label="How you know" />
      </div>
      <footer>
        <v-btn @click="emit('close')">Cancel</v-btn>
        <v-btn class="go" type="submit" :disabled="!from || !to">State this tie</v-btn>
      </footer>
    </form>
  </v-dialog>
</template>
