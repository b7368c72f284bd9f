<script setup lang="ts">
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { computed, ref, watch } from "vue";
import { api, data, type Schemas } from "../api/client";
import { time } from "../shared/format";
import { attempt } from "../shared/notices";
import { useProgramme } from "../shared/queries";
import { mayWork } from "../team/session";
import { factValue } from "./facts";

type Change = Schemas["Change"];
const props = defineProps<{ id: number }>();
const emit = defineEmits<{ close: [] }>();
const client = useQueryClient();
const { zone } = useProgramme();
const { data: reading, isError } = useQuery({
  queryKey: ["reading", () => props.id],
  queryFn: () => data(api.GET("/api/v1/inventory/readings/{id}", { params: { path: { id: props.id } } })),
  staleTime: 0,
});
const idOf = (change: Change) => `${change.kind}:${change.key}`;
const chosen = ref(new Set<string>());
/** For a doubtful object: the known key that it is; absent while it is taken as new. */
const same = ref<Record<string, string>>({});
watch(
  reading,
  (now) => {
    chosen.value = new Set((now?.changes ?? []).filter((change) => !change.doubt).map(idOf));
    same.value = {};
  },
  { immediate: true },
);
const shown = ref<"" | "NEW" | "CHANGED" | "GONE" | "DOUBTFUL">("");
const changes = computed(() =>
  (reading.value?.changes ?? []).filter((change) =>
    shown.value === "DOUBTFUL" ? !!change.doubt : !shown.value || change.type === shown.value,
  ),
);
const LISTED = 400;

function toggle(change: Change) {
  const next = new Set(chosen.value);
  if (!next.delete(idOf(change))) next.add(idOf(change));
  chosen.value = next;
}
const old = (change: Change, index: number) => {
  const attribute = change.attributes[index];
  return attribute.before ? factValue(typeOf(attribute.attribute), attribute.before.value) : "unknown";
};
const typeOf = (attribute: string) => (/BYTES$/.test(attribute) ? "BYTES" : /MINUTES$/.test(attribute) ? "MINUTES" : "TEXT");
const label = (attribute: string) => attribute.toLowerCase().replaceAll("_", " ").replace(/ (bytes|minutes)$/, "");

/** What a person says a doubtful object is: left out, new, or the known one. */
function decide(change: Change, what: string) {
  const next = new Set(chosen.value);
  const known = { ...same.value };
  delete known[idOf(change)];
  if (what === "out") next.delete(idOf(change));
  else next.add(idOf(change));
  if (what === "same" && change.doubt) known[idOf(change)] = change.doubt.key;
  chosen.value = next;
  same.value = known;
}
const decision = (change: Change) => (same.value[idOf(change)] ? "same" : chosen.value.has(idOf(change)) ? "new" : "out");
const undecided = computed(() => (reading.value?.changes ?? []).filter((change) => change.doubt && decision(change) === "out").length);

async function accept() {
  const every = chosen.value.size === reading.value?.changes.length;
  const ok = await attempt(
    () =>
      data(
        api.POST("/api/v1/inventory/readings/{id}/accept", {
          params: { path: { id: props.id } },
          body: { changes: every ? undefined : [...chosen.value], same: same.value },
        }),
      ),
    `${chosen.value.size} changes accepted`,
  );
  await client.invalidateQueries();
  if (ok) emit("close");
}
async function discard() {
  await attempt(() => data(api.DELETE("/api/v1/inventory/readings/{id}", { params: { path: { id: props.id } } })), "Reading discarded");
  await client.invalidateQueries();
  emit("close");
}
</script>

<template>
  <v-dialog :model-value="true" max-width="860" @update:model-value="emit('close')">
    <div class="sheet" role="dialog" aria-label="Difference to accept">
      <header>
        <h2>{{ reading?.source ?? "Reading" }}</h2>
        <p v-if="reading" class="dim">Read {{ time(reading.at, zone) }} by {{ reading.person }}: {{ reading.objects }} objects<template v-if="reading.ties">, {{ reading.ties }} pointers to other databases</template></p>
        <div v-if="reading" class="kinds">
          <button class="chip" :class="{ on: !shown }" @click="shown = ''">all {{ reading.changes.length }}</button>
          <button class="chip" :class="{ on: shown === 'NEW' }" @click="shown = 'NEW'">new {{ reading.added }}</button>
          <button class="chip" :class="{ on: shown === 'CHANGED' }" @click="shown = 'CHANGED'">changed {{ reading.changed }}</button>
          <button class="chip" :class="{ on: shown === 'GONE' }" @click="shown = 'GONE'">gone {{ reading.gone }}</button>
          <button v-if="reading.doubtful" class="chip warn" :class="{ on: shown === 'DOUBTFUL' }" @click="shown = 'DOUBTFUL'">doubtful {{ reading.doubtful }}</button>
        </div>
      </header>
      <div class="body">
        <p v-if="isError" class="problem">This reading was closed already, by you or somebody else.</p>
        <div v-if="reading?.unread.length" class="unread">
          <b>Not readable, and so not compared:</b>
          <ul><li v-for="line in reading.unread" :key="line">{{ line }}</li></ul>
        </div>
        <p v-if="reading && !reading.changes.length" class="empty">Nothing differs from the inventory.</p>
        <table v-else-if="reading" class="t-table">
          <thead><tr><th class="tick" /><th>Change</th><th>Object</th><th>What</th></tr></thead>
          <tbody>
            <tr v-for="change in changes.slice(0, LISTED)" :key="idOf(change)">
              <td class="tick"><input type="checkbox" :aria-label="`Take ${change.key}`" :checked="chosen.has(idOf(change))" :disabled="!mayWork" @change="toggle(change)" /></td>
              <td :class="{ act: change.type === 'GONE', look: change.type === 'CHANGED' || change.doubt }">{{ change.doubt ? "doubtful" : change.type.toLowerCase() }}</td>
              <td><b>{{ change.key }}</b> <span class="dim">{{ change.kind.toLowerCase() }}</span></td>
              <td class="what">
                <template v-if="change.type === 'NEW'"><span class="dim">{{ change.attributes.length }} {{ change.attributes.length === 1 ? "fact" : "facts" }}, {{ change.place }}</span></template>
                <div v-if="change.doubt" class="doubt">
                  <span>May be <b>{{ change.doubt.key }}</b>: {{ change.doubt.why }}.</span>
                  <select :value="decision(change)" :disabled="!mayWork" :aria-label="`What is ${change.key}?`" @change="decide(change, ($event.target as HTMLSelectElement).value)">
                    <option value="out">leave it out</option>
                    <option value="same">it is the same; remember its other name</option>
                    <option value="new">it is another, take it as new</option>
                  </select>
                </div>
                <template v-else-if="change.type === 'GONE'"><span class="dim">no longer told by this source</span></template>
                <div v-for="(attribute, i) in change.type === 'CHANGED' ? change.attributes : []" :key="attribute.attribute">
                  {{ label(attribute.attribute) }}: <s class="dim">{{ old(change, i) }}</s> → <b>{{ factValue(typeOf(attribute.attribute), attribute.after) }}</b>
                  <span v-if="attribute.kept" class="chip warn" title="The value that counts is pinned or was observed on the server; this one is recorded beside it">{{ attribute.before?.pinned ? "pinned, stays" : "observed, stays" }}</span>
                </div>
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="changes.length > LISTED" class="dim">and {{ changes.length - LISTED }} more like these</p>
      </div>
      <footer>
        <span v-if="undecided" class="look">{{ undecided }} doubtful left out</span>
        <span class="grow" />
        <v-btn @click="emit('close')">Decide later</v-btn>
        <v-btn v-if="mayWork && reading" @click="discard">Discard</v-btn>
        <v-btn v-if="mayWork && reading?.changes.length" class="go" :disabled="!chosen.size" @click="accept">Accept {{ chosen.size }} {{ chosen.size === 1 ? "change" : "changes" }}</v-btn>
      </footer>
    </div>
  </v-dialog>
</template>

<style scoped>
.kinds { display: flex; gap: 6px; margin-top: 8px; }
.tick { width: 28px; }
.tick input { accent-color: var(--current); }
.what { white-space: normal !important; padding-top: 5px !important; padding-bottom: 5px !important; }
.unread { background: var(--look-soft); color: var(--look); border-radius: 4px; padding: 8px 12px; margin-bottom: 8px; }
.unread ul { padding-left: 18px; }
.doubt { display: grid; gap: 4px; margin-top: 4px; }
select { font: inherit; color: inherit; background: var(--surface); border: 1px solid var(--rule); border-radius: 4px; height: 26px; padding: 0 6px; justify-self: start; }
</style>
