<script setup lang="ts">
import { computed } from "vue";
import { COLUMN_SETS, header } from "./columns";
import type { EstateTable } from "./estate";

const props = defineProps<{ table: EstateTable; columns: string[]; columnSet: string }>();
const emit = defineEmits<{ show: [columns: string] }>();
const sets = computed(() => COLUMN_SETS[props.table.kind]);
const label = (name: string) => header(name, props.table.column(name)?.label ?? name, "");
const others = computed(() => [
  ...props.columns,
  ...[...props.table.columns.map((column) => column.name), ...(props.table.kind === "DATABASE" ? ["activity", "wave"] : [])].filter(
    (name) => !props.columns.includes(name),
  ),
]);
function toggle(name: string) {
  const next = props.columns.includes(name) ? props.columns.filter((one) => one !== name) : [...props.columns, name];
  if (next.length) emit("show", next.join(","));
}
</script>

<template>
  <v-menu :close-on-content-click="false">
    <template #activator="{ props: on }"><v-btn v-bind="on">Columns: {{ columnSet }}</v-btn></template>
    <div class="menu">
      <ul>
        <li v-for="set in sets" :key="set.name"><button :aria-pressed="columnSet === set.name" @click="emit('show', set.name)">{{ set.name }}</button></li>
      </ul>
      <ul class="scroll">
        <li v-for="name in others" :key="name">
          <label><input type="checkbox" :checked="columns.includes(name)" @change="toggle(name)" /> {{ label(name) }}</label>
        </li>
      </ul>
    </div>
  </v-menu>
</template>

<style scoped>
.menu { background: var(--surface); border: 1px solid var(--rule); display: grid; grid-template-columns: 110px 220px; height: 320px; }
ul { list-style: none; padding: 6px; }
ul:first-child { border-right: 1px solid var(--rule2); }
.menu button { width: 100%; text-align: left; background: none; border: 0; font: inherit; color: inherit; padding: 5px 8px; cursor: pointer; border-radius: 3px; }
.menu button[aria-pressed="true"] { background: var(--current-soft); color: var(--current); font-weight: 600; }
label { display: flex; gap: 8px; padding: 4px 6px; cursor: pointer; align-items: center; }
input { accent-color: var(--current); }
</style>
