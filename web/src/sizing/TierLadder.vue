<script setup lang="ts">
import { computed, nextTick, ref, watch } from "vue";
import type { Schemas } from "../api/client";
import { exact, money, percent } from "../shared/format";

const props = defineProps<{ sizing: Schemas["DatabaseSizing"] }>();
const DIMENSIONS = [
  ["CPU", "CPU"],
  ["MEMORY", "memory"],
  ["READS", "reads"],
  ["WRITES", "writes"],
  ["THROUGHPUT", "MiB/s"],
  ["LOG", "log"],
  ["CONNECTIONS", "conn."],
  ["STORAGE", "storage"],
] as const;
const list = ref<HTMLElement | null>(null);
/** The rungs around the fit; the whole ladder is one click away. */
const all = ref(false);
const shown = computed(() => {
  const { ladder, chosen } = props.sizing;
  if (all.value) return ladder;
  const at = ladder.findIndex((rung) => rung.tierId === chosen);
  return at < 0 ? ladder.slice(0, 6) : ladder.slice(Math.max(0, at - 1), at + 3);
});
watch(
  () => props.sizing.key,
  async () => {
    all.value = false;
    await nextTick();
    list.value?.scrollTo({ top: 0 });
  },
);
</script>

<template>
  <aside ref="list" class="ladder scroll" tabindex="0" aria-label="Tiers by price">
    <h2 class="cap">Tiers by price <button v-if="sizing.ladder.length > shown.length" class="link" @click="all = true">All {{ sizing.ladder.length }}</button></h2>
    <p class="reason">{{ sizing.reason }}</p>
    <article v-for="rung in shown" :key="rung.tierId" :class="{ fit: rung.tierId === sizing.chosen }">
      <header>
        <b>{{ rung.tier }}</b>
        <span class="dim grow">{{ rung.cpuCores }} cores, {{ rung.memoryGib }} GiB</span>
        <b>{{ money(rung.monthlyPrice, sizing.currency ?? "") }}</b>
      </header>
      <p class="dim kind">{{ rung.kind }}, {{ exact(rung.storageGib) }} GiB of storage</p>
      <template v-for="[id, label] in DIMENSIONS" :key="id">
        <div v-if="rung.utilisation[id] != null" class="use" :class="{ over: rung.utilisation[id] > 1, binds: rung.binding === id && rung.feasible }">
          <span>{{ label }}</span>
          <i><b :style="{ width: Math.min(100, rung.utilisation[id] * 100) + '%' }" /></i>
          <span class="num">{{ percent(rung.utilisation[id]) }}</span>
        </div>
      </template>
      <p class="verdict" :class="rung.feasible ? (rung.tierId === sizing.chosen ? 'ok' : 'dim') : 'act'">{{ rung.verdict }}</p>
    </article>
  </aside>
</template>

<style scoped>
.ladder { width: 288px; flex: none; border-left: 1px solid var(--rule); background: var(--surface); padding: 10px 14px; }
h2 { display: flex; justify-content: space-between; }
.reason { margin: 6px 0 10px; }
article { border: 1px solid var(--rule); border-radius: 4px; padding: 7px 10px; margin-bottom: 8px; }
article.fit { border-color: var(--proved); background: var(--proved-soft); }
header { display: flex; gap: 8px; align-items: baseline; white-space: nowrap; }
header .grow { overflow: hidden; text-overflow: ellipsis; font-size: 12px; }
.kind { font-size: 11.5px; font-stretch: 92%; margin-bottom: 3px; }
.use { display: grid; grid-template-columns: 52px 1fr 44px; gap: 6px; align-items: center; font-size: 11px; line-height: 13px; color: var(--ink2); }
.use i { height: 6px; background: var(--rule2); display: block; }
.use i b { display: block; height: 6px; background: var(--current); }
.use.binds { color: var(--look); font-weight: 600; }
.use.binds i b { background: var(--look-mark); }
.use.over { color: var(--act); font-weight: 600; }
.use.over i b { background: var(--act); }
.verdict { margin-top: 4px; font-size: 12px; }
</style>
