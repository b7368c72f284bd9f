<script setup lang="ts">
import { mdiLock, mdiLockOpenOutline } from "@mdi/js";
import { computed } from "vue";
import type { Schemas } from "../api/client";
import { bytes, minutes } from "../shared/format";
import { blockHeight } from "./waveColumns";

const props = defineProps<{ group: Schemas["GroupView"]; picked: boolean; mayMove: boolean }>();
const emit = defineEmits<{ pick: []; drag: []; open: [key: string]; lock: [] }>();
const RISK = ["low", "medium", "high", "critical"];
const fixed = computed(() => props.group.committed);
const said = computed(
  () =>
    `${props.group.members.join(", ")}; ${RISK[props.group.risk]}; outage ${minutes(props.group.outageMinutes)}` +
    `${props.group.following ? " on a following route" : " offline"}, permitted ${minutes(props.group.permittedOutageMinutes)}` +
    `${props.group.problem ? "; " + props.group.problem : ""}${fixed.value ? "; prepared or beyond, stays" : ""}`,
);
</script>

<template>
  <article
    class="block"
    :class="[{ picked, wrong: group.problem && group.wave, fixed }, `risk${group.risk}`]"
    :style="{ minHeight: blockHeight(group.members.length) + 'px' }"
    :draggable="mayMove && !fixed"
    :title="said"
    @dragstart="emit('drag')"
  >
    <button class="name" :disabled="!mayMove || fixed" :aria-pressed="picked" @click="emit('pick')">{{ group.name }}</button>
    <button v-if="mayMove && group.wave && !fixed" class="lock" :class="{ on: group.locked }" :aria-label="group.locked ? 'Unlock' : 'Lock to its wave'" :aria-pressed="group.locked" @click="emit('lock')">
      <svg width="13" height="13" viewBox="0 0 24 24"><path :d="group.locked ? mdiLock : mdiLockOpenOutline" fill="currentColor" /></svg>
    </button>
    <button class="words" @click="emit('open', group.key)">
      {{ group.members.length }} db, {{ group.sizeKnown ? bytes(group.bytes) : "size unknown" }}
    </button>
    <p v-if="group.problem && group.wave" class="act problem-words">{{ group.problem }}</p>
  </article>
</template>

<style scoped>
.block { background: var(--surface); border: 1px solid var(--rule); border-left: 3px solid var(--ink3); border-radius: 3px; padding: 1px 6px 2px 7px; margin-bottom: 5px; position: relative; }
.risk0 { border-left-color: var(--rule); }
.risk1 { border-left-color: var(--ink3); }
.risk2 { border-left-color: var(--ink2); }
.risk3 { border-left-color: var(--ink); }
.picked { border-color: var(--current); background: var(--current-soft); }
.wrong { border-color: var(--act); }
.fixed { background: transparent; }
button { background: none; border: 0; font: inherit; color: inherit; padding: 0; text-align: left; display: block; max-width: 100%; min-height: 24px; min-width: 24px; line-height: 24px; }
.name { font-weight: 600; cursor: grab; font-stretch: 94%; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }

.name:disabled { cursor: default; }
.words { white-space: nowrap; overflow: hidden; text-overflow: ellipsis; font-size: 11.5px; color: var(--ink2); cursor: pointer; font-stretch: 90%; }
.words:hover { text-decoration: underline; }
.lock { position: absolute; right: 0; top: 1px; text-align: center; background: var(--surface); color: var(--ink3); cursor: pointer; opacity: 0; }
.block:hover .lock, .lock.on, .lock:focus-visible { opacity: 1; }
.lock.on { color: var(--ink); }
.problem-words { font-size: 11px; line-height: 1.25; margin-top: 2px; font-stretch: 90%; overflow-wrap: anywhere; }
</style>
