<script setup lang="ts">
import { useQueryClient } from "@tanstack/vue-query";
import { computed, ref } from "vue";
import { api, data, type Schemas } from "../api/client";
import { percent, seconds, UNKNOWN, words } from "../shared/format";
import { attempt } from "../shared/notices";
import { useCrossings, usePeople, usePlaces } from "../shared/queries";
import { isLead, mayWork, me } from "../team/session";
import MoveSheet from "./MoveSheet.vue";
import ReportLine from "./ReportLine.vue";
import StageLine from "./StageLine.vue";
import { ASKS_REASON, CONSEQUENCE, DANGER, MOVE_WORDS } from "./crossingWords";

type Move = Schemas["MoveRequest"]["move"];
const props = defineProps<{ subject: string }>();
const client = useQueryClient();
const { byKey } = usePlaces();
const { data: crossings } = useCrossings();
const { data: people } = usePeople();
const place = computed(() => byKey.value.get(props.subject));
const crossing = computed(() => crossings.value?.find((one) => one.database === props.subject));
const asked = ref<Move>();
const owner = ref<string | null>(null);
const workers = computed(() =>
  (people.value ?? []).filter((person) => person.role === "ENGINEER" || person.role === "LEAD").map((person) => ({ title: person.name, value: person.login })),
);
const mine = computed(() => isLead.value || !crossing.value?.owner || crossing.value.owner === me.value?.login);
const after = () => Promise.all(["crossings", "places", "overview", "journal"].map((key) => client.invalidateQueries({ queryKey: [key] })));
const header = () => ({ "If-Match": `"${crossing.value?.version}"` });
const path = () => ({ key: crossing.value?.key ?? "" });

const become = (wanted: "PREPARED" | "SETTLED" | "RETIRED") =>
  attempt(() => data(api.PUT("/api/v1/crossings/places", { body: { database: props.subject, place: wanted } })), `${props.subject} is ${words(wanted)}`).then(after);
const setUp = () =>
  attempt(() => data(api.POST("/api/v1/crossings", { body: { database: props.subject, owner: owner.value ?? undefined } })), "Crossing set up").then(after);
const assign = (login: string) =>
  attempt(() => data(api.PUT("/api/v1/crossings/{key}/owner", { params: { path: path(), header: header() }, body: { owner: login } })), "Assigned").then(after);
const report = (progress?: number, lagSeconds?: number) =>
  attempt(() => data(api.POST("/api/v1/crossings/{key}/reports", { params: { path: path(), header: header() }, body: { progress, lagSeconds } }))).then(after);
async function move(wanted: Move, reason?: string) {
  asked.value = undefined;
  await attempt(() =>
    data(api.POST("/api/v1/crossings/{key}/moves", { params: { path: path(), header: header() }, body: { move: wanted, reason } })),
  );
  await after();
}
const ask = (wanted: Move) => (CONSEQUENCE[wanted] || ASKS_REASON.includes(wanted) ? (asked.value = wanted) : void move(wanted));
</script>

<template>
  <template v-if="crossing">
    <p class="head">
      <span class="mono">{{ crossing.key }}</span> {{ words(crossing.stage) }}<b v-if="crossing.condition !== 'RUNNING'" class="act">, {{ words(crossing.condition) }}</b>
    </p>
    <StageLine :stage="crossing.stage" :condition="crossing.condition" />
    <p v-if="crossing.reason" class="problem reason">{{ crossing.reason }}</p>
    <dl>
      <dt class="dim">with</dt>
      <dd>
        <v-select v-if="mayWork && crossing.open" :model-value="crossing.owner" :items="workers" placeholder="nobody yet" aria-label="Assigned to" @update:model-value="(login: string | null) => login && assign(login)" />
        <template v-else>{{ people?.find((person) => person.login === crossing?.owner)?.name ?? "nobody" }}</template>
      </dd>
      <dt class="dim">copied</dt>
      <dd>{{ percent(crossing.progress) }}</dd>
      <dt class="dim">behind</dt>
      <dd>{{ crossing.lagSeconds == null ? UNKNOWN : seconds(crossing.lagSeconds) }}</dd>
    </dl>
    <template v-if="mayWork && crossing.open">
      <p v-if="!mine" class="dim">Only the person it is with, or the lead, moves it.</p>
      <template v-else>
        <ReportLine v-if="crossing.stage === 'COPYING'" label="Copied, %" :value="Math.round(crossing.progress * 100)" :max="100" @report="(value) => report(value / 100, undefined)" />
        <ReportLine v-if="crossing.stage === 'FOLLOWING' || crossing.stage === 'HELD'" label="Behind, seconds" :value="crossing.lagSeconds ?? 0" :max="1e9" @report="(value) => report(undefined, value)" />
        <div class="moves">
          <v-btn v-for="one in crossing.legalMoves" :key="one" :class="{ danger: DANGER.includes(one), go: !DANGER.includes(one) && one !== 'HOLD' }" @click="ask(one)">{{ MOVE_WORDS[one] }}</v-btn>
        </div>
      </template>
    </template>
  </template>
  <p v-else class="quiet dim">No crossing has run yet. {{ place?.wave ? `It is in ${place.wave}.` : "It has no wave." }}</p>
  <div v-if="mayWork && place && !crossing?.open" class="moves">
    <v-btn v-if="place.place === 'PLANNED'" class="go" @click="become('PREPARED')">Mark prepared</v-btn>
    <template v-if="place.place === 'PREPARED'">
      <v-select v-model="owner" :items="workers" label="Assign to" class="who" />
      <v-btn class="go" @click="setUp">Set up a crossing</v-btn>
    </template>
    <v-btn v-if="place.place === 'LANDED'" class="go" @click="become('SETTLED')">Mark settled</v-btn>
    <v-btn v-if="place.place === 'SETTLED'" class="danger" @click="become('RETIRED')">Mark its source retired</v-btn>
  </div>
  <MoveSheet v-if="asked && crossing" :move="asked" :crossing="crossing" @close="asked = undefined" @move="(reason) => move(asked!, reason)" />
</template>

<style scoped>
.head { font-weight: 600; padding: 8px 0; }
.reason { margin: 6px 0; }
dl { display: grid; grid-template-columns: 84px 1fr; align-items: center; }
dt, dd { padding: 5px 0; border-bottom: 1px solid var(--rule2); min-height: 34px; display: flex; align-items: center; }
.moves { display: flex; flex-wrap: wrap; gap: 8px; margin-top: 14px; align-items: center; }
.who { min-width: 180px; }
.quiet { padding: 10px 0; }
</style>
