import { chromium } from "@playwright/test";
import { mkdirSync } from "node:fs";
import { CHROMIUM } from "./support/chromium.ts";

/**
 * Takes one picture of each main view from the demonstration data: `npm run screenshots`, with the demo running.
 * `-- name…` takes only those.
 */
const address = process.env["FISCALON_URL"] ?? "http://127.0.0.1:4600";
const folder = `${process.cwd()}/../docs/screenshots/`;
const only = process.argv.slice(2);

const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
mkdirSync(folder, { recursive: true });

const clients = (await (await fetch(`${address}/api/clients`)).json()) as { id: number; name: string }[];
const named = (name: string) => `/c/${clients.find((one) => one.name.startsWith(name))?.id}`;
const client = named("Saltmarsh");
const { rows } = (await (
  await fetch(`${address}/api/clients${client.slice(2)}/documents?search=CB-8897`)
).json()) as { rows: { id: number }[] };

const VIEWS: [string, string, (() => Promise<void>)?][] = [
  ["clients", "/"],
  ["setup-places", `${named("Nimbus")}/setup/places`],
  ["setup-codes", `${named("Honeygum")}/setup/codes`, chooseWine],
  ["setup-law", `${named("Prairie")}/setup/law`],
  ["setup-methods", `${named("Quillon")}/setup/methods`],
  ["jurisdiction", "/jurisdictions/new"],
  ["books-documents", `${client}/books/documents`],
  ["books-document", `${client}/books/documents/${rows[0]?.id}`],
  ["books-bank", `${client}/books/bank`],
  ["books-import", `${client}/books/import`, dropRegister],
  ["books-reports", `${named("Nimbus")}/books/reports`],
  ["books-stock", `${named("Larkspur")}/books/stock`, showSold],
  ["books-ledger", `${client}/books/ledger`],
  ["agree-control", `${client}/agree/control`],
  ["agree-turnover", `${client}/agree/turnover`, overTheYear],
  ["agree-statement", `${named("Monsoon")}/agree/statements`, openStatement],
  ["return", `${client}/return`, openBoxFour],
  ["return-workpaper", `${named("Quillon")}/return`, lookAtWorkpaper],
  ["settle", `${client}/settle`],
];

for (const [name, path, prepare] of VIEWS) {
  if (only.length > 0 && !only.includes(name)) continue;
  await page.emulateMedia({ colorScheme: "light" });
  await page.goto(address + path);
  await page.waitForLoadState("networkidle");
  await prepare?.();
  await page.waitForTimeout(300);
  await page.screenshot({ path: `${folder}${name}.png` });
}
await browser.close();

async function openStatement(): Promise<void> {
  await page
    .getByRole("link", { name: /GSTR-2B/ })
    .first()
    .click();
  await page.getByRole("grid").waitFor();
  await page.waitForLoadState("networkidle");
  await page.getByRole("button", { name: "Value, tax, rate" }).click();
  await page.waitForLoadState("networkidle");
}

async function overTheYear(): Promise<void> {
  await page.getByLabel("From").selectOption({ index: 1 });
}

async function showSold(): Promise<void> {
  await page.getByRole("tab", { name: /^sold/ }).click();
}

async function lookAtWorkpaper(): Promise<void> {
  await page.getByRole("region", { name: /^Workpaper/ }).scrollIntoViewIfNeeded();
}

async function chooseWine(): Promise<void> {
  await page.getByLabel("Find a code").fill("wine");
  await page.getByRole("button", { name: "WW", exact: true }).click();
}

async function openBoxFour(): Promise<void> {
  await page.getByRole("button", { name: /^Box 4 / }).click();
  const trail = page.getByRole("region", { name: "Trail" });
  await trail
    .getByRole("button", { name: /S20 20 %, purchases/ })
    .first()
    .click();
  await trail.getByRole("button", { name: /CB-8897/ }).click();
  await page.waitForTimeout(300);
}

/** The register is received and checked, not posted; the demonstration data stays as it is but for that. */
async function dropRegister(): Promise<void> {
  await page.getByLabel("Register file").setInputFiles(`${process.cwd()}/fixtures/sales-register.csv`);
  await page.getByText(/rows to mend/).waitFor();
  await page.getByLabel("Code where the tax is blank").selectOption("Z");
  await page.getByRole("progressbar").waitFor();
  await page.getByRole("progressbar").waitFor({ state: "detached" });
  await page.getByText(/rows to mend/).waitFor();
}
