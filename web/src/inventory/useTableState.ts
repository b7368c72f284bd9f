import { computed } from "vue";
import { useRoute, useRouter } from "vue-router";
import { FACETS, type Facet, type Filters, type Grouping, type SortColumn } from "./rows";

/** Filters, grouping and sort, kept in the address. */
export function useTableState() {
  const route = useRoute();
  const router = useRouter();
  const text = (name: string) => (typeof route.query[name] === "string" ? (route.query[name] as string) : undefined);
  const set = (query: Record<string, string | undefined>) =>
    router.replace({ query: { ...route.query, ...query } });

  const filters = computed<Filters>(() =>
    Object.fromEntries(FACETS.flatMap((facet) => (text(facet) ? [[facet, text(facet)!.split("|")]] : []))),
  );
  const grouping = computed<Grouping>(() => (text("by") as Grouping) ?? "instance");
  const sortBy = computed<SortColumn>(() => (text("sort") as SortColumn) ?? "name");
  const down = computed(() => text("down") === "1");
  const gapsOnly = computed(() => text("gaps") === "1");
  return {
    filters,
    grouping,
    sortBy,
    down,
    gapsOnly,
    toggle(facet: Facet, value: string) {
      const now = filters.value[facet] ?? [];
      const next = now.includes(value) ? now.filter((other) => other !== value) : [...now, value];
      return set({ [facet]: next.length ? next.join("|") : undefined });
    },
    clear: () => set(Object.fromEntries(FACETS.map((facet) => [facet, undefined]))),
    groupBy: (by: Grouping) => set({ by: by === "instance" ? undefined : by }),
    sort(column: SortColumn) {
      const turn = sortBy.value === column && !down.value;
      return set({ sort: column, down: turn ? "1" : undefined });
    },
    showGaps: (on: boolean) => set({ gaps: on ? "1" : undefined }),
  };
}
