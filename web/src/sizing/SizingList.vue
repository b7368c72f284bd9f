<script setup lang="ts">
import { useVirtualizer } from "@tanstack/vue-virtual";
import { computed, ref } from "vue";
import type { Schemas } from "../api/client";
import { money } from "../shared/format";

const props = defineProps<{ rows: Schemas["SizingRow"][]; current: string; currency: string }>();
defineEmits<{ show: [key: string] }>();
const box = ref<HTMLElement | null>(null);
const virtual = useVirtualizer(
  computed(() => ({ count: props.rows.length, getScrollElement: () => box.value, estimateSize: () => 30, overscan: 15 })),
);
const flag = (row: Schemas["SizingRow"]) =>
  !row.tier
    ? { words: "unknown", tone: "act" }
    : row.tier !== row.keptTier
      ? { words: `${row.keptTier ?? "none"} → ${row.tier}`, tone: "look" }
      : row.confidence.level === "LOW"
        ? { words: "weak", tone: "look" }
        : undefined;
</script>

<template>
  <section class="list" aria-label="Databases by price">
    <header class="cap"><span>Database, by price</span><span>{{ currency }} a month</span></header>
    <div ref="box" class="scroll">
      <ul :style="{ height: virtual.getTotalSize() + 'px' }">
        <li v-for="item in virtual.getVirtualItems()" :key="rows[item.index].key" :style="{ transform: `translateY(${item.start}px)` }">
          <button :class="{ here: rows[item.index].key === current }" :aria-current="rows[item.index].key === current || undefined" :title="rows[item.index].reason ?? rows[item.index].confidence.reason" @click="$emit('show', rows[item.index].key)">
            <span class="key">{{ rows[item.index].key.replace("/", " / ") }}</span>
            <span v-if="flag(rows[item.index])" class="flag" :class="flag(rows[item.index])?.tone">{{ flag(rows[item.index])?.words }}</span>
            <span class="price">{{ rows[item.index].monthlyPrice == null ? "—" : money(rows[item.index].monthlyPrice, currency) }}</span>
          </button>
        </li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
.list { width: 258px; flex: none; border-right: 1px solid var(--rule); background: var(--surface); display: flex; flex-direction: column; min-height: 0; }
header { display: flex; justify-content: space-between; padding: 7px 10px; border-bottom: 1px solid var(--rule); }
.scroll { flex: 1; }
ul { list-style: none; padding: 0; position: relative; }
li { position: absolute; left: 0; right: 0; height: 30px; }
button { width: 100%; height: 30px; display: flex; align-items: center; gap: 6px; padding: 0 10px; background: none; border: 0; border-bottom: 1px solid var(--rule2); font: inherit; color: inherit; cursor: pointer; text-align: left; }
button.here { background: var(--current-soft); box-shadow: inset 3px 0 var(--current); }
.key { flex: 1; min-width: 0; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; font-stretch: 94%; }
.flag { font-size: 11px; white-space: nowrap; font-stretch: 88%; }
</style>
