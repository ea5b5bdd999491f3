import type { BoxDefinition } from "../model/returnForm.ts";

/** Whether an id names a family of boxes and not one of them. */
export function isFamily(id: string): boolean {
  return id.includes("*");
}

/** Those of these ids that belong to a family: `3.2.unreg.*.igst` has a member for each state. */
export function idsOfFamily(family: string, ids: Iterable<string>): string[] {
  return [...ids].filter((id) => memberNamed(family, id) !== undefined);
}

/** What the stars of a family stand for in an id of it, in order; nothing where the id is none of it. */
export function partsOfMember(family: string, id: string): readonly string[] {
  return memberNamed(family, id) ?? [];
}

/** The boxes of a family that occur among these ids, in order. */
export function familyMembers(family: BoxDefinition, ids: Iterable<string>): BoxDefinition[] {
  return membersAmong(family.id, ids).map((member) => memberOf(family, member));
}

/**
 * A form's boxes with the members that occur in the place of each family: of one that is summed those that something
 * moved, of one that is worked out those of the families it reads. Families that follow each other and begin alike stand
 * member by member, by what their first star stands for.
 * @param moved ids of boxes in which something lands
 */
export function boxesWithMembers(
  boxes: readonly BoxDefinition[],
  moved: ReadonlySet<string>,
): BoxDefinition[] {
  const known = new Map<string, readonly Member[]>();
  const membersOf = (family: BoxDefinition): readonly Member[] => {
    const before = known.get(family.id);
    if (before) return before;
    const read = boxes.filter(({ id }) => familiesReadBy(family).includes(id));
    const stars = starsIn(family.id);
    const inherited = read.flatMap(membersOf).map((member) => member.slice(0, stars));
    const members = inOrder([...membersAmong(family.id, moved), ...inherited]);
    known.set(family.id, members);
    return members;
  };
  return runsOf(boxes).flatMap((run) => {
    if (!run.some(({ id }) => isFamily(id))) return run;
    const firsts = [...new Set(run.flatMap(membersOf).map(([first = ""]) => first))].sort();
    return firsts.flatMap((first) =>
      run.flatMap((box) =>
        membersOf(box)
          .filter((member) => member[0] === first)
          .map((member) => memberOf(box, member)),
      ),
    );
  });
}

/** What the stars of a family stand for, in order. */
type Member = readonly string[];

const patterns = new Map<string, RegExp>();

/** A star stands for anything without a dot. */
function patternOf(family: string): RegExp {
  const known = patterns.get(family);
  if (known) return known;
  const parts = family.split("*").map((part) => part.replace(/[.+?^${}()|[\]\\]/g, "\\$&"));
  const pattern = new RegExp(`^${parts.join("([^.*]+)")}$`);
  patterns.set(family, pattern);
  return pattern;
}

function memberNamed(family: string, id: string): Member | undefined {
  return patternOf(family).exec(id)?.slice(1);
}

function membersAmong(family: string, ids: Iterable<string>): Member[] {
  if (!isFamily(family)) return [];
  return inOrder(
    [...ids].flatMap((id) => [memberNamed(family, id) ?? []]).filter(({ length }) => length > 0),
  );
}

function inOrder(members: readonly Member[]): Member[] {
  const byName = new Map(members.map((member) => [member.join("."), member]));
  return [...byName].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, member]) => member);
}

/** Boxes one by one, and families that begin alike together. */
function runsOf(boxes: readonly BoxDefinition[]): BoxDefinition[][] {
  const runs: BoxDefinition[][] = [];
  for (const box of boxes) {
    const before = runs.at(-1);
    const last = before?.at(-1);
    const follows = last && isFamily(last.id) && isFamily(box.id) && startOf(last.id) === startOf(box.id);
    if (before && follows) before.push(box);
    else runs.push([box]);
  }
  return runs;
}

function startOf(family: string): string {
  return family.slice(0, family.indexOf("*"));
}

function starsIn(family: string): number {
  return family.split("*").length - 1;
}

const NAMED = /\[([^\]]*\*[^\]]*)\]/g;

function familiesReadBy(box: BoxDefinition): string[] {
  if (box.kind === "taxed") return [box.of].filter(isFamily);
  return box.kind === "formula" ? [...box.formula.matchAll(NAMED)].map(([, id = ""]) => id) : [];
}

/**
 * One box of a family. What it reads of other families is that of the same member; where those have further stars, the
 * sum over these.
 */
function memberOf(family: BoxDefinition, member: Member): BoxDefinition {
  const named = (text: string) => member.reduce((filled, part) => filled.replace("*", part), text);
  const words = member.join(" from ");
  const head = {
    id: named(family.id),
    title: `${family.title}, ${words}`,
    short: `${family.short}, ${words}`,
  };
  if (family.kind === "taxed")
    return { ...family, ...head, of: named(family.of), schedule: named(family.schedule) };
  if (family.kind === "formula")
    return { ...family, ...head, formula: family.formula.replace(NAMED, (text) => named(text)) };
  return { ...family, ...head };
}
