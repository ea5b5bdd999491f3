import { setTimeout } from "node:timers/promises";
import type { Browser, Page } from "@playwright/test";

const QUIET_MS = 120;
const PAUSE_MS = 30;
const MOST_MS = 45_000;
/** Letters that a sheet with anything on it has. */
const LEAST_WORDS = 20;

/** What is wrong with a screen, one sentence each. */
export type Complaints = string[];

/** A page that opens address after address without loading the application again, and notes what goes wrong. */
export class Visitor {
  readonly #page: Page;
  #waiting = 0;
  #lastChange = Date.now();
  #complaints: Complaints = [];

  private constructor(page: Page) {
    this.#page = page;
    page.on("console", (message) => {
      if (message.type() === "error") this.#complaints.push(`console: ${message.text()}`);
    });
    page.on("pageerror", (error) => this.#complaints.push(`error: ${error.message}`));
    page.on("request", () => this.#moved(1));
    page.on("requestfailed", () => this.#moved(-1));
    page.on("requestfinished", () => this.#moved(-1));
    page.on("response", (response) => {
      if (response.status() >= 500) this.#complaints.push(`${response.status()} from ${response.url()}`);
    });
  }

  static async enter(browser: Browser, address: string): Promise<Visitor> {
    const page = await browser.newPage();
    const visitor = new Visitor(page);
    await page.goto(address);
    return visitor;
  }

  /** Opens a path and says what is wrong with what it shows. */
  async open(path: string): Promise<Complaints> {
    this.#complaints = [];
    await this.#page.evaluate((to) => {
      history.pushState(null, "", to);
      dispatchEvent(new PopStateEvent("popstate", { state: null }));
    }, path);
    await this.#settled(path);
    const seen = await this.#page.evaluate(() => {
      const sheet = document.querySelector<HTMLElement>("#sheet");
      return {
        words: sheet?.textContent?.trim().length ?? 0,
        busy: sheet?.querySelector("[aria-busy=true]")?.textContent,
        heading: sheet?.querySelector("h1")?.textContent ?? "",
        wide: (document.scrollingElement?.scrollWidth ?? 0) - window.innerWidth,
        wideSheet: [...document.querySelectorAll("#sheet > *")].some(
          (part) => part.scrollWidth > part.clientWidth + 1 && getComputedStyle(part).overflowX !== "hidden",
        ),
        cutOff: [...document.querySelectorAll<HTMLElement>("#sheet *, footer *")]
          .filter((part) => /^[-−(]?[\d.,' ]*\d\)?$|^\d{1,2} [A-Z][a-z]{2,3} \d{4}$/.test(part.textContent))
          .filter(
            (part) => part.matches("td, th, [role=cell]") || getComputedStyle(part).overflowX !== "visible",
          )
          .filter((part) => {
            const text = document.createRange();
            text.selectNodeContents(part);
            const { paddingLeft, paddingRight } = getComputedStyle(part);
            const room = part.clientWidth - parseFloat(paddingLeft) - parseFloat(paddingRight);
            return text.getBoundingClientRect().width > room + 0.5;
          })
          .map((part) => part.textContent),
        forMachines: /\b(?:to|from|on|of|since|until|before|by) \d{4}-\d\d-\d\d\b/.exec(
          sheet?.innerText ?? "",
        )?.[0],
      };
    });
    const complaints = [...this.#complaints];
    if (seen.busy !== undefined) complaints.push(`still waiting: ${seen.busy}`);
    else if (seen.words < LEAST_WORDS) complaints.push("the sheet is blank");
    if (/broke|cannot be shown/.test(seen.heading)) complaints.push(`the screen says: ${seen.heading}`);
    if (seen.wide > 0) complaints.push(`scrolls sideways by ${seen.wide} pixels`);
    if (seen.cutOff.length > 0) complaints.push(`figures or dates are cut off: ${seen.cutOff.join(", ")}`);
    if (seen.forMachines) complaints.push(`a date is not as people write it: ${seen.forMachines}`);
    if (seen.wideSheet) complaints.push("the sheet scrolls sideways");
    return complaints;
  }

  async leave(): Promise<void> {
    await this.#page.close();
  }

  #moved(by: number): void {
    this.#waiting += by;
    this.#lastChange = Date.now();
  }

  /**
   * Until nothing was asked of the server for a moment and the sheet of this address has something on it: the one before
   * stays where it is while the next is fetched. The page is left alone between two looks.
   */
  async #settled(path: string): Promise<void> {
    const start = Date.now();
    this.#lastChange = start;
    while (Date.now() - start < MOST_MS) {
      await setTimeout(PAUSE_MS);
      if (this.#waiting > 0 || Date.now() - this.#lastChange < QUIET_MS) continue;
      const words = await this.#page.evaluate((wanted) => {
        const sheet = document.querySelector<HTMLElement>("#sheet");
        if (!sheet || sheet.dataset["path"] !== wanted || sheet.querySelector("[aria-busy=true]")) return 0;
        return sheet.textContent?.trim().length ?? 0;
      }, path);
      if (words >= LEAST_WORDS) return;
    }
  }
}
