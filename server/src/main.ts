import { buildApp } from "./app.ts";
import { configFromEnvironment } from "./config.ts";

const config = configFromEnvironment(process.env);
const app = await buildApp(config).catch((error: Error) => {
  console.error(error.message);
  process.exit(1);
});
await app.listen({ host: config.host, port: config.port }).catch(async (error: NodeJS.ErrnoException) => {
  const taken = error.code === "EADDRINUSE";
  app.log.fatal(
    taken ? `Port ${config.port} is taken. Stop what uses it, or set FISCALON_PORT.` : error.message,
  );
  await app.close();
  process.exit(1);
});

for (const signal of ["SIGINT", "SIGTERM"] as const) {
  process.once(signal, () => {
    app.log.info(`${signal}: stopping`);
    void app.close().then(() => process.exit(0));
  });
}
