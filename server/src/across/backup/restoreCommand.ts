import { restore } from "./backup.ts";

/** `npm run restore -- COPY NEW-FOLDER`: puts a copy into a new place, with proof of the same figures. */
const [, , backup, target] = process.argv;
if (backup === undefined || target === undefined) {
  console.error("Say which copy, and where to: npm run restore -- COPY NEW-FOLDER");
  process.exit(1);
}
await restore(backup, target).then(
  ({ clients }) =>
    console.log(
      `${target}: ${clients.length} clients; the same figures as when it was made. Start with FISCALON_DATA=${target}.`,
    ),
  (error: Error) => {
    console.error(error.message);
    process.exitCode = 1;
  },
);
