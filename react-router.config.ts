import type { Config } from "@react-router/dev/config";

export default {
  appDirectory: "src/web",
  ssr: true,
  // A dozen routes: knowing them all at once costs less than asking for each, and works when the line is down.
  routeDiscovery: { mode: "initial" },
  future: { v8_middleware: true },
} satisfies Config;
