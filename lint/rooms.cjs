// Inside a layer whose rooms are in order: they import each other in one direction. Tests look into any of them.
const LAYERS_IN_ORDER = ["core", "storage", "operations", "web/screens"];
const order = LAYERS_IN_ORDER.join("|");

module.exports = {
  forbidden: [
    {
      name: "one-way-between-rooms",
      comment: "rooms of a layer import each other in one direction",
      severity: "error",
      scope: "folder",
      from: { path: `^src/(${order})/[^/]+$` },
      to: { circular: true },
    },
  ],
  options: {
    tsConfig: { fileName: "tsconfig.json" },
    tsPreCompilationDeps: true,
    includeOnly: `^src/(${order})/`,
    exclude: { path: "[.]test[.]tsx?$" },
  },
};
