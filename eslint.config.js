import js from "@eslint/js";
import reactHooks from "eslint-plugin-react-hooks";
import globals from "globals";
import tseslint from "typescript-eslint";

const NODE_BUILTINS = [
  "node:*",
  "fs",
  "path",
  "os",
  "crypto",
  "http",
  "https",
  "net",
  "stream",
  "util",
  "worker_threads",
];

/** The arrows of docs/architecture.md: what a workspace may not import; inside them .dependency-cruiser.cjs holds them. */
function mayNotImport(patterns, message) {
  return { "no-restricted-imports": ["error", { patterns: [{ group: patterns, message }] }] };
}

/** What no file outside the packs may hold: a country, or which kinds of document there are. */
const KEPT_ELSEWHERE = [
  {
    selector: "Literal[value=/^(GB|IE|CA|AU|NZ|SG|IN|ZA|DE|US|EU|gb|ie|ca|au|nz|sg|ae|za|eu|de)$/]",
    message: "Only core/src/packs knows the name of a country: put what depends on it into the pack.",
  },
  {
    selector: "TemplateElement[value.raw=/substr\\([a-z.]*kind|kind (NOT )?IN \\('(sales|purchase|journal)/]",
    message: "What a kind of document is comes from model/documentKinds, in SQL through db/kindSql.",
  },
  {
    selector: "Literal[value=/substr\\([a-z.]*kind|kind (NOT )?IN \\('(sales|purchase|journal)/]",
    message: "What a kind of document is comes from model/documentKinds, in SQL through db/kindSql.",
  },
  ...["0", "''"].map((nothing) => ({
    selector: `LogicalExpression[operator='??'][left.type='MemberExpression'][left.computed=true][left.property.type!='Literal'][right.value=${nothing}]`,
    message: "A missing key is an error (at, valueAt), or a meaning that is written out.",
  })),
  ...["0", "''"].map((nothing) => ({
    selector: `LogicalExpression[operator='??'][right.value=${nothing}] > .left CallExpression[callee.property.name=/^(find|findLast)$/]`,
    message: "An element that is not found is an error (found), or a meaning that is written out.",
  })),
];

export default tseslint.config(
  {
    ignores: [
      "**/dist/**",
      "**/node_modules/**",
      ".data/**",
      "**/test-results/**",
      "**/playwright-report/**",
    ],
  },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    rules: {
      "max-lines": ["error", { max: 400, skipBlankLines: true, skipComments: true }],
      "@typescript-eslint/no-unused-vars": [
        "error",
        { argsIgnorePattern: "^_", varsIgnorePattern: "^_", ignoreRestSiblings: true },
      ],
      "@typescript-eslint/consistent-type-imports": "error",
      eqeqeq: "error",
    },
  },
  {
    files: ["core/src/**", "contract/src/**", "server/src/**", "web/src/**", "demo/src/**"],
    extends: [tseslint.configs.recommendedTypeCheckedOnly],
    languageOptions: { parserOptions: { projectService: true } },
    rules: {
      // A function of an interface that promises is async whether it waits for something or not.
      "@typescript-eslint/require-await": "off",
    },
  },
  {
    // Records of the database are typed by what is asked of them.
    files: ["server/src/**"],
    rules: { "@typescript-eslint/no-unnecessary-type-assertion": "off" },
  },
  {
    // The parser of formulas leaves what is inside a node open; its type says which node has what.
    files: ["core/src/formula/**", "core/src/returns/linearTerms.ts"],
    rules: { "@typescript-eslint/no-base-to-string": "off" },
  },
  {
    files: ["core/src/**"],
    rules: {
      ...mayNotImport(
        [
          "@fiscalon/contract/*",
          "@fiscalon/server/*",
          "@fiscalon/web/*",
          "react*",
          "fastify*",
          "sequelize*",
          "joi",
          ...NODE_BUILTINS,
        ],
        "core computes: no interface, no I/O, no framework.",
      ),
      "no-restricted-globals": [
        "error",
        "fetch",
        "window",
        "document",
        "process",
        "localStorage",
        "setTimeout",
      ],
    },
  },
  {
    files: ["contract/src/**"],
    rules: mayNotImport(
      ["@fiscalon/server/*", "@fiscalon/web/*", "react*", "fastify*", "sequelize*", ...NODE_BUILTINS],
      "contract knows core and Joi only.",
    ),
  },
  {
    files: ["server/src/**"],
    languageOptions: { globals: globals.node },
    rules: mayNotImport(["@fiscalon/web/*", "react*"], "server knows core and contract only."),
  },
  {
    files: ["web/src/**"],
    plugins: { "react-hooks": reactHooks },
    languageOptions: { globals: globals.browser },
    rules: {
      ...reactHooks.configs.recommended.rules,
      "react-hooks/incompatible-library": "off",
      ...mayNotImport(
        ["@fiscalon/server/*", "fastify*", "sequelize*", "joi", ...NODE_BUILTINS],
        "web knows core and contract's types only.",
      ),
    },
  },
  {
    files: ["demo/**", "e2e/**"],
    languageOptions: { globals: globals.node },
    rules: mayNotImport(
      ["@fiscalon/*"],
      "the demonstration and the browser tests use the public API and the interface only.",
    ),
  },
  {
    files: ["core/src/**", "contract/src/**", "server/src/**", "web/src/**"],
    ignores: ["core/src/packs/**", "server/src/bench/**"],
    rules: { "no-restricted-syntax": ["error", ...KEPT_ELSEWHERE] },
  },
  {
    files: ["web/src/**"],
    ignores: ["web/src/api/keys.ts"],
    rules: {
      "no-restricted-syntax": [
        "error",
        ...KEPT_ELSEWHERE,
        {
          selector: "Property[key.name='queryKey'] > ArrayExpression[elements.0.type='Literal']",
          message: "Keys of queries are made in api/keys.ts.",
        },
      ],
    },
  },
  { files: ["scripts/**", "*.js", "*.cjs", ".*.cjs", "*.ts"], languageOptions: { globals: globals.node } },
  {
    // A shape of the database that was released stays as it was.
    files: ["server/src/db/{books,practice,older}/**"],
    rules: { "no-restricted-syntax": "off" },
  },
);
