import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vite";
import { LEFT_ALONE } from "./vite.main.config";

export default defineConfig(({ isSsrBuild, command }) => ({
  plugins: [tailwindcss(), reactRouter()],
  resolve: { tsconfigPaths: true },
  ssr: command === "build" ? { noExternal: true, external: LEFT_ALONE } : {},
  // The server build is entered by our own handler, so that it shares its modules with the routes.
  build: isSsrBuild ? { rollupOptions: { input: "src/web/server/handler.server.ts" } } : {},
}));
