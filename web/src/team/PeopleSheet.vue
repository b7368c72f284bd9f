<script setup lang="ts">
import { useQueryClient } from "@tanstack/vue-query";
import { reactive } from "vue";
import { api, data, type Schemas } from "../api/client";
import { words } from "../shared/format";
import { attempt } from "../shared/notices";
import { usePeople } from "../shared/queries";
import { isLead } from "./session";

const open = defineModel<boolean>({ required: true });
const client = useQueryClient();
const { data: people } = usePeople();
const roles = [
  { title: "engineer: prepares and moves databases", value: "ENGINEER" },
  { title: "owner of an application: reads", value: "OWNER" },
  { title: "observer: reads", value: "OBSERVER" },
  { title: "lead: everything", value: "LEAD" },
];
const fresh = () => ({ login: "", name: "", role: "ENGINEER" as Schemas["NewPerson"]["role"], password: "" });
const entry = reactive(fresh());

async function add() {
  const ok = await attempt(() => data(api.POST("/api/v1/team/people", { body: { ...entry } })), `${entry.name} can sign in now`);
  if (ok) Object.assign(entry, fresh());
  await client.invalidateQueries({ queryKey: ["team"] });
}
</script>

<template>
  <v-dialog v-model="open" max-width="560">
    <div class="sheet" role="dialog" aria-label="People">
      <header><h2>People</h2></header>
      <div class="body">
        <table class="t-table">
          <thead><tr><th>Name</th><th>Login</th><th>Role</th></tr></thead>
          <tbody>
            <tr v-for="person in people" :key="person.login">
              <td><b>{{ person.name }}</b></td>
              <td class="mono">{{ person.login }}</td>
              <td class="dim">{{ words(person.role) }}</td>
            </tr>
          </tbody>
        </table>
        <form v-if="isLead" class="form add" @submit.prevent="add">
          <h3 class="cap">Add a person</h3>
          <div class="two">
            <v-text-field v-model="entry.name" label="Name" />
            <v-select v-model="entry.role" :items="roles" label="Role" />
            <v-text-field v-model="entry.login" label="Login" autocomplete="off" />
            <v-text-field v-model="entry.password" label="First password, 8 or more" type="password" autocomplete="new-password" />
          </div>
          <v-btn class="go self" type="submit">Add this person</v-btn>
        </form>
      </div>
      <footer><v-btn @click="open = false">Close</v-btn></footer>
    </div>
  </v-dialog>
</template>

<style scoped>
.add { border-top: 1px solid var(--rule); margin-top: 14px; padding-top: 12px; }
.self { justify-self: start; }
</style>
