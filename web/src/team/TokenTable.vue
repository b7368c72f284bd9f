<script setup lang="ts">
import { useQuery, useQueryClient } from "@tanstack/vue-query";
import { ref } from "vue";
import { api, data, type Schemas } from "../api/client";
import { time } from "../shared/format";
import { attempt } from "../shared/notices";
import { useProgramme } from "../shared/queries";

/** Tokens of collectors: made, shown once, revoked. */
const client = useQueryClient();
const { zone } = useProgramme();
const { data: tokens } = useQuery({ queryKey: ["tokens"], queryFn: () => data(api.GET("/api/v1/team/tokens")) });
const name = ref("");
const made = ref<Schemas["NewToken"]>();
const asked = ref<number>();

const make = () =>
  attempt(async () => {
    made.value = await data(api.POST("/api/v1/team/tokens", { body: { name: name.value } }));
    name.value = "";
    await client.invalidateQueries({ queryKey: ["tokens"] });
  });
const copy = () => attempt(() => navigator.clipboard.writeText(made.value?.secret ?? ""), "Token copied");
const revoke = (id: number) =>
  attempt(async () => {
    asked.value = undefined;
    await data(api.DELETE("/api/v1/team/tokens/{id}", { params: { path: { id } } }));
    if (made.value?.id === id) made.value = undefined;
    await client.invalidateQueries({ queryKey: ["tokens"] });
  }, "Token revoked; what it brought stays");
</script>

<template>
  <section class="form">
    <div class="cap">Tokens to push with</div>
    <table v-if="tokens?.length" class="t-table">
      <thead><tr><th>Held by</th><th>Made</th><th>Last used</th><th /></tr></thead>
      <tbody>
        <tr v-for="token in tokens" :key="token.id">
          <td><b>{{ token.name }}</b></td>
          <td class="dim">{{ time(token.createdAt, zone) }} by {{ token.createdBy }}</td>
          <td class="dim">{{ token.lastUsedAt ? time(token.lastUsedAt, zone) : "never" }}</td>
          <td class="num">
            <template v-if="asked === token.id">
              <v-btn class="danger" @click="revoke(token.id)">Revoke {{ token.name }}</v-btn> <v-btn @click="asked = undefined">Keep</v-btn>
            </template>
            <v-btn v-else @click="asked = token.id">Revoke…</v-btn>
          </td>
        </tr>
      </tbody>
    </table>
    <div v-if="made" class="made" role="status">
      <div>The token of <b>{{ made.name }}</b>, shown this once. Put it where the collector's list says; it can push bundles and nothing else.</div>
      <code class="mono">{{ made.secret }}</code>
      <div class="row"><v-btn @click="copy">Copy</v-btn> <v-btn @click="made = undefined">I have it</v-btn></div>
    </div>
    <form v-else class="row" @submit.prevent="make">
      <v-text-field v-model="name" label="Site that will hold it" maxlength="50" hide-details />
      <v-btn type="submit" :disabled="!name.trim()">Make a token</v-btn>
    </form>
  </section>
</template>

<style scoped>
.row { display: flex; gap: 8px; align-items: center; }
.made { background: var(--look-soft); border-radius: 4px; padding: 10px 12px; display: grid; gap: 8px; }
code { overflow-wrap: anywhere; user-select: all; }
</style>
