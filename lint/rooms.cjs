// Inside a layer whose rooms are in order: they import each other in one direction. Tests look into any of them.
const LAYERS_IN_ORDER = ["core", "storage", "mail", "operations", "web/routes", "web/server", "web/screens"];

module.exports = {
  forbidden: LAYERS_IN_ORDER.map((layer) => ({
    name: `one-way-between-rooms-of-${layer.replace("/", "-")}`,
    comment: "rooms of a layer import each other in one direction",
    severity: "error",
    scope: "folder",
    from: { path: `^src/${layer}/[^/]+$` },
    to: { circular: true, viaOnly: { path: `^src/${layer}/[^/]+$` } },
  })),
  options: {
    tsConfig: { fileName: "tsconfig.json" },
    tsPreCompilationDeps: true,
    includeOnly: `^src/(${LAYERS_IN_ORDER.join("|")})/`,
    exclude: { path: "[.]test[.]tsx?$" },
  },
};
