import { useQuery, type QueryClient } from "@tanstack/vue-query";
import { computed, toValue, type MaybeRefOrGetter } from "vue";
import { api, data, type Schemas } from "../api/client";
import { EstateTable, type ObjectKind } from "../inventory/estate";

export type PlaceView = Schemas["PlaceView"];
export type CrossingView = Schemas["CrossingView"];

export function useProgramme() {
  const query = useQuery({ queryKey: ["programme"], queryFn: () => data(api.GET("/api/v1/programme")) });
  const zone = computed(() => query.data.value?.zone ?? "UTC");
  return { ...query, zone };
}

async function readEstate(kind: ObjectKind): Promise<EstateTable> {
  return new EstateTable(await data(api.GET("/api/v1/inventory/table", { params: { query: { kind } } })));
}

/** All objects of a kind as they stand. */
export function useEstate(kind: MaybeRefOrGetter<ObjectKind>) {
  return useQuery({
    queryKey: ["inventory", "table", () => toValue(kind)],
    queryFn: () => readEstate(toValue(kind)),
    structuralSharing: false,
  });
}

/** Asks for the databases while the page is still being put together; who is not signed in gets nothing. */
export function askAhead(client: QueryClient): void {
  void client.prefetchQuery({
    queryKey: ["inventory", "table", "DATABASE"],
    queryFn: () => readEstate("DATABASE"),
    structuralSharing: false,
    retry: false,
  });
}

/** Place, wave and crossing of every database, by key. */
export function usePlaces() {
  const query = useQuery({ queryKey: ["places"], queryFn: () => data(api.GET("/api/v1/crossings/places")) });
  const byKey = computed(() => new Map((query.data.value ?? []).map((place) => [place.database, place])));
  return { ...query, byKey };
}

export function useCrossings() {
  return useQuery({ queryKey: ["crossings"], queryFn: () => data(api.GET("/api/v1/crossings")) });
}

export function useWaves() {
  return useQuery({ queryKey: ["waves"], queryFn: () => data(api.GET("/api/v1/waves")) });
}

export function useDependencies() {
  return useQuery({ queryKey: ["dependencies"], queryFn: () => data(api.GET("/api/v1/dependencies")) });
}

export function usePeople() {
  return useQuery({ queryKey: ["team"], queryFn: () => data(api.GET("/api/v1/team/people")) });
}
