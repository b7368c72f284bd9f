<script setup lang="ts">
import { onMounted, ref } from "vue";
import AppFrame from "./frame/AppFrame.vue";
import NoticeBar from "./frame/NoticeBar.vue";
import SignIn from "./team/SignIn.vue";
import { openSession, session } from "./team/session";

const unreachable = ref(false);
onMounted(async () => {
  try {
    await openSession();
  } catch {
    unreachable.value = true;
  }
});
</script>

<template>
  <v-app>
    <AppFrame v-if="session === 'in'" />
    <SignIn v-else-if="session === 'out'" />
    <div v-else-if="unreachable" class="empty" style="padding-top: 30vh">
      <h2>The server does not answer</h2>
      <p>Load the page again once it runs.</p>
    </div>
    <NoticeBar />
  </v-app>
</template>
