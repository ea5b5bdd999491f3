import { useLayoutEffect } from "react";
import type { RefObject } from "react";

/** What a cell has around its text. */
const PADDING = 16;

/** The least width of a column of figures, as CSS. */
export const fittingWidth = (column: string, width: number): string =>
  `max(${width}px, var(--figure-${column}, 0px))`;

/**
 * Makes columns wide enough that no figure in them is cut off: a sum of a large client has more digits than a column
 * was made for. Cells say by `data-figure` which column they are in.
 */
export function useFittingFigures(box: RefObject<HTMLElement | null>): void {
  useLayoutEffect(() => {
    const wider = new Map<string, number>();
    for (const cell of box.current?.querySelectorAll<HTMLElement>("[data-figure]") ?? []) {
      const { figure } = cell.dataset;
      if (figure === undefined || cell.scrollWidth <= cell.clientWidth) continue;
      const text = document.createRange();
      text.selectNodeContents(cell);
      const width = Math.ceil(text.getBoundingClientRect().width) + PADDING;
      wider.set(figure, Math.max(wider.get(figure) ?? PADDING, width));
    }
    for (const [column, width] of wider) box.current?.style.setProperty(`--figure-${column}`, `${width}px`);
  });
}
