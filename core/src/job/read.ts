import type { Finding } from "../findings.ts";

/** Last part of a path in lower case: what a job file's paths are compared by. */
export const base = (path: string) => (path.split("/").pop() ?? path).toLowerCase();

export type JobFunctions = ReadonlyMap<string, readonly string[]>;

export interface Job {
  thicknessMm?: number;
  widthMm?: number;
  heightMm?: number;
  layers?: number;
  name?: string;
  revision?: string;
  functions: JobFunctions;
  /** By file, "Positive" or "Negative" where it says so. */
  polarities: ReadonlyMap<string, string>;
  paths: readonly string[];
}

/** Reads the published job file (JSON); undefined with a finding where it is broken. */
export function readJob(text: string, file: string, findings: Finding[]): Job | undefined {
  try {
    const doc = JSON.parse(text) as {
      GeneralSpecs?: {
        BoardThickness?: number;
        Size?: { X?: number; Y?: number };
        LayerNumber?: number;
        ProjectId?: { Name?: string; Revision?: string };
      };
      FilesAttributes?: { Path?: string; FileFunction?: string; FilePolarity?: string }[];
    };
    const list = Array.isArray(doc.FilesAttributes)
      ? doc.FilesAttributes.filter((f) => typeof f?.Path === "string")
      : [];
    const g = doc.GeneralSpecs ?? {};
    const num = (v: unknown) => (typeof v === "number" && Number.isFinite(v) && v > 0 ? v : undefined);
    const job: Job = {
      functions: new Map(list.map((f) => [base(f.Path!), String(f.FileFunction ?? "").split(",")])),
      polarities: new Map(
        list.flatMap((f) => (f.FilePolarity ? [[base(f.Path!), String(f.FilePolarity)]] : [])),
      ),
      paths: list.map((f) => f.Path!),
    };
    const put = <K extends keyof Job>(key: K, value: Job[K] | undefined) => {
      if (value !== undefined) job[key] = value;
    };
    put("thicknessMm", num(g.BoardThickness));
    put("widthMm", num(g.Size?.X));
    put("heightMm", num(g.Size?.Y));
    put("layers", num(g.LayerNumber));
    put("name", g.ProjectId?.Name);
    put("revision", g.ProjectId?.Revision);
    return job;
  } catch {
    findings.push({
      tag: "parse-error",
      level: "warning",
      file,
      text: "The job file is not valid JSON; the roles were found without it.",
    });
    return undefined;
  }
}

/**
 * Files a job lists and the drop lacks. One that lies there under another name, which the job does not list and which is that
 * layer, is only called otherwise.
 *
 * @param standIn the path of a file that is what a function of the job says; nothing where there is none
 */
export function checkJob(
  job: Job,
  entries: readonly { readonly path: string }[],
  file: string,
  findings: Finding[],
  standIn: (fields: readonly string[]) => string | undefined = () => undefined,
): void {
  const have = new Set(entries.map((e) => base(e.path)));
  for (const p of job.paths) {
    if (have.has(base(p))) continue;
    const other = standIn(job.functions.get(base(p)) ?? []);
    if (other !== undefined)
      findings.push({
        tag: "job-file-renamed",
        level: "remark",
        file,
        text: `The job file lists ${p}, which is not in the drop; ${other} is that layer, and was taken for it.`,
      });
    else
      findings.push({
        tag: "job-missing-file",
        // what makes the board itself is a loss; a drawing or a legend is looked for
        level: /^(copper|soldermask|profile|plated|nonplated)/i.test(job.functions.get(base(p))?.[0] ?? "")
          ? "error"
          : "warning",
        file,
        text: `The job file lists ${p}, which is not in the drop.`,
        do: "Add the file, or export the job again.",
      });
  }
}
