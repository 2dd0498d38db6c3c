"use client";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { Notices } from "./notice";
import { useStoredTheme } from "./theme";

/** What every page needs around it. */
export function Providers({ children }: { children: ReactNode }) {
  const [client] = useState(() => new QueryClient({ defaultOptions: { queries: { retry: false, refetchOnWindowFocus: false, gcTime: 120_000 } } }));
  useStoredTheme();
  return (
    <QueryClientProvider client={client}>
      {children}
      <Notices />
    </QueryClientProvider>
  );
}
