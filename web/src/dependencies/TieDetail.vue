<script setup lang="ts">
import { useQueryClient } from "@tanstack/vue-query";
import { computed } from "vue";
import { api, data, type Schemas } from "../api/client";
import { time, words } from "../shared/format";
import { attempt } from "../shared/notices";
import { useDependencies, useProgramme } from "../shared/queries";
import { mayWork } from "../team/session";
import TieNeighbourhood from "./TieNeighbourhood.vue";

type Tie = Schemas["TieView"];
const props = defineProps<{ tie: Tie }>();
const emit = defineEmits<{ open: [key: string]; close: [] }>();
const { zone } = useProgramme();
const { data: dependencies } = useDependencies();
const client = useQueryClient();
const near = computed(() => dependencies.value?.ties.filter((tie) => tie.state !== "REJECTED") ?? []);
const meaning = computed(
  () =>
    ({
      BOUND: "Both must cross together.",
      ORDERED: "The first must not cross later than the second.",
      LOOSE: `May be split, at ${props.tie.weight} for each day while it is.`,
    })[props.tie.kind],
);
const decide = (kind: Tie["kind"], state: Tie["state"]) =>
  attempt(
    async () => {
      const now = await data(
        api.PUT("/api/v1/dependencies/ties/{id}", {
          params: { path: { id: props.tie.id }, header: { "If-Match": `"${props.tie.version}"` } },
          body: { kind, weight: props.tie.weight, state },
        }),
      );
      client.setQueryData(["dependencies"], now);
    },
    state === "REJECTED" ? "Tie rejected" : `Tie is ${words(kind)}`,
  ).then(() => client.invalidateQueries({ queryKey: ["dependencies"] }));
</script>

<template>
  <aside class="detail scroll" aria-label="Tie">
    <button class="link close" aria-label="Close" @click="emit('close')">✕</button>
    <h2>
      <button class="link" @click="emit('open', tie.from)">{{ tie.from }}</button> to
      <button class="link" @click="emit('open', tie.to)">{{ tie.to }}</button>
    </h2>
    <p class="dim">{{ words(tie.kind) }}<template v-if="tie.state === 'PROPOSED'">, <span class="look">to confirm</span></template>. {{ meaning }}</p>
    <TieNeighbourhood :ties="near" :from="tie.from" :to="tie.to" @open="(key) => emit('open', key)" />
    <h3 class="cap">Evidence</h3>
    <p v-if="!tie.evidence.length" class="dim">None was given.</p>
    <ul>
      <li v-for="(one, i) in tie.evidence" :key="i">
        <span class="mono">{{ one.words }}</span>
        <span class="dim">{{ words(one.origin) }}, {{ one.source }}, {{ time(one.at, zone) }}</span>
      </li>
    </ul>
    <div v-if="mayWork" class="actions">
      <v-btn v-if="tie.state === 'PROPOSED'" class="go" @click="decide(tie.kind, 'CONFIRMED')">Confirm as {{ words(tie.kind) }}</v-btn>
      <v-btn v-if="tie.kind !== 'BOUND'" @click="decide('BOUND', 'CONFIRMED')">Make bound</v-btn>
      <v-btn v-if="tie.kind !== 'ORDERED'" @click="decide('ORDERED', 'CONFIRMED')">Make ordered</v-btn>
      <v-btn v-if="tie.kind !== 'LOOSE'" @click="decide('LOOSE', 'CONFIRMED')">Make loose</v-btn>
      <v-btn v-if="tie.state !== 'REJECTED'" class="danger" @click="decide(tie.kind, 'REJECTED')">Reject</v-btn>
      <v-btn v-else @click="decide(tie.kind, 'CONFIRMED')">Take back</v-btn>
    </div>
  </aside>
</template>

<style scoped>
.detail { width: 340px; flex: none; border-left: 1px solid var(--rule); background: var(--surface); padding: 12px 16px; position: relative; }
.close { position: absolute; right: 12px; top: 10px; }
h2 { font-size: 14px; font-weight: 600; padding-right: 20px; overflow-wrap: anywhere; }
h3 { margin: 12px 0 4px; }
ul { list-style: none; padding: 0; }
li { display: grid; padding: 6px 0; border-bottom: 1px solid var(--rule2); }
.actions { display: flex; gap: 6px; flex-wrap: wrap; margin-top: 14px; }
</style>
