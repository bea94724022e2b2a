import type { Config } from "@react-router/dev/config";

export default {
  ssr: true,
  // Every route is known from the start: no request for a manifest while a tablet is offline.
  routeDiscovery: { mode: "initial" },
  future: {
    v8_middleware: true,
    v8_splitRouteModules: true,
    v8_viteEnvironmentApi: true,
    v8_passThroughRequests: true,
    v8_trailingSlashAwareDataRequests: true,
  },
} satisfies Config;
