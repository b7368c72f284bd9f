<script setup lang="ts">
import { keepPreviousData, useQuery } from "@tanstack/vue-query";
import { computed } from "vue";
import { useRoute, useRouter } from "vue-router";
import { api, data } from "../api/client";
import { useDossier } from "../frame/useDossier";
import { day } from "../shared/format";
import { sizeTogether } from "../inventory/rows";
import { useEstate, useProgramme } from "../shared/queries";
import CrossingPicture from "./CrossingPicture.vue";
import ReplayScrubber from "./ReplayScrubber.vue";
import TodayList from "./TodayList.vue";

const route = useRoute();
const router = useRouter();
const dossier = useDossier();
const { zone } = useProgramme();
const { data: databases } = useEstate("DATABASE");
const at = computed({
  get: () => (typeof route.query.at === "string" ? route.query.at : undefined),
  set: (value) => void router.replace({ query: { ...route.query, at: value } }),
});
const { data: picture, isError } = useQuery({
  queryKey: ["overview", "picture", at],
  queryFn: () => data(api.GET("/api/v1/overview/picture", { params: { query: { at: at.value } } })),
  placeholderData: keepPreviousData,
});
const dispositions = computed(() => {
  const counts = new Map<string, number>();
  for (const row of databases.value?.rows ?? []) {
    const name = row.text("disposition") ?? "undecided";
    counts.set(name, (counts.get(name) ?? 0) + 1);
  }
  return [...counts].sort((a, b) => b[1] - a[1]);
});
const total = computed(() => sizeTogether(databases.value?.rows ?? []));
</script>

<template>
  <div class="view">
    <div class="bar">
      <h1>Where the estate {{ at ? "stood" : "stands" }}</h1>
      <template v-if="databases?.rows.length">
        <span class="chip">{{ databases.rows.length }} databases, {{ total }}</span>
        <span v-for="[name, count] in dispositions" :key="name" class="chip">{{ count }} {{ name }}</span>
      </template>
      <div class="grow" />
      <span v-if="at" class="chip warn">as of {{ day(at, zone) }}</span>
    </div>
    <div class="work">
      <div v-if="databases && !databases.rows.length" class="empty">
        <h2>An empty programme</h2>
        <p>It begins with an inventory: a spreadsheet of your databases, or a live server.</p>
        <div class="row"><v-btn class="go" :to="{ name: 'inventory' }">Read an inventory</v-btn></div>
        <p style="margin-top: 12px">To look around first, start <span class="mono">./transitum demo</span>.</p>
      </div>
      <div v-else-if="isError" class="empty"><h2>The picture could not be read</h2><p>It comes back with the connection.</p></div>
      <template v-else-if="picture">
        <div class="left">
          <CrossingPicture :picture="picture" :zone="zone" :subject="dossier.subject.value" @open="dossier.open" />
          <ReplayScrubber v-model:at="at" :activity="picture.activity" :zone="zone" />
        </div>
        <TodayList v-if="!dossier.subject.value" :zone="zone" />
      </template>
    </div>
  </div>
</template>

<style scoped>
.left { flex: 1; min-width: 0; display: flex; flex-direction: column; }
</style>
