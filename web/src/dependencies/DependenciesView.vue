<script setup lang="ts">
import { computed, ref } from "vue";
import { useDossier } from "../frame/useDossier";
import { useDependencies, usePlaces } from "../shared/queries";
import { mayWork } from "../team/session";
import StateTieSheet from "./StateTieSheet.vue";
import TieDetail from "./TieDetail.vue";
import TieMatrix from "./TieMatrix.vue";
import TieSummary from "./TieSummary.vue";
import { matrix } from "./matrixLayout";

const { data: dependencies, isError } = useDependencies();
const { byKey } = usePlaces();
const dossier = useDossier();
const stating = ref(false);
const chosen = ref<number>();
const held = computed(() => dependencies.value?.ties.filter((tie) => tie.state !== "REJECTED") ?? []);
const groups = computed(() => dependencies.value?.groups ?? []);
const drawn = computed(() => matrix(held.value, groups.value, (key) => byKey.value.get(key)?.wave ?? undefined));
const large = computed(() => groups.value.filter((group) => group.members.length > 1).length);
const cut = computed(() => drawn.value.cells.filter((cell) => cell.cut).length);
const proposed = computed(() => held.value.filter((tie) => tie.state === "PROPOSED"));
const tie = computed(() => dependencies.value?.ties.find((one) => one.id === chosen.value));
</script>

<template>
  <div class="view">
    <div class="bar">
      <h1>Dependencies</h1>
      <template v-if="held.length">
        <span class="chip">{{ drawn.order.length }} databases, {{ held.length }} ties</span>
        <span class="chip">{{ large }} move groups of two or more</span>
        <span v-if="cut" class="chip warn">{{ cut }} ties cut by the plan</span>
      </template>
      <div class="grow" />
      <v-btn v-if="proposed.length" class="confirm" @click="chosen = proposed[0].id">{{ proposed.length }} to confirm</v-btn>
      <v-btn v-if="mayWork" @click="stating = true">State a tie</v-btn>
    </div>
    <div class="work">
      <div v-if="isError" class="empty"><h2>The ties could not be read</h2></div>
      <div v-else-if="dependencies && !held.length" class="empty">
        <h2>No tie is known yet</h2>
        <p>Ties are seen when a live server is read, come from a CSV, or are stated by you. Databases with bound ties cross together.</p>
        <div v-if="mayWork" class="row"><v-btn class="go" @click="stating = true">State a tie</v-btn><v-btn :to="{ name: 'inventory' }">Read a file or a server</v-btn></div>
      </div>
      <template v-else>
        <TieMatrix :matrix="drawn" :subject="dossier.subject.value" :chosen="chosen" @choose="(id) => (chosen = id)" @open="dossier.open" />
        <TieDetail v-if="tie" :tie="tie" @open="dossier.open" @close="chosen = undefined" />
        <TieSummary v-else-if="!dossier.subject.value" :cells="drawn.cells" :groups="groups" @choose="(id) => (chosen = id)" @open="dossier.open" />
      </template>
    </div>
    <StateTieSheet v-if="stating" @close="stating = false" />
  </div>
</template>

<style scoped>
.t-btn.v-btn.confirm { background: var(--look-soft); color: var(--look); border-color: transparent; }
</style>
