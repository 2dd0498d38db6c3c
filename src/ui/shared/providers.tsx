"use client";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { Toaster } from "sonner";
import { useStoredTheme } from "./theme";

/** What every page needs around it. */
export function Providers({ children }: { children: ReactNode }) {
  const [client] = useState(() => new QueryClient({ defaultOptions: { queries: { retry: false, refetchOnWindowFocus: false, gcTime: 120_000 } } }));
  useStoredTheme();
  return (
    <QueryClientProvider client={client}>
      {children}
      <Toaster
        position="bottom-center"
        toastOptions={{ style: { fontFamily: "var(--font-sans)", background: "var(--sheet)", color: "var(--ink)", border: "1px solid var(--rule)" } }}
      />
    </QueryClientProvider>
  );
}
