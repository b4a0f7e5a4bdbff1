import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vite";
import { LEFT_ALONE } from "./vite.main.config.ts";

// What is small and on nearly every page is one file: each one of its own costs a line in every page and a request.
const AROUND =
  /node_modules\/lucide-react|src\/core\/(?:kernel|lists|standing|turn-line)\/|src\/web\/ui\/(?:button|category-tab|logo|menu-look|menu-trigger|pace-marks|progress|soon|stamp|turn-line)\./;

export default defineConfig(({ isSsrBuild, command }) => ({
  plugins: [tailwindcss(), reactRouter()],
  resolve: { tsconfigPaths: true },
  // What is asked of the environment at run time is asked a thousand times a page.
  define: isSsrBuild ? { "process.env.NODE_ENV": '"production"' } : {},
  ssr: command === "build" ? { noExternal: true, external: LEFT_ALONE } : {},
  // The server build is entered by our own handler, so that it shares its modules with the routes.
  build: {
    rollupOptions: isSsrBuild
      ? { input: "src/web/server/handler.server.ts" }
      : { output: { advancedChunks: { groups: [{ name: "around", test: AROUND }] } } },
  },
}));
