import type { NextConfig } from "next";
import { availableParallelism } from "node:os";
import { dirname } from "node:path";
import { fileURLToPath } from "node:url";

const config: NextConfig = {
  serverExternalPackages: ["pdfmake", "better-sqlite3", "@node-rs/argon2", "piscina", "sharp", "elkjs", "pino"],
  turbopack: { root: dirname(fileURLToPath(import.meta.url)) },
  poweredByHeader: false,
  // Pages are drawn by the reader, where there is one: the process that signs and stops does not load them before it starts.
  experimental: { preloadEntriesOnStart: process.env.LANTERN_READER === "1" || availableParallelism() < 2 },
  // ./lantern test checks the types of everything, tests too, just before it builds.
  typescript: { ignoreBuildErrors: process.env.LANTERN_TYPES_CHECKED === "1" },
  headers: () =>
    Promise.resolve([
      {
        source: "/(.*)",
        headers: [
          { key: "X-Content-Type-Options", value: "nosniff" },
          { key: "X-Frame-Options", value: "DENY" },
          { key: "Referrer-Policy", value: "same-origin" },
          { key: "Cross-Origin-Opener-Policy", value: "same-origin" },
          { key: "Cross-Origin-Resource-Policy", value: "same-origin" },
          { key: "Permissions-Policy", value: "camera=(self), geolocation=(), microphone=(), payment=(), usb=()" },
        ],
      },
    ]),
};

export default config;
