import type { Migration } from "../migration.ts";
import { PRACTICE_TABLES } from "./practiceTables.ts";

/** What is of the practice and of no client alone. */
const firstPractice: Migration = { name: "2026-11-30-practice", statements: PRACTICE_TABLES };

/** Every shape the file of the practice had, in order. */
export const PRACTICE_MIGRATIONS: readonly Migration[] = [firstPractice];
