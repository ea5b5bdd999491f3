/**
 * The arrows inside the workspaces: which room may know which, and that nothing goes in a circle.
 * Arrows between workspaces are in eslint.config.js.
 */
const FLOORS = [
  ["at", "groupBy", "errors", "money", "calendar", "formula"],
  ["model"],
  ["supply", "tax", "ledger"],
  ["facts"],
  ["schemes", "returns"],
  ["findings", "agree"],
];
const room = (names) => `^core/src/(${names.join("|")})(/|\\.ts$)`;

/** A room knows the floors below it. */
const below = FLOORS.slice(1).map((names, index) => ({
  name: `core-floor-${index + 2}`,
  comment: `${names.join(", ")} may import lower floors only.`,
  severity: "error",
  from: { path: room(names) },
  to: { path: "^core/src/", pathNot: [room(FLOORS.slice(0, index + 1).flat()), "^core/src/$1/"] },
}));

const only = (name, allowed) => ({
  name: `core-${name}`,
  comment: `core/src/${name} may import ${allowed.join(", ")} only.`,
  severity: "error",
  from: { path: `^core/src/${name}/` },
  to: { path: "^core/src/", pathNot: room([...allowed, name]) },
});

const GROUND = FLOORS[0];

module.exports = {
  forbidden: [
    {
      name: "no-circles",
      comment: "Two files that need each other are one file, or a third is missing.",
      severity: "error",
      from: {},
      to: { circular: true },
    },
    {
      name: "core-floor-1",
      comment: "The ground floor knows nothing of tax.",
      severity: "error",
      from: { path: room(GROUND) },
      to: { path: "^core/src/", pathNot: room(GROUND) },
    },
    ...below,
    only("formats", [...GROUND, "model"]),
    only("packs", [...GROUND, "model"]),
    only("incoming", [...GROUND, "model", "formats", "supply", "tax"]),
    only("jurisdictions", [...GROUND, "model", "packs", "tax", "returns"]),
    {
      name: "features-apart",
      comment: "A feature never imports another; what two need belongs in books, across, app or kit.",
      severity: "error",
      from: { path: "^(server|web)/src/features/([^/]+)/" },
      to: { path: "^$1/src/features/", pathNot: "^$1/src/features/$2/" },
    },
    {
      name: "server-floors",
      comment: "books and what is under it know no feature and nothing across.",
      severity: "error",
      from: { path: "^server/src/(base|db|practice|books|outside|exports|simulators)/" },
      to: { path: "^server/src/(features|across|jobs)/" },
    },
    {
      name: "server-ground",
      comment: "base and db know no books.",
      severity: "error",
      from: { path: "^server/src/(base|db)/" },
      to: { path: "^server/src/(practice|books|outside|exports|simulators|features|across|jobs)/" },
    },
    {
      name: "practice-and-books",
      comment:
        "The practice opens the books of clients and does not know what is in them; books know one client.",
      severity: "error",
      from: { path: "^server/src/(practice|books)/" },
      to: { path: "^server/src/(practice|books)/", pathNot: "^server/src/$1/" },
    },
    {
      name: "features-across",
      comment: "What goes across features is not known to them.",
      severity: "error",
      from: { path: "^server/src/features/" },
      to: { path: "^server/src/across/" },
    },
    {
      name: "kit-alone",
      comment: "kit knows nothing of the application.",
      severity: "error",
      from: { path: "^web/src/kit/" },
      to: { path: "^web/src/(app|api|features)/" },
    },
    {
      name: "api-alone",
      comment: "api knows no screen.",
      severity: "error",
      from: { path: "^web/src/api/" },
      to: { path: "^web/src/(app|features)/" },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    exclude: { path: "(^|/)(dist|node_modules)/" },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { extensions: [".ts", ".tsx", ".js"] },
  },
};
