import { posix } from "node:path";
import type { Archive, Part } from "./archive.ts";
import { elements, prefixedAttribute } from "./elements.ts";
import { shownBy } from "./numberFormat.ts";
import type { Shown } from "./numberFormat.ts";
import { tooLarge } from "./unreadable.ts";

/** Texts of all cells are held while a workbook is read; unpacked they may come to so much. */
const MOST_TEXTS = 200 * 1024 * 1024;

/** What all sheets of a workbook share. */
export interface Book {
  sheets: { name: string; part: Part }[];
  texts: string[];
  /** By the style of a cell. */
  shown: Shown[];
  from1904: boolean;
}

/**
 * What a workbook is made of, by the relations between its parts and not by their names: every writer names them its
 * own way. Sheets nobody sees are left out.
 * Source: ECMA-376 part 1, 12.3 (parts), 18.2 (workbook), 18.4 (shared strings), 18.8 (styles), from memory
 */
export function openBook(archive: Archive): Book {
  const [main] = related(archive, "", "officeDocument");
  if (!main) throw new Error("There is no workbook in the archive.");
  const texts = related(archive, main.path, "sharedStrings")[0];
  if (texts && texts.part.size > MOST_TEXTS) throw tooLarge();
  const styles = related(archive, main.path, "styles")[0];
  const byId = new Map(related(archive, main.path, "worksheet").map(({ id, part }) => [id, part]));
  const { sheets, from1904 } = contentOf(main.part);
  return {
    sheets: sheets.flatMap(({ name, id }) => {
      const part = byId.get(id);
      return part ? [{ name, part }] : [];
    }),
    texts: texts ? [...elements(texts.part, textHandlers)] : [],
    shown: styles ? stylesOf(styles.part) : [],
    from1904,
  };
}

interface Related {
  id: string;
  path: string;
  part: Part;
}

/** Parts a part is related to in one way. @param path of that part, empty for the archive itself */
function related(archive: Archive, path: string, kind: string): Related[] {
  const folder = posix.dirname(path);
  const relations = archive.get(posix.join(folder, "_rels", `${posix.basename(path)}.rels`).toLowerCase());
  if (!relations) return [];
  return [
    ...elements<Related>(relations, (found) => ({
      open: (name, { Id = "", Type = "", Target = "" }) => {
        if (name !== "Relationship" || !Type.endsWith(`/${kind}`)) return;
        const target = (Target.startsWith("/") ? Target.slice(1) : posix.join(folder, Target)).toLowerCase();
        const part = archive.get(target);
        if (part) found({ id: Id, path: target, part });
      },
    })),
  ];
}

function contentOf(main: Part): { sheets: { name: string; id: string }[]; from1904: boolean } {
  let from1904 = false;
  const sheets = [
    ...elements<{ name: string; id: string }>(main, (found) => ({
      open: (element, attributes) => {
        if (element === "workbookPr") from1904 = /^(1|true)$/.test(attributes["date1904"] ?? "");
        if (element !== "sheet" || /hidden$/i.test(attributes["state"] ?? "")) return;
        found({
          name: unescaped(attributes["name"] ?? ""),
          id: prefixedAttribute(attributes, "id") ?? "",
        });
      },
    })),
  ];
  return { sheets, from1904 };
}

/** Texts, piece by piece where they are of several; how they are pronounced is left out. */
export const textHandlers: Parameters<typeof elements<string>>[1] = (found) => {
  let text = "";
  let [isText, isSpoken] = [false, false];
  return {
    open: (name) => {
      if (name === "si" || name === "is") text = "";
      else if (name === "t") isText = true;
      else if (name === "rPh") isSpoken = true;
    },
    text: (piece) => {
      if (isText && !isSpoken) text += piece;
    },
    close: (name) => {
      if (name === "t") isText = false;
      else if (name === "rPh") isSpoken = false;
      else if (name === "si" || name === "is") found(unescaped(text).trim());
    },
  };
};

function stylesOf(styles: Part): Shown[] {
  const codes = new Map<number, string>();
  let areCells = false;
  const ids = [
    ...elements<number>(styles, (found) => ({
      open: (name, attributes) => {
        const id = Number(attributes["numFmtId"] ?? 0);
        if (name === "numFmt") codes.set(id, attributes["formatCode"] ?? "");
        else if (name === "cellXfs") areCells = true;
        else if (name === "xf" && areCells) found(id);
      },
      close: (name) => {
        if (name === "cellXfs") areCells = false;
      },
    })),
  ];
  return ids.map((id) => shownBy(id, codes.get(id)));
}

/** Signs that XML cannot hold are written as _x000D_. */
export function unescaped(text: string): string {
  return text.includes("_x")
    ? text.replace(/_x([0-9A-Fa-f]{4})_/g, (_, code: string) => String.fromCharCode(parseInt(code, 16)))
    : text;
}
