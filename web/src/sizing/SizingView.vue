<script setup lang="ts">
import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/vue-query";
import { computed } from "vue";
import { useRoute, useRouter } from "vue-router";
import { api, data } from "../api/client";
import { useDossier } from "../frame/useDossier";
import { useViewKeys } from "../frame/useKeys";
import { money } from "../shared/format";
import { attempt } from "../shared/notices";
import { isLead } from "../team/session";
import SeriesPanel from "./SeriesPanel.vue";
import SizingList from "./SizingList.vue";
import TierLadder from "./TierLadder.vue";
import { useSizing } from "./useSizing";

const { percentile, headroom, horizon, settled, estate, reset, programme } = useSizing();
const client = useQueryClient();
const route = useRoute();
const router = useRouter();
const dossier = useDossier();
const rows = computed(() => estate.data.value?.rows ?? []);
const key = computed(
  () => (typeof route.query.of === "string" ? route.query.of : "") || dossier.subject.value || rows.value[0]?.key || "",
);
const show = (wanted: string) =>
  router.replace({ query: { ...route.query, of: wanted, ...(dossier.subject.value ? { subject: wanted } : {}) } });
const { data: sizing } = useQuery({
  queryKey: ["sizing", "database", key, settled],
  queryFn: () =>
    data(api.GET("/api/v1/sizing/database", { params: { query: { key: key.value, ...settled.value } } })),
  enabled: computed(() => key.value !== ""),
  placeholderData: keepPreviousData,
});
const currency = computed(() => estate.data.value?.currency ?? "GBP");
const delta = computed(() => (estate.data.value?.monthlyPrice ?? 0) - (estate.data.value?.keptMonthlyPrice ?? 0));
const trying = computed(() => Object.values(settled.value).some((value) => value !== undefined));

useViewKeys((pressed) => {
  const index = rows.value.findIndex((row) => row.key === key.value);
  if (pressed === "j") void show(rows.value[Math.min(index + 1, rows.value.length - 1)].key);
  if (pressed === "k") void show(rows.value[Math.max(index - 1, 0)].key);
  if (pressed === "Enter" && key.value) void dossier.open(key.value);
});

async function keep() {
  const now = programme.value;
  const ok = await attempt(
    () =>
      data(
        api.PUT("/api/v1/programme/sizing", {
          params: { header: { "If-Match": `"${estate.data.value?.keptVersion}"` } },
          body: {
            ...now!.sizing,
            percentile: percentile.value,
            headroomPercent: headroom.value,
            horizonMonths: horizon.value,
          },
        }),
      ),
    "Settings kept for the whole programme",
  );
  await client.invalidateQueries({ queryKey: ["programme"] });
  await client.invalidateQueries({ queryKey: ["sizing"] });
  if (ok) await reset();
}
</script>

<template>
  <div class="view">
    <div class="bar">
      <h1>Sizing</h1>
      <template v-if="estate.data.value?.catalogue">
        <label class="cap" for="percentile">Percentile</label>
        <v-slider id="percentile" v-model="percentile" :min="50" :max="100" :step="1" class="slider" aria-label="Percentile" /><b class="value">P{{ percentile }}</b>
        <label class="cap" for="headroom">Headroom</label>
        <v-slider id="headroom" v-model="headroom" :min="0" :max="100" :step="5" class="slider" aria-label="Headroom in percent" /><b class="value">{{ headroom }}%</b>
        <label class="cap" for="horizon">Horizon</label>
        <v-slider id="horizon" v-model="horizon" :min="0" :max="60" :step="3" class="slider short" aria-label="Horizon in months" /><b class="value">{{ horizon }} mo</b>
        <div class="grow" />
        <b class="total">{{ money(estate.data.value.monthlyPrice, currency) }}</b><span class="dim">a month</span>
        <span v-if="trying" class="chip warn">{{ delta > 0 ? "+" : "" }}{{ money(delta, currency) }}, {{ estate.data.value.changed }} change tier</span>
        <v-btn v-if="trying" @click="reset">Reset</v-btn>
        <v-btn v-if="trying && isLead" class="go" @click="keep">Keep</v-btn>
      </template>
    </div>
    <div class="work">
      <div v-if="estate.data.value && !estate.data.value.catalogue" class="empty">
        <h2>No catalogue yet</h2>
        <p>Sizes are chosen from the destination's catalogue, a JSON file. The lead reads it where files are read.</p>
        <div class="row"><v-btn class="go" :to="{ name: 'inventory' }">Go to the inventory</v-btn></div>
      </div>
      <div v-else-if="estate.isError.value" class="empty"><h2>Sizes could not be worked out</h2><p>{{ estate.error.value?.message }}</p></div>
      <template v-else>
        <SizingList :rows="rows" :current="key" :currency="currency" @show="show" />
        <template v-if="sizing">
          <SeriesPanel :sizing="sizing" />
          <TierLadder v-if="!dossier.subject.value" :sizing="sizing" />
        </template>
        <div v-else class="empty">Reading the series…</div>
      </template>
    </div>
  </div>
</template>

<style scoped>
.slider { width: 96px; flex: none; }
.slider.short { width: 70px; }
.value { min-width: 34px; white-space: nowrap; font-weight: 600; }
.total { font-size: 15px; }
</style>
