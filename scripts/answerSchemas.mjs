import { writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { createFormatter, createParser, DEFAULT_CONFIG, SchemaGenerator } from "ts-json-schema-generator";

const SOURCE = "contract/src/answers.ts";

/** The generator's own TypeScript: nodes of another one would be strange to it. */
const ts = createRequire(createRequire(import.meta.url).resolve("ts-json-schema-generator"))("typescript");
const { options } = ts.getParsedCommandLineOfConfigFile("contract/tsconfig.answers.json", {}, ts.sys);

/**
 * Writes the JSON Schema of what each route answers from its one declaration, the interface `Answers` of the contract:
 * contract/dist/answers.json, which the OpenAPI document takes in and the tests check replies against.
 */
const program = ts.createProgram({ rootNames: [SOURCE], options });
const config = { ...DEFAULT_CONFIG, topRef: false, additionalProperties: false };
const generator = new SchemaGenerator(
  program,
  createParser(program, config),
  createFormatter(config),
  config,
);
writeFileSync("contract/dist/answers.json", JSON.stringify(generator.createSchema("Answers")));
