import { displayDate } from "@fiscalon/core/calendar/displayDate";
import { configFromEnvironment } from "../../config.ts";
import { Practice } from "../../practice/practice.ts";
import { checkPractice } from "./checkPractice.ts";

/** `npm run verify-audit`: says whether every audit trail is whole; ends with 1 where one is not. */
const { dataDir, person, digests: folder } = configFromEnvironment(process.env);
const practice = await Practice.open(dataDir, person);
const { entries, broken, unreadable, returns, digests, last } = await checkPractice(practice, folder);
await practice.close();
if (broken.length + unreadable.length + returns.length + digests.wrong.length === 0)
  console.log(
    `Every audit trail is whole and fits ${digests.read} signed digests, and every sealed return is what was sealed: ${entries} entries. Last: ${last}`,
  );
for (const { client, entry } of broken) {
  const whose = client === null ? "the practice" : `client ${client}`;
  console.log(
    `${whose}: entry ${entry} was changed, or one before it taken out. ${entry - 1} entries before it are whole.`,
  );
  process.exitCode = 1;
}
for (const { client, period } of returns) {
  console.log(
    `client ${client}: the return to ${displayDate(period)} does not hold any more what was sealed.`,
  );
  process.exitCode = 1;
}
for (const { file, client, why } of digests.wrong) {
  console.log(`${client === null ? "the practice" : `client ${client}`}, by ${file}: ${why}.`);
  process.exitCode = 1;
}
for (const { client, why } of unreadable) {
  console.log(`client ${client}: ${why}`);
  process.exitCode = 1;
}
