import "@fontsource-variable/archivo/wdth.css";
import "@fontsource-variable/spline-sans-mono";
import "vuetify/styles";
import "./styles.css";
import { VueQueryPlugin } from "@tanstack/vue-query";
import { createApp } from "vue";
import App from "./App.vue";
import { queryClient } from "./api/client";
import { router } from "./router";
import { askAhead } from "./shared/queries";
import { vuetify } from "./theme";

if (window.location.pathname === "/inventory" && !window.location.search.includes("show=")) askAhead(queryClient);

createApp(App)
  .use(router)
  .use(vuetify)
  .use(VueQueryPlugin, { queryClient })
  .mount("#app");
