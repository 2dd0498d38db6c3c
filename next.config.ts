import type { NextConfig } from "next";

const config: NextConfig = {
  serverExternalPackages: ["better-sqlite3", "@resvg/resvg-js"],
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
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
