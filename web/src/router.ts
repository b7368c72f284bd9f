import { createRouter, createWebHistory } from "vue-router";

/** The stations of the job, in the order people work. */
export const stations = [
  { name: "overview", label: "Overview" },
  { name: "inventory", label: "Inventory" },
  { name: "sizing", label: "Sizing" },
  { name: "dependencies", label: "Dependencies" },
  { name: "waves", label: "Waves" },
  { name: "crossings", label: "Crossings" },
] as const;

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: "/", redirect: "/overview" },
    { path: "/overview", name: "overview", component: () => import("./overview/OverviewView.vue") },
    { path: "/inventory", name: "inventory", component: () => import("./inventory/InventoryView.vue") },
    { path: "/sizing", name: "sizing", component: () => import("./sizing/SizingView.vue") },
    {
      path: "/dependencies",
      name: "dependencies",
      component: () => import("./dependencies/DependenciesView.vue"),
    },
    { path: "/waves", name: "waves", component: () => import("./waves/WavesView.vue") },
    { path: "/crossings", name: "crossings", component: () => import("./crossings/CrossingsView.vue") },
    { path: "/:rest(.*)*", redirect: "/overview" },
  ],
});
