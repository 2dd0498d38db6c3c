import type { NextConfig } from "next";

const config: NextConfig = {
  serverExternalPackages: ["better-sqlite3", "@resvg/resvg-js"],
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
  // Browsers ask for it again with every address, as each click on a board makes one.
  headers: async () => [
    { source: "/mark.svg", headers: [{ key: "Cache-Control", value: "public, max-age=86400" }] },
  ],
  // Who opens a board as it is presented gets it on a page of its own, without its editor.
  redirects: async () => [
    {
      source: "/p/:id/boards",
      has: [
        { type: "query", key: "present", value: "1" },
        { type: "query", key: "board", value: "(?<board>[^/]+)" },
      ],
      destination: "/p/:id/present/:board",
      permanent: false,
    },
  ],
};

export default config;
