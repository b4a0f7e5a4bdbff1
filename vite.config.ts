import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vite";
import { texts } from "./scripts/texts-plugin.ts";
import { LEFT_ALONE } from "./vite.main.config.ts";

// What is small and on nearly every page is one file: each one of its own costs a line in every page and a request. Signs of
// one page alone go with it.
const AROUND =
  /node_modules\/(?:lucide-react\/(?!dist\/esm\/icons\/(?:calendar-(?:days|off)|chart|chevrons-up-down|columns|download|fast-forward|file|italic|keyboard|letter-b|list-ordered|send|text-quote))|react\/|react-dom\/(?:index|cjs\/react-dom\.production))|src\/core\/(?:(?:kernel\/(?!broken-runs|email-address|size-in-words)|lists\/(?!backlog)|standing\/|turn-line\/)|time\/(?:age-in-words|day-words|zoned-day)\.)|src\/web\/(?:keys|routes\.|route-ids)|src\/web\/ui\/(?:button|category-tab|logo|menu-look|menu-trigger|load-on-first-interaction|member-badge|notices|problem|turn-line|urgency-marks)\.|src\/web\/screens\/[\w-]+\/(?:decisions|dragging|shelf-drop|tray-data|use-command|use-form-action)\./;
// Dialogs are fetched soon on every page; menus and fields that open come together, as a page that has one soon has another.
const DIALOGS =
  /node_modules\/(?:@radix-ui\/(?:primitive|react-(?:compose-refs|context|dialog|dismissable-layer|focus-guards|focus-scope|id|portal|presence|primitive|slot|use-[\w-]+))|aria-hidden|get-nonce|react-remove-scroll|react-remove-scroll-bar|react-style-singleton|tslib|use-callback-ref|use-sidecar)\/|src\/web\/ui\/(?:dialog|field|page)\./;
const CONTROLS = /node_modules\/(?:@radix-ui(?!\/react-(?:progress|toast))|@floating-ui)\/|src\/web\/ui\/select\./;

// Beside an open conversation and in a sort run stands the same.
const CONVERSATION =
  /src\/web\/(?:screens\/[\w-]+\/(?:local-draft|owner-badge|send-button|use-date-answer|use-presence|use-recall|use-typed-date)|ui\/layout\/side-panel)\./;

export default defineConfig(({ isSsrBuild, command }) => ({
  plugins: [texts(), tailwindcss(), reactRouter()],
  resolve: { tsconfigPaths: true },
  // What is asked of the environment at run time is asked a thousand times a page.
  define: isSsrBuild ? { "process.env.NODE_ENV": '"production"' } : {},
  ssr: command === "build" ? { noExternal: true, external: LEFT_ALONE } : {},
  // The server build is entered by our own handler, so that it shares its modules with the routes.
  build: {
    rollupOptions: isSsrBuild
      ? { input: "src/web/server/base/handler.server.ts" }
      : {
          output: {
            advancedChunks: {
              groups: [
                { name: "around", test: AROUND },
                { name: "dialogs", test: DIALOGS },
                { name: "controls", test: CONTROLS },
                { name: "conversation", test: CONVERSATION },
              ],
            },
          },
        },
  },
}));
