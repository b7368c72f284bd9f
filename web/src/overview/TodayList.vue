<script setup lang="ts">
import { useQuery } from "@tanstack/vue-query";
import { useRoute, useRouter } from "vue-router";
import { api, data, type Schemas } from "../api/client";
import { time } from "../shared/format";

defineProps<{ zone: string }>();
const route = useRoute();
const router = useRouter();
const { data: items } = useQuery({
  queryKey: ["overview", "today"],
  queryFn: () => data(api.GET("/api/v1/overview/today")),
});

function go(item: Schemas["TodayItem"]) {
  const subject = item.database ?? route.query.subject;
  void router.push({
    name: item.station,
    query: { subject, tab: item.database ? "crossing" : route.query.tab },
  });
}
</script>

<template>
  <aside class="today scroll" aria-label="Today">
    <h2 class="cap">Today</h2>
    <p v-if="items?.length === 0" class="dim quiet">Nothing waits for you, and no window is near.</p>
    <article v-for="(item, i) in items" :key="i">
      <h3 :class="item.tone.toLowerCase()">{{ item.title }}</h3>
      <p class="dim">{{ item.words }}</p>
      <p v-if="item.at" class="dim small">{{ time(item.at, zone) }}</p>
      <button class="link" @click="go(item)">{{ item.action }}</button>
    </article>
  </aside>
</template>

<style scoped>
.today { width: 260px; flex: none; border-left: 1px solid var(--rule); background: var(--surface); padding: 12px 14px; }
article { border-bottom: 1px solid var(--rule2); padding: 8px 0 10px; overflow-wrap: anywhere; }
h3 { font-size: 13px; font-weight: 600; }
.small { font-size: 12px; }
.quiet { padding: 12px 0; }
</style>
