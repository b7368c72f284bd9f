<script setup lang="ts">
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { computed, ref } from "vue";
import { api, data, type Schemas } from "../api/client";
import { useDossier } from "../frame/useDossier";
import { day } from "../shared/format";
import { attempt, done } from "../shared/notices";
import { useProgramme, useWaves } from "../shared/queries";
import { isLead } from "../team/session";
import PlanSheet from "./PlanSheet.vue";
import WaveColumn from "./WaveColumn.vue";
import GroupBlock from "./GroupBlock.vue";
import { columns } from "./waveColumns";

type Group = Schemas["GroupView"];
const { data: waves, isError } = useWaves();
const { zone } = useProgramme();
const client = useQueryClient();
const dossier = useDossier();
const picked = ref<string>();
const planOpen = ref(false);
const lastMove = ref<{ group: string; from?: string; to?: string }>();

const pickedGroup = computed(() => waves.value?.groups.find((group) => group.key === picked.value));
const { data: preview } = useQuery({
  queryKey: ["waves", "preview", picked],
  queryFn: () => data(api.GET("/api/v1/waves/preview", { params: { query: { group: picked.value! } } })),
  enabled: computed(() => picked.value !== undefined),
});
const { data: draft } = useQuery({
  queryKey: ["waves", "draft"],
  queryFn: () => data(api.GET("/api/v1/waves/plans/draft")),
});
const shown = computed(() => columns(waves.value?.waves ?? [], waves.value?.freezes ?? []));
const byWave = computed(() => {
  const of = new Map<string, Group[]>();
  for (const group of waves.value?.groups ?? []) {
    const key = group.wave ?? "";
    of.set(key, [...(of.get(key) ?? []), group]);
  }
  for (const groups of of.values()) groups.sort((a, b) => b.members.length - a.members.length || b.bytes - a.bytes);
  return of;
});
const unplaced = computed(() => byWave.value.get("") ?? []);
const breaches = computed(() => (waves.value?.waves ?? []).reduce((sum, wave) => sum + wave.breaches.length, 0));

const ended = (wave: Schemas["WaveView"]) => Date.parse(wave.end) < Date.now();
function pick(group: Group) {
  picked.value = picked.value === group.key ? undefined : group.key;
}
async function place(group: string, wave: string | undefined) {
  const before = waves.value?.groups.find((one) => one.key === group)?.wave ?? undefined;
  if (before === wave) return;
  const ok = await attempt(async () => {
    const now = await data(api.PUT("/api/v1/waves/placements", { body: { group, seen: before, wave } }));
    client.setQueryData(["waves"], now);
  });
  if (ok) {
    lastMove.value = { group, from: before, to: wave };
    done(wave ? `Moved to ${wave}` : "Taken out of its wave");
  }
  picked.value = undefined;
  await client.invalidateQueries({ queryKey: ["waves"] });
}
async function undo() {
  const move = lastMove.value;
  if (move) await place(move.group, move.from);
  lastMove.value = undefined;
}
async function lock(group: Group) {
  await attempt(
    () => data(api.PUT("/api/v1/waves/locks", { body: { group: group.key, locked: !group.locked } })),
    group.locked ? "Unlocked" : "Locked to its wave",
  );
  await client.invalidateQueries({ queryKey: ["waves"] });
}
async function plan() {
  const ok = await attempt(() => data(api.POST("/api/v1/waves/plans")));
  await client.invalidateQueries({ queryKey: ["waves"] });
  planOpen.value = ok;
}
</script>

<template>
  <div class="view">
    <div class="bar">
      <h1>Waves</h1>
      <template v-if="waves?.waves.length">
        <span class="chip">{{ waves.groups.length }} groups, cost {{ (waves.cost.splitTies + waves.cost.risk + waves.cost.waiting).toFixed(0) }}</span>
        <span v-if="waves.cutTies" class="chip">{{ waves.cutTies }} ties cut</span>
        <span v-if="breaches" class="chip bad">{{ breaches }} limits broken</span>
      </template>
      <span v-if="pickedGroup" class="chip on">{{ pickedGroup.name }} picked up: each wave says what it would cost or break</span>
      <div class="grow" />
      <v-btn v-if="lastMove && isLead" @click="undo">Undo the last move</v-btn>
      <v-btn v-if="draft?.draft" class="draft" @click="planOpen = true">Plan {{ draft.draft.id }}, draft</v-btn>
      <v-btn v-if="isLead && waves?.waves.length" class="go" @click="plan">Plan again around {{ waves.groups.filter((g) => g.locked || g.committed).length }} locks</v-btn>
    </div>
    <div class="work">
      <div v-if="isError" class="empty"><h2>The waves could not be read</h2></div>
      <div v-else-if="waves && !waves.waves.length" class="empty">
        <h2>No window yet</h2>
        <p>Waves cross in windows. The lead reads windows and freezes from a CSV; docs/formats/waves.md shows one.</p>
        <div v-if="isLead" class="row"><v-btn class="go" :to="{ name: 'inventory' }">Read a file</v-btn></div>
      </div>
      <div v-else class="board scroll">
        <section class="none" aria-label="No wave yet" @dragover.prevent @drop.prevent="picked && place(picked, undefined)">
          <h2 class="cap">No wave yet: {{ unplaced.length }}</h2>
          <div class="scroll list">
            <GroupBlock v-for="group in unplaced" :key="group.key" :group="group" :picked="group.key === picked" :may-move="isLead" @pick="pick(group)" @drag="picked = group.key" @open="dossier.open" @lock="lock(group)" />
          </div>
        </section>
        <template v-for="column in shown" :key="column.kind === 'wave' ? column.wave.key : column.freeze.name">
          <div v-if="column.kind === 'freeze'" class="freeze" :title="column.freeze.name"><span>{{ column.freeze.name }}</span></div>
          <button v-else-if="ended(column.wave)" class="past" :title="`${column.wave.key} ${column.wave.name}: ${column.wave.databases} databases`" @click="dossier.open((byWave.get(column.wave.key) ?? [])[0]?.key ?? '')">
            <b>{{ column.wave.key }}</b><span>{{ column.wave.name }}, {{ day(column.wave.start, zone) }}</span><b>{{ column.wave.databases }}</b>
          </button>
          <WaveColumn v-else :wave="column.wave" :groups="byWave.get(column.wave.key) ?? []" :preview="picked ? preview?.find((one) => one.wave === column.wave.key) : undefined" :picked="picked" :zone="zone" :may-move="isLead" @pick="pick" @drag="(group) => (picked = group.key)" @place="picked && place(picked, column.wave.key)" @open="dossier.open" @lock="lock" />
        </template>
      </div>
    </div>
    <PlanSheet v-if="planOpen && draft?.draft" :draft="draft.draft" :groups="waves?.groups ?? []" @close="planOpen = false" />
  </div>
</template>

<style scoped>
.past { width: 36px; flex: none; border: 1px solid var(--rule); background: none; color: var(--ink2); font: inherit; display: flex; flex-direction: column; align-items: center; gap: 8px; padding: 7px 0; cursor: pointer; }
.past b { font-size: 12px; color: var(--ink); }
.past span { writing-mode: vertical-rl; flex: 1; text-align: left; font-size: 12px; }
.board { display: flex; flex: 1; gap: 6px; padding: 10px; overflow-x: auto; overflow-y: hidden; }
.none { width: 136px; flex: none; display: flex; flex-direction: column; min-height: 0; }
.none h2 { padding-bottom: 6px; }
.list { flex: 1; }
.freeze { width: 30px; flex: none; background: repeating-linear-gradient(135deg, var(--rule2) 0 5px, transparent 5px 11px); display: grid; place-items: center; }
.freeze span { writing-mode: vertical-rl; background: var(--paper); padding: 8px 2px; color: var(--ink2); font-weight: 600; font-size: 12px; }
.t-btn.v-btn.draft { background: var(--look-soft); color: var(--look); border-color: transparent; }
</style>
