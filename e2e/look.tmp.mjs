import { chromium } from "@playwright/test";
const CHROMIUM = {executablePath:"/usr/bin/chromium",args:["--no-sandbox"]};
const address = process.env["FISCALON_URL"] ?? "http://127.0.0.1:4610";
const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.on("pageerror", (error) => console.log("PAGE ERROR", error.message));
for (const job of process.argv.slice(2)) {
  const [name, path, ...steps] = job.split("|");
  if (name.endsWith("-dark")) await page.emulateMedia({ colorScheme: "dark" }); else await page.emulateMedia({ colorScheme: "light" });
  await page.goto(address + path);
  await page.waitForLoadState("networkidle");
  for (const step of steps) {
    const [verb, ...rest] = step.split(":"); const arg = rest.join(":");
    try {
    if (verb === "click") await page.getByRole("button", { name: arg }).first().click({timeout:4000});
    else if (verb === "clickx") await page.getByRole("button", { name: arg, exact: true }).first().click({timeout:4000});
    else if (verb === "link") await page.getByRole("link", { name: arg }).first().click({timeout:4000});
    else if (verb === "fill") { const [l, v] = arg.split("="); await page.getByLabel(l).first().fill(v, {timeout:4000}); }
    else if (verb === "select") { const [l, v] = arg.split("="); await page.getByLabel(l).first().selectOption(v, {timeout:4000}); }
    else if (verb === "check") await page.getByLabel(arg).first().check({timeout:4000});
    else if (verb === "key") await page.keyboard.press(arg);
    else if (verb === "scroll") await page.mouse.wheel(0, Number(arg));
    } catch (e) { console.log(name, step, String(e).split("\n")[0]); }
    await page.waitForTimeout(150);
  }
  await page.waitForTimeout(400);
  await page.screenshot({ path: `/tmp/${name}.png` });
}
await browser.close();
