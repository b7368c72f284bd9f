<script setup lang="ts">
import { ref } from "vue";
import BrandMark from "../frame/BrandMark.vue";
import { words } from "../shared/format";
import { door, setUp, signIn } from "./session";

const login = ref("");
const password = ref("");
const name = ref("");
const programme = ref("");
const zone = ref(Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC");
const problem = ref("");
const busy = ref(false);

async function go(action: () => Promise<void>) {
  busy.value = true;
  problem.value = "";
  try {
    await action();
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error);
  } finally {
    busy.value = false;
  }
}
const enter = () => go(() => signIn(login.value, password.value));
const begin = () =>
  go(() =>
    setUp({
      programme: programme.value,
      zone: zone.value,
      login: login.value,
      name: name.value,
      password: password.value,
    }),
  );
</script>

<template>
  <main class="door">
    <section v-if="door?.setUpNeeded" class="panel" aria-labelledby="title">
      <BrandMark />
      <h1 id="title">Set up this server</h1>
      <p class="dim">You are the first here, so you become the lead. Others get their sign-in from you.</p>
      <form class="form" @submit.prevent="begin">
        <v-text-field v-model="programme" label="Programme, such as: leave the old hall by June" required />
        <v-text-field v-model="zone" label="Time zone" />
        <v-text-field v-model="name" label="Your name" autocomplete="name" />
        <div class="two">
          <v-text-field v-model="login" label="Login" autocomplete="username" />
          <v-text-field v-model="password" label="Password" type="password" autocomplete="new-password" />
        </div>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        <v-btn class="go" type="submit" :loading="busy">Set up as lead</v-btn>
      </form>
    </section>
    <section v-else class="panel" aria-labelledby="title">
      <BrandMark />
      <h1 id="title">{{ door?.programme }}</h1>
      <form class="form" @submit.prevent="enter">
        <v-text-field v-model="login" label="Login" autocomplete="username" autofocus />
        <v-text-field v-model="password" label="Password" type="password" autocomplete="current-password" />
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        <v-btn class="go" type="submit" :loading="busy">Sign in</v-btn>
      </form>
      <div v-if="door?.demoPeople.length" class="demo">
        <p class="cap">This is the demo. Its passwords are public: the terminal that started it lists them.</p>
        <div class="who">
          <button
            v-for="person in door.demoPeople"
            :key="person.login"
            type="button"
            class="chip"
            @click="login = person.login"
          >
            <b>{{ person.login }}</b> {{ words(person.role) }}
          </button>
        </div>
      </div>
    </section>
  </main>
</template>

<style scoped>
.door { height: 100vh; display: grid; place-items: center; background: var(--paper); }
.panel { width: 400px; background: var(--surface); border: 1px solid var(--rule); border-radius: 4px; padding: 28px 32px; }
h1 { font-size: 18px; font-weight: 650; margin: 18px 0 10px; }
.demo { border-top: 1px solid var(--rule); margin-top: 18px; padding-top: 12px; }
.who { display: flex; flex-wrap: wrap; gap: 6px; margin-top: 8px; }
</style>
