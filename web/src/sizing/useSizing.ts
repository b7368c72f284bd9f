import { keepPreviousData, useQuery } from "@tanstack/vue-query";
import { refDebounced } from "@vueuse/core";
import { computed } from "vue";
import { useRoute, useRouter } from "vue-router";
import { api, data } from "../api/client";
import { useProgramme } from "../shared/queries";

/** The settings being tried, kept in the address, and what they give for the estate. */
export function useSizing() {
  const route = useRoute();
  const router = useRouter();
  const { data: programme } = useProgramme();
  const number = (name: string) => (typeof route.query[name] === "string" ? Number(route.query[name]) : undefined);
  const setting = (name: string, kept: () => number | undefined) =>
    computed({
      get: () => number(name) ?? kept() ?? 0,
      set: (value: number) =>
        void router.replace({ query: { ...route.query, [name]: value === kept() ? undefined : String(value) } }),
    });
  const percentile = setting("percentile", () => programme.value?.sizing.percentile);
  const headroom = setting("headroom", () => programme.value?.sizing.headroomPercent);
  const horizon = setting("horizon", () => programme.value?.sizing.horizonMonths);
  const tried = computed(() => ({
    percentile: number("percentile"),
    headroomPercent: number("headroom"),
    horizonMonths: number("horizon"),
  }));
  const settled = refDebounced(tried, 120);
  const estate = useQuery({
    queryKey: ["sizing", "estate", settled],
    queryFn: () => data(api.GET("/api/v1/sizing", { params: { query: settled.value } })),
    placeholderData: keepPreviousData,
  });
  const reset = () =>
    router.replace({ query: { ...route.query, percentile: undefined, headroom: undefined, horizon: undefined } });
  return { percentile, headroom, horizon, settled, estate, reset, programme };
}
