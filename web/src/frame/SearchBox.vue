<script setup lang="ts">
import { computed, ref } from "vue";
import { useCrossings, useEstate } from "../shared/queries";
import { find } from "./find";
import { useDossier } from "./useDossier";

const text = ref("");
const open = ref(false);
const at = ref(0);
const { data: databases } = useEstate("DATABASE");
const { data: crossings } = useCrossings();
const dossier = useDossier();
const hits = computed(() => find(text.value, databases.value?.rows ?? [], crossings.value ?? []));

function choose(index: number) {
  const hit = hits.value[index];
  if (!hit) return;
  void dossier.open(hit.database);
  open.value = false;
  text.value = "";
  document.getElementById("find")?.blur();
}
function onKey(event: KeyboardEvent) {
  if (event.key === "ArrowDown") at.value = Math.min(at.value + 1, hits.value.length - 1);
  else if (event.key === "ArrowUp") at.value = Math.max(at.value - 1, 0);
  else if (event.key === "Enter") choose(at.value);
  else if (event.key === "Escape") (event.target as HTMLElement).blur();
  else return;
  event.preventDefault();
}
</script>

<template>
  <div class="find" @focusout="open = false">
    <input
      id="find"
      v-model="text"
      type="search"
      placeholder="Find a database, host, person, crossing"
      aria-label="Find a database, host, person, crossing"
      role="combobox"
      aria-controls="find-hits"
      :aria-expanded="open && text !== ''"
      autocomplete="off"
      @focus="open = true"
      @input="at = 0"
      @keydown="onKey"
    />
    <kbd>/</kbd>
    <ul v-if="open && text" id="find-hits" role="listbox">
      <li v-if="!hits.length" class="dim">Nothing is named like that.</li>
      <li
        v-for="(hit, i) in hits"
        :key="hit.database + hit.why"
        role="option"
        :aria-selected="i === at"
        :class="{ at: i === at }"
        @mousedown.prevent="choose(i)"
      >
        <b>{{ hit.database }}</b> <span class="dim">{{ hit.why }}</span>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.find { flex: 0 1 420px; min-width: 160px; height: 30px; border: 1px solid var(--rule); border-radius: 4px; display: flex; align-items: center; padding: 0 8px 0 10px; background: var(--paper); position: relative; }
.find:focus-within { border-color: var(--current); }
input { flex: 1; border: 0; outline: 0; background: none; color: var(--ink); font: inherit; min-width: 0; text-overflow: ellipsis; }
input::placeholder { color: var(--ink3); opacity: 1; }
kbd { font: 11px "Spline Sans Mono Variable"; border: 1px solid var(--rule); border-radius: 3px; padding: 0 4px; color: var(--ink2); background: var(--surface); }
ul { position: absolute; top: 32px; left: -1px; right: -1px; z-index: 30; background: var(--surface); border: 1px solid var(--rule); list-style: none; padding: 4px; max-height: 360px; overflow: auto; }
li { padding: 5px 8px; cursor: pointer; border-radius: 3px; }
li.at { background: var(--current-soft); }
</style>
