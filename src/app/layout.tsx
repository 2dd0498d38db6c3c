import type { Metadata } from "next";
import type { ReactNode } from "react";
import { Providers } from "@/ui/shared/providers";
import "./globals.css";

// Every page is made for its request, since its scripts carry a nonce of that request.
export const dynamic = "force-dynamic";

export const metadata: Metadata = {
  title: "Cavlo",
  description: "KPI visuals computed from shared measures",
  icons: { icon: "/mark.svg" },
};

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en" data-theme="light" suppressHydrationWarning>
      <head>
        <link rel="stylesheet" href="/fonts/alphabets.css" precedence="default" />
      </head>
      <body>
        <Providers>{children}</Providers>
      </body>
    </html>
  );
}
