<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { computed } from "vue";
import { useRoute } from "vue-router";
import { api, data } from "../api/client";
import { stations } from "../router";

const route = useRoute();
const { data: left } = useQuery({
  queryKey: ["overview", "left"],
  queryFn: () => data(api.GET("/api/v1/overview/left")),
});
const byStation = computed(() => new Map((left.value ?? []).map((entry) => [entry.station, entry])));
const kept = computed(() => ({ subject: route.query.subject, tab: route.query.tab }));
</script>

<template>
  <nav aria-label="Stations">
    <RouterLink
      v-for="station in stations"
      :key="station.name"
      :to="{ name: station.name, query: kept }"
      :class="{
        here: route.name === station.name,
        done: byStation.get(station.name)?.done,
        act: byStation.get(station.name)?.tone === 'ACT',
      }"
      :aria-current="route.name === station.name ? 'page' : undefined"
    >
      <i aria-hidden="true" />
      <b>{{ station.label }}</b>
      <span>{{ byStation.get(station.name)?.words ?? "" }}</span>
    </RouterLink>
  </nav>
</template>

<style scoped>
nav { border-right: 1px solid var(--rule); padding: 14px 0; position: relative; background: var(--paper); overflow: auto; }
a {
  display: grid; grid-template-columns: 18px 1fr; column-gap: 10px; padding: 7px 10px 7px 16px; position: relative;
  color: var(--ink); min-height: 52px; align-content: start; text-decoration: none;
}
a b { font-weight: 600; }
a span { grid-column: 2; color: var(--ink2); font-size: 12px; font-stretch: 92%; min-height: 16px; }
a.act span { color: var(--act); }
a.done span { color: var(--proved); }
a::before { content: ""; position: absolute; left: 24px; top: 0; bottom: 0; width: 2px; background: var(--rule); }
a:first-child::before { top: 14px; }
a:last-child::before { bottom: 36px; }
i { width: 12px; height: 12px; border: 2px solid var(--ink3); border-radius: 50%; background: var(--paper); z-index: 1; margin: 3px 0 0 3px; }
a.done i { background: var(--proved); border-color: var(--proved); }
a.here { background: var(--current-soft); }
a.here i { border-color: var(--current); background: var(--current); }
a.here b { color: var(--current); }
a.here::after { content: ""; position: absolute; left: 0; top: 0; bottom: 0; width: 3px; background: var(--current); }
a:focus-visible { outline-offset: -3px; }
</style>
