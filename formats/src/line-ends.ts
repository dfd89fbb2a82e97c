import Papa from "papaparse";

/** A line as it stands outside of cells in quotes, with what ends it. */
interface Line {
  readonly text: string;
  readonly end: string;
}

/** Lines of delimited text; what a cell in quotes goes over stays in its line. */
function linesOf(body: string, delimiter: string): Line[] {
  const lines: Line[] = [];
  let from = 0;
  let isQuoted = false;
  for (let i = 0; i < body.length; i++) {
    const c = body[i]!;
    if (isQuoted) {
      if (c !== '"') continue;
      if (body[i + 1] === '"') i++;
      else isQuoted = false;
    } else if (c === '"') isQuoted = i === from || body[i - 1] === delimiter;
    else if (c === "\n" || c === "\r") {
      const end = c === "\r" && body[i + 1] === "\n" ? "\r\n" : c;
      lines.push({ text: body.slice(from, i), end });
      i += end.length - 1;
      from = i + 1;
    }
  }
  if (from < body.length) lines.push({ text: body.slice(from), end: "" });
  return lines;
}

/** What occurs most often; of those that do alike, the first. */
function usualOf<T>(all: Iterable<T>): T | undefined {
  const counts = new Map<T, number>();
  for (const one of all) counts.set(one, (counts.get(one) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
}

/** Whether lines end in more than one way. */
export const endsDiffer = (body: string): boolean =>
  [/\r\n/, /\r(?!\n)/, /(?<!\r)\n/].filter((end) => end.test(body)).length > 1;

/**
 * Text whose lines end in more than one way, as hands and other programs leave it behind when they add rows to a list: with
 * one end for all rows. Lines with an end that few have are a cell broken without quotes where all of them together are as
 * wide as most rows, and somebody went on in the usual way behind them; the break is a space then. Else each is a row.
 */
export function evenEnds(body: string, delimiter: string): string {
  const lines = linesOf(body, delimiter);
  const width = (text: string) => {
    const { data, errors } = Papa.parse<string[]>(text, { delimiter, newline: "\n" });
    return data.length === 1 && !errors.some((e) => e.type === "Quotes") ? data[0]!.length : 0;
  };
  const usualEnd = usualOf(lines.flatMap((l) => (l.end ? [l.end] : [])));
  const usual = usualOf(lines.flatMap((l) => (l.text.trim() === "" ? [] : [width(l.text)])));
  const rows: string[] = [];
  let group: string[] = [];
  const close = (isLast: boolean) => {
    const one = group.join(" ");
    const isCell = group.length > 1 && group.every((t) => t.trim() !== "") && width(one) === usual;
    if (isCell && !(isLast && width(group[0]!) === usual)) rows.push(one);
    else rows.push(...group);
    group = [];
  };
  for (const { text, end } of lines) {
    group.push(text);
    if (end === usualEnd) close(false);
  }
  if (group.length > 0) close(true);
  return rows.join("\n");
}
