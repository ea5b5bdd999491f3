/**
 * The element of a list at an index that is there by construction.
 * @throws RangeError where it is not: a defect, never an answer
 */
export function at<T>(list: readonly T[], index: number): T {
  const element = list[index];
  if (element === undefined) throw new RangeError(`There is no element ${index} among ${list.length}.`);
  return element;
}

/**
 * The value under a key that is there by construction.
 * @throws RangeError where it is not
 */
export function valueAt<K, V>(map: ReadonlyMap<K, V>, key: K): V {
  const value = map.get(key);
  if (value === undefined) throw new RangeError(`There is nothing under ${String(key)}.`);
  return value;
}

/**
 * The element that fits, which is there by construction.
 * @param what what is looked for, in words, for whoever reads of the defect
 * @throws RangeError where none fits
 */
export function found<T>(list: readonly T[], fits: (element: T) => boolean, what: string): T {
  const element = list.find(fits);
  if (element === undefined) throw new RangeError(`There is no ${what} among ${list.length}.`);
  return element;
}

/** The text under an index or key; empty where there is none, which is meant: a short row, a field not filled in. */
export function textAt(
  texts: readonly string[] | Readonly<Record<string, string | undefined>>,
  key: number | string | undefined,
): string {
  return key === undefined
    ? ""
    : ((texts as Readonly<Record<number | string, string | undefined>>)[key] ?? NONE);
}

const NONE = "";
