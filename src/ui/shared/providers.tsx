"use client";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { type ReactNode, useEffect, useState } from "react";
import { ApiError } from "./api";
import { listenToServer, onServerBack } from "./connection";
import { EastAsianFonts } from "./east-asian-fonts";
import { KeepFocus } from "./keep-focus";
import { Notices } from "./notice";
import { isPassing } from "./project-store";
import { useStoredTheme } from "./theme";
import { Tips } from "./tips";

const FIRST_PAUSE = 1000;
const LONGEST_PAUSE = 10_000;
/** A fault of the server's own is not tried more often. */
const MOST_FAULTS = 2;

function newClient(): QueryClient {
  return new QueryClient({
    defaultOptions: {
      queries: {
        // The server is on this machine: it answers without any network.
        networkMode: "always",
        // What can succeed by itself is tried until it does; what stands on the screen stays meanwhile.
        retry: (count, error) =>
          isPassing(error) && (!(error instanceof ApiError && error.status === 500) || count < MOST_FAULTS),
        retryDelay: (count) => Math.min(LONGEST_PAUSE, FIRST_PAUSE * 2 ** count),
        refetchOnWindowFocus: false,
        refetchOnReconnect: false,
        gcTime: 120_000,
      },
      mutations: { networkMode: "always" },
    },
  });
}

/** What every page needs around it. */
export function Providers({ children }: { children: ReactNode }) {
  const [client] = useState(newClient);
  useStoredTheme();
  useEffect(() => listenToServer(), []);
  useEffect(
    // Whatever waits to be tried again is tried at once.
    () =>
      onServerBack(
        () =>
          void client.refetchQueries({
            predicate: ({ state }) => state.fetchFailureCount > 0 || state.status === "error",
          }),
      ),
    [client],
  );
  return (
    <QueryClientProvider client={client}>
      {children}
      <Notices />
      <KeepFocus />
      <EastAsianFonts />
      <Tips />
    </QueryClientProvider>
  );
}
