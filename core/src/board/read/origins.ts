import type { Finding } from "../../findings.ts";
import { addTo } from "../../grouped.ts";
import type { BoardFile } from "../board-file.ts";

/** Days between two exports of one set; more are two sets. */
const MOST_DAYS = 1;

const attributesOf = (f: BoardFile) => f.layer?.fileAttributes ?? f.drill?.fileAttributes ?? {};

/** Says where files of one drop state different projects, revisions, writers or days: they may be of two exports. */
export function sayOrigins(files: readonly BoardFile[], findings: Finding[]): void {
  const used = files.filter((f) =>
    ["copper", "mask", "legend", "paste", "profile", "drill"].includes(f.role),
  );
  const groups = (of: (f: BoardFile) => string | undefined) => {
    const out = new Map<string, string[]>();
    for (const f of used) {
      const v = of(f);
      if (v !== undefined && v !== "") addTo(out, v, f.path);
    }
    return [...out].sort((a, b) => b[1].length - a[1].length);
  };
  const tell = (what: string, list: [string, string[]][], level: Finding["level"]) => {
    const [most, ...others] = list;
    findings.push({
      tag: "mixed-revisions",
      level,
      text: `Files of the drop state different ${what}: most say “${most![0]}”, but ${others.map(([v, paths]) => `${paths.slice(0, 4).join(", ")}${paths.length > 4 ? ` and ${paths.length - 4} more` : ""} “${v}”`).join("; ")}.`,
      do: "Export the whole set once more, and drop only that.",
    });
  };
  const project = groups((f) =>
    attributesOf(f)
      .ProjectId?.filter((x) => x !== "")
      .join(" ")
      .slice(0, 120),
  );
  if (project.length > 1) tell("projects or revisions", project, "error");
  const writer = groups((f) => attributesOf(f).GenerationSoftware?.join(" ").slice(0, 120));
  if (writer.length > 1) tell("writers", writer, "warning");
  const days = groups((f) => /^\d{4}-\d{2}-\d{2}/.exec(attributesOf(f).CreationDate?.[0] ?? "")?.[0]);
  const times = days.map(([d]) => Date.parse(`${d}T00:00:00Z`)).filter((t) => !Number.isNaN(t));
  if (times.length > 1 && Math.max(...times) - Math.min(...times) > MOST_DAYS * 86_400_000)
    tell("days of export", days, project.length > 1 ? "remark" : "warning");
}
