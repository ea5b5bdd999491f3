import { ScreenLinks } from "./ScreenLinks.tsx";

/** The screens of Books. */
export function BooksNav() {
  return <ScreenLinks label="Books" group="books" className="flex flex-wrap gap-x-5 font-semibold" />;
}
