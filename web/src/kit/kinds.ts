import { DOCUMENT_KINDS, kindsWhere } from "@fiscalon/core/model/documentKinds";
import type { DocumentKind } from "@fiscalon/core/model/documentKinds";

export const KIND_NAMES = Object.fromEntries(
  Object.entries(DOCUMENT_KINDS).map(([kind, { name }]) => [kind, name]),
) as Record<DocumentKind, string>;

/** Kinds a person types, in the order they are offered. */
export const TYPED_KINDS = kindsWhere(({ entry }) => entry === "typed");

/** Every kind a document can have. */
export const ALL_KINDS = kindsWhere(() => true);
