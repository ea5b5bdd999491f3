/** Links that give what is shown as a file; `query` goes along beside the format. */
export function FileLinks({
  href,
  query = {},
  formats = ["xlsx", "pdf", "csv"],
  words = "",
}: {
  href: string;
  query?: Readonly<Record<string, string>>;
  formats?: readonly string[];
  /** What is said of each beside its format. */
  words?: string;
}) {
  return formats.map((format) => (
    <a
      key={format}
      className="word-link"
      download
      href={`${href}?${new URLSearchParams({ ...query, format }).toString()}`}
    >
      {format.toUpperCase()}
      {words}
    </a>
  ));
}
