import { configFromEnvironment } from "../../config.ts";
import { Database } from "../../db/database.ts";
import { workOn } from "../../base/begin.ts";
import { checkChain } from "../../base/checkChain.ts";

/** `npm run verify-audit`: says whether the audit trail is whole; ends with 1 where it is not. */
const { dataDir, person } = configFromEnvironment(process.env);
const db = await Database.open(dataDir, person);
const { entries, unchained, broken, last } = await checkChain(await workOn(db, dataDir)());
await db.close();
if (broken === null) {
  console.log(
    `The audit trail is whole: ${entries} entries, ${unchained} from before it was chained. Last: ${last || "none"}`,
  );
} else {
  console.log(
    `Entry ${broken} was changed, or one before it taken out. ${entries - 1} entries before it are whole.`,
  );
  process.exitCode = 1;
}
