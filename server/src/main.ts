import { buildApp } from "./app.ts";
import { configFromEnvironment } from "./config.ts";

const config = configFromEnvironment(process.env);
const app = await buildApp(config);
await app.listen({ host: config.host, port: config.port });

for (const signal of ["SIGINT", "SIGTERM"] as const) {
  process.once(signal, () => {
    app.log.info(`${signal}: stopping`);
    void app.close().then(() => process.exit(0));
  });
}
