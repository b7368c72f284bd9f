<script setup lang="ts">
import { useNow } from "@vueuse/core";
import { computed } from "vue";
import { useRoute, useRouter } from "vue-router";
import { useDossier } from "../frame/useDossier";
import { useViewKeys } from "../frame/useKeys";
import StatusMark from "../frame/StatusMark.vue";
import { ago, percent, seconds, UNKNOWN, words } from "../shared/format";
import { useCrossings, usePeople, usePlaces } from "../shared/queries";
import { me } from "../team/session";

const { data: crossings, isError } = useCrossings();
const { byKey } = usePlaces();
const { data: people } = usePeople();
const route = useRoute();
const router = useRouter();
const dossier = useDossier();
const now = useNow({ interval: 10_000 });
const filters = [
  { id: "open", label: "under way" },
  { id: "mine", label: "mine" },
  { id: "stalled", label: "stalled or held" },
  { id: "all", label: "all" },
] as const;
const filter = computed(() => (typeof route.query.show === "string" ? route.query.show : "open"));
const rank = (one: { condition: string; stage: string }) =>
  one.condition === "STALLED" ? 0 : one.stage === "SWITCHING" || one.stage === "PROVING" ? 1 : one.stage === "HELD" ? 2 : 3;
const matches = (id: string) =>
  (crossings.value ?? []).filter((one) =>
    id === "all"
      ? true
      : id === "mine"
        ? one.owner === me.value?.login && one.open
        : id === "stalled"
          ? one.condition === "STALLED" || (one.stage === "HELD" && one.open)
          : one.open,
  );
const rows = computed(() => [...matches(filter.value)].sort((a, b) => rank(a) - rank(b) || a.key.localeCompare(b.key)));
const nameOf = (login?: string | null) => people.value?.find((person) => person.login === login)?.name ?? login;
const open = (database: string) => router.replace({ query: { ...route.query, subject: database, tab: "crossing" } });
useViewKeys((key) => {
  const index = rows.value.findIndex((one) => one.database === dossier.subject.value);
  if (key === "j" && rows.value.length) void open(rows.value[Math.min(index + 1, rows.value.length - 1)].database);
  if (key === "k" && rows.value.length) void open(rows.value[Math.max(index - 1, 0)].database);
});
const prepared = computed(() => [...byKey.value.values()].filter((place) => place.place === "PREPARED"));
</script>

<template>
  <div class="view">
    <div class="bar">
      <h1>Crossings</h1>
      <button v-for="one in filters" :key="one.id" class="chip" :class="{ on: filter === one.id }" :aria-pressed="filter === one.id" @click="router.replace({ query: { ...route.query, show: one.id } })">{{ one.label }} {{ matches(one.id).length }}</button>
      <div class="grow" />
      <span v-if="prepared.length" class="dim">{{ prepared.length }} prepared and ready to set up</span>
    </div>
    <div class="work">
      <div v-if="isError" class="empty"><h2>The crossings could not be read</h2></div>
      <div v-else-if="crossings && !rows.length" class="empty">
        <h2>{{ filter === "open" ? "Nothing is under way" : "None of these" }}</h2>
        <p>A crossing is set up from the dossier of a prepared database.</p>
      </div>
      <div v-else class="scroll table-box">
        <table class="t-table" aria-label="Crossings">
          <thead>
            <tr><th>Crossing</th><th>Database</th><th class="wave">Wave</th><th>Stage</th><th>Progress</th><th class="num">Behind</th><th>With</th><th class="since">Since</th></tr>
          </thead>
          <tbody>
            <tr v-for="one in rows" :key="one.key" class="pick" :class="{ sel: one.database === dossier.subject.value }" @click="open(one.database)">
              <td class="mono">{{ one.key }}</td>
              <td class="db"><button class="link" @click.stop="open(one.database)">{{ one.database }}</button></td>
              <td class="dim wave">{{ one.wave ?? UNKNOWN }}</td>
              <td class="stage" :title="one.reason ?? undefined">
                <StatusMark :state="one.open ? { place: 'CROSSING', stage: one.stage, condition: one.condition, progress: one.progress } : (byKey.get(one.database) ?? { place: 'RETIRED' })" />
                {{ words(one.stage) }}<b v-if="one.condition !== 'RUNNING'" :class="one.condition === 'STALLED' ? 'act' : 'dim'">, {{ words(one.condition) }}</b>
                <span v-if="one.reason" class="reason" :class="one.condition === 'STALLED' ? 'act' : 'look'">{{ one.reason }}</span>
              </td>
              <td><span class="progress"><i><b :style="{ width: one.progress * 100 + '%' }" /></i>{{ percent(one.progress) }}</span></td>
              <td class="num" :class="{ unknown: one.lagSeconds == null }" :title="one.lagSeconds == null ? 'Nobody has reported it yet' : undefined">{{ one.lagSeconds == null ? UNKNOWN : seconds(one.lagSeconds) }}</td>
              <td :class="{ look: !one.owner }">{{ nameOf(one.owner) ?? "nobody" }}</td>
              <td class="dim since">{{ ago(one.changedAt, now.getTime()) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </div>
  </div>
</template>

<style scoped>
.table-box { flex: 1; background: var(--surface); container-type: inline-size; }
td.stage { max-width: 300px; }
.stage:has(.reason) { padding-top: 4px; }
.stage svg { vertical-align: -2px; margin-right: 5px; }
.reason { display: block; font-size: 11.5px; overflow: hidden; text-overflow: ellipsis; padding: 0 0 5px 19px; font-stretch: 92%; }
.progress { display: inline-flex; gap: 8px; align-items: center; min-width: 96px; }
.progress i { width: 52px; height: 6px; background: var(--rule2); }
.progress i b { display: block; height: 6px; background: var(--current); }
@container (max-width: 780px) {
  .since, .wave, .progress i { display: none; }
  .progress { min-width: 40px; }
  td.stage { max-width: 214px; }
}
</style>
