<script setup lang="ts">
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { computed, ref, watch } from "vue";
import { api, data, type Schemas } from "../api/client";
import { exact, time } from "../shared/format";
import { attempt } from "../shared/notices";
import { useProgramme } from "../shared/queries";
import { mayWork } from "../team/session";
import { idOf, keptChoices } from "./choices";
import ChangeWhat, { type Decision } from "./ChangeWhat.vue";

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
const chosen = ref(new Set<string>());
/** For a doubtful object: the known key that it is; absent while it is taken as new. */
const same = ref<Record<string, string>>({});
watch(
  reading,
  (now, before) => {
    const kept = keptChoices(before?.changes ?? [], now?.changes ?? [], { chosen: chosen.value, same: same.value });
    chosen.value = kept.chosen;
    same.value = kept.same;
  },
  { immediate: true },
);
const shown = ref<"" | "NEW" | "CHANGED" | "GONE" | "DOUBTFUL">("");
const find = ref("");
const changes = computed(() => {
  const wanted = find.value.trim().toLowerCase();
  return (reading.value?.changes ?? []).filter(
    (change) =>
      (shown.value === "DOUBTFUL" ? !!change.doubt : !shown.value || change.type === shown.value) &&
      change.key.toLowerCase().includes(wanted),
  );
});
const STEP = 400;
const listed = ref(STEP);
watch([shown, find], () => (listed.value = STEP));
const words = computed(() => new Map((reading.value?.words ?? []).map((one) => [one.attribute as string, one])));

function toggle(change: Change) {
  const next = new Set(chosen.value);
  if (!next.delete(idOf(change))) next.add(idOf(change));
  chosen.value = next;
}
// what is doubtful is decided one by one
const together = computed(() => changes.value.filter((change) => !change.doubt));
const taken = computed(() => together.value.filter((change) => chosen.value.has(idOf(change))).length);
function toggleShown() {
  const next = new Set(chosen.value);
  const all = taken.value === together.value.length;
  together.value.forEach((change) => (all ? next.delete(idOf(change)) : next.add(idOf(change))));
  chosen.value = next;
}

/** What a person says a doubtful object is: left out, new, or the known one. */
function decide(change: Change, what: Decision) {
  const next = new Set(chosen.value);
  const known = { ...same.value };
  delete known[idOf(change)];
  if (what === "out") next.delete(idOf(change));
  else next.add(idOf(change));
  if (what === "same" && change.doubt) known[idOf(change)] = change.doubt.key;
  chosen.value = next;
  same.value = known;
}
const decision = (change: Change): Decision => (same.value[idOf(change)] ? "same" : chosen.value.has(idOf(change)) ? "new" : "out");
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
  // closed first: it is open no longer, so asking for it again would be refused
  if (ok) emit("close");
  await client.invalidateQueries();
}
async function discard() {
  await attempt(() => data(api.DELETE("/api/v1/inventory/readings/{id}", { params: { path: { id: props.id } } })), "Reading discarded");
  emit("close");
  await client.invalidateQueries();
}
</script>

<template>
  <v-dialog :model-value="true" max-width="860" @update:model-value="emit('close')">
    <div class="sheet" role="dialog" aria-label="Difference to accept">
      <header>
        <h2>{{ reading?.source ?? "Reading" }}</h2>
        <p v-if="reading" class="dim">Read {{ time(reading.at, zone) }} by {{ reading.person }}: {{ exact(reading.objects) }} objects<template v-if="reading.ties">, {{ reading.ties }} pointers to other databases</template></p>
        <div v-if="reading" class="kinds">
          <button class="chip" :class="{ on: !shown }" @click="shown = ''">all {{ exact(reading.changes.length) }}</button>
          <button class="chip" :class="{ on: shown === 'NEW' }" @click="shown = 'NEW'">new {{ exact(reading.added) }}</button>
          <button class="chip" :class="{ on: shown === 'CHANGED' }" @click="shown = 'CHANGED'">changed {{ exact(reading.changed) }}</button>
          <button class="chip" :class="{ on: shown === 'GONE' }" @click="shown = 'GONE'">gone {{ exact(reading.gone) }}</button>
          <button v-if="reading.doubtful" class="chip warn" :class="{ on: shown === 'DOUBTFUL' }" @click="shown = 'DOUBTFUL'">doubtful {{ reading.doubtful }}</button>
          <span class="grow" />
          <input v-if="reading.changes.length > 10" v-model="find" type="search" class="find" placeholder="Find in these" aria-label="Find in these changes" />
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
          <thead><tr>
            <th class="tick"><input type="checkbox" aria-label="Take all that are shown" :checked="!!together.length && taken === together.length" :indeterminate="taken > 0 && taken < together.length" :disabled="!mayWork || !together.length" @change="toggleShown" /></th><th>Change</th><th>Object</th><th>What</th>
          </tr></thead>
          <tbody>
            <tr v-for="change in changes.slice(0, listed)" :key="idOf(change)">
              <td class="tick"><input type="checkbox" :aria-label="`Take ${change.key}`" :checked="chosen.has(idOf(change))" :disabled="!mayWork" @change="toggle(change)" /></td>
              <td :class="{ act: change.type === 'GONE', look: change.type === 'CHANGED' || change.doubt }">{{ change.doubt ? "doubtful" : change.type.toLowerCase() }}</td>
              <td><b>{{ change.key }}</b> <span class="dim">{{ change.kind.toLowerCase() }}</span></td>
              <td class="what">
                <ChangeWhat :change="change" :words="words" :decision="decision(change)" :may-decide="mayWork" @decide="decide(change, $event)" />
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="reading && reading.changes.length && !changes.length" class="empty">None of the changes is like that.</p>
        <p v-if="changes.length > listed" class="more"><v-btn @click="listed += STEP">Show {{ Math.min(STEP, changes.length - listed) }} more of {{ exact(changes.length) }}</v-btn></p>
      </div>
      <footer>
        <span v-if="undecided" class="look">{{ undecided }} doubtful left out</span>
        <span class="grow" />
        <v-btn @click="emit('close')">Decide later</v-btn>
        <v-btn v-if="mayWork && reading" @click="discard">Discard</v-btn>
        <v-btn v-if="mayWork && reading?.changes.length" class="go" :disabled="!chosen.size" @click="accept">Accept {{ exact(chosen.size) }} {{ chosen.size === 1 ? "change" : "changes" }}</v-btn>
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
.find { height: 26px; width: 170px; border: 1px solid var(--rule); border-radius: 4px; font: inherit; color: inherit; background: var(--surface); padding: 0 8px; }
.more { padding: 8px 0; }
</style>
