<script setup lang="ts">
import { computed } from "vue";
import type { Schemas } from "../api/client";
import { day, percent } from "../shared/format";
import GroupBlock from "./GroupBlock.vue";
import { fills } from "./waveColumns";

type Group = Schemas["GroupView"];
const props = defineProps<{
  wave: Schemas["WaveView"];
  groups: Group[];
  preview?: Schemas["WavePreview"];
  picked?: string;
  zone: string;
  mayMove: boolean;
}>();
const emit = defineEmits<{ pick: [group: Group]; drag: [group: Group]; place: []; open: [key: string]; lock: [group: Group] }>();
const hours = computed(() => Math.round((Date.parse(props.wave.end) - Date.parse(props.wave.start)) / 3_600_000));
const tone = (ratio: number) => (ratio > 1 ? "over" : ratio > 0.85 ? "near" : "");
const verdict = computed(() => {
  const preview = props.preview;
  if (!preview) return undefined;
  if (preview.here) return { tone: "good", head: "here now", words: preview.breaks[0] ?? "" };
  if (!preview.open) return { tone: "bad", head: "has begun", words: "" };
  const cut = preview.cutTies ? `${preview.cutTies} ties cut` : "no tie cut";
  if (preview.breaks.length) return { tone: "bad", head: "breaks", words: preview.breaks[0] };
  const delta = preview.costDelta;
  const head = Math.abs(delta) < 0.05 ? "±0" : `${delta > 0 ? "+" : "−"}${Math.abs(delta).toFixed(Math.abs(delta) < 10 ? 1 : 0)}`;
  return { tone: delta > 0.05 ? "warn" : "good", head, words: cut };
});
</script>

<template>
  <section class="column" :class="{ closed: !wave.open }" :aria-label="`${wave.key} ${wave.name}`" @dragover.prevent @drop.prevent="emit('place')">
    <header>
      <h2><b>{{ wave.key }}</b> {{ wave.name }}</h2>
      <p class="dim">{{ day(wave.start, zone) }}, <template v-if="wave.open">{{ hours }} h</template><template v-else>begun</template></p>
      <div v-for="fill in fills(wave)" :key="fill.label" class="fill" :class="tone(fill.ratio)" :title="fill.words">
        <span>{{ fill.label }}</span><i><b :style="{ width: Math.min(100, fill.ratio * 100) + '%' }" /></i><span class="num">{{ percent(fill.ratio) }}</span>
      </div>
    </header>
    <div class="groups scroll">
      <GroupBlock v-for="group in groups" :key="group.key" :group="group" :picked="group.key === picked" :may-move="mayMove" @pick="emit('pick', group)" @drag="emit('drag', group)" @open="(key) => emit('open', key)" @lock="emit('lock', group)" />
      <p v-if="!groups.length" class="dim nothing">empty</p>
    </div>
    <button v-if="verdict" class="verdict" :class="verdict.tone" :disabled="!mayMove || preview?.here || !preview?.open" :aria-label="`Place in ${wave.key}: ${verdict.head} ${verdict.words}`" @click="emit('place')">
      <b>{{ verdict.head }}</b><span>{{ verdict.words }}</span>
    </button>
  </section>
</template>

<style scoped>
.column { flex: 1 0 104px; width: 104px; max-width: 190px; display: flex; flex-direction: column; background: var(--surface); border: 1px solid var(--rule); min-height: 0; }
.closed { background: transparent; }
header { padding: 7px 6px; border-bottom: 1px solid var(--rule2); }
h2 { font-size: 12.5px; font-weight: 400; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; font-stretch: 94%; }
h2 b { font-weight: 650; }
header p { font-size: 11.5px; margin-bottom: 4px; white-space: nowrap; }
.fill { display: grid; grid-template-columns: 42px 1fr 28px; gap: 4px; font-size: 10.5px; line-height: 14px; align-items: center; color: var(--ink2); font-stretch: 88%; }
.fill i { background: var(--rule2); height: 6px; display: block; }
.fill i b { display: block; height: 6px; background: var(--current); }
.fill.near i b { background: var(--look-mark); }
.fill.over { color: var(--act); font-weight: 600; }
.fill.over i b { background: var(--act); }
.groups { flex: 1; padding: 5px; }
.nothing { text-align: center; padding: 10px; }
.verdict { border: 0; font: inherit; text-align: left; padding: 6px 8px; min-height: 64px; display: flex; flex-direction: column; gap: 2px; cursor: pointer; margin: 0 5px 5px; border-radius: 3px; }
.verdict:disabled { cursor: default; }
.verdict span { font-size: 11px; line-height: 1.25; font-stretch: 92%; color: var(--ink); display: -webkit-box; -webkit-line-clamp: 4; line-clamp: 4; -webkit-box-orient: vertical; overflow: hidden; overflow-wrap: anywhere; }
.good { background: var(--proved-soft); color: var(--proved); }
.warn { background: var(--look-soft); color: var(--look); }
.bad { background: var(--act-soft); color: var(--act); }
</style>
