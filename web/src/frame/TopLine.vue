<script setup lang="ts">
import { useNow } from "@vueuse/core";
import { ref } from "vue";
import { useTheme } from "vuetify";
import { liveState } from "../api/live";
import { initials, time, words } from "../shared/format";
import { useProgramme } from "../shared/queries";
import PeopleSheet from "../team/PeopleSheet.vue";
import { me, signOut } from "../team/session";
import BrandMark from "./BrandMark.vue";
import SearchBox from "./SearchBox.vue";

const { data: programme, zone } = useProgramme();
const now = useNow({ interval: 1000 });
const theme = useTheme();
const people = ref(false);

function toggleTheme() {
  const name = theme.global.name.value === "night" ? "day" : "night";
  theme.change(name);
  localStorage.setItem("transitum-theme", name);
}
const city = () => zone.value.split("/").pop()?.replace("_", " ");
</script>

<template>
  <header>
    <BrandMark class="home" />
    <div class="programme" :title="programme?.name">{{ programme?.name }}</div>
    <SearchBox />
    <div class="grow" />
    <div class="live" :class="liveState" role="status" :title="liveState === 'lost' ? 'Connection lost; trying again' : 'Changes by others appear by themselves'">
      <i aria-hidden="true" />{{ liveState === "lost" ? "offline" : liveState }}
    </div>
    <div class="dim clock">{{ time(now, zone) }} {{ city() }}</div>
    <v-menu>
      <template #activator="{ props }">
        <button class="who" v-bind="props" :aria-label="`Signed in as ${me?.name}`">{{ initials(me?.name ?? "") }}</button>
      </template>
      <v-list density="compact" class="menu">
        <v-list-item :title="me?.name" :subtitle="words(me?.role)" />
        <v-list-item title="People" @click="people = true" />
        <v-list-item title="Day or night" @click="toggleTheme" />
        <v-list-item title="Sign out" @click="signOut" />
      </v-list>
    </v-menu>
    <PeopleSheet v-model="people" />
  </header>
</template>

<style scoped>
header {
  grid-column: 1 / -1; display: flex; align-items: center; gap: 16px; padding: 0 16px 0 0;
  border-bottom: 1px solid var(--rule); background: var(--surface); min-width: 0;
}
.home { width: 196px; padding-left: 18px; flex: none; margin-right: -16px; }
.programme {
  height: 28px; border: 1px solid var(--rule); border-radius: 4px; padding: 0 10px; line-height: 26px; font-weight: 550;
  white-space: nowrap; overflow: hidden; text-overflow: ellipsis; margin-left: 16px; flex: 0 1 auto;
}
.live { display: flex; gap: 6px; align-items: center; color: var(--ink2); }
.live i { width: 7px; height: 7px; border-radius: 50%; background: var(--proved); }
.live.connecting i { background: var(--ink3); }
.live.lost { color: var(--act); }
.live.lost i { background: var(--act); }
.clock { white-space: nowrap; }
.who {
  width: 26px; height: 26px; border-radius: 50%; background: var(--current); color: var(--on-current); font-size: 11px;
  font-weight: 600; border: 0; cursor: pointer; flex: none;
}
.menu { border: 1px solid var(--rule); }
</style>
