"use client";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import type { TableInfo } from "@/core/project/schema";
import type { TableProfile } from "@/server/compute/protocol";
import { api } from "./api";
import { useProjectStore } from "./project-context";
import { useTableVersion } from "./table-version";

/** What the columns of a table hold at a glance; null while that is asked, and where it cannot be told. */
export function useTableProfile(table: TableInfo | null): { profile: TableProfile | null; isAsked: boolean } {
  const store = useProjectStore();
  const version = useTableVersion(table);
  const { data, isError } = useQuery({
    queryKey: ["profile", version],
    queryFn: async () => {
      await store.getState().flush();
      return api.profile(store.getState().id, table?.name ?? "");
    },
    enabled: table !== null,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const profile = data && data.table.id === table?.id ? data.profile : null;
  return { profile, isAsked: table !== null && !profile && !isError };
}
