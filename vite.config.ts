import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vite";

export default defineConfig(({ isSsrBuild }) => ({
  plugins: [tailwindcss(), reactRouter()],
  resolve: { tsconfigPaths: true },
  // The server build is entered by our own handler, so that it shares its modules with the routes.
  build: isSsrBuild ? { rollupOptions: { input: "src/web/server/handler.server.ts" } } : {},
}));
