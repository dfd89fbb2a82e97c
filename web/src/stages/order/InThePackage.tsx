import { PACKAGE_FILES, type PackageFileKind, packageFileKind, panelOf } from "@kobbin/core";
import { useManifest } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Failed, Skeleton } from "../../ui/States.tsx";
import { count } from "../../ui/text/format.ts";

const READERS = { boards: "the board house", assembly: "whoever places the parts" } as const;

/** "What is fitted; to whoever places the parts": what files are, and who gets them. */
function aboutOf(kind: PackageFileKind): string {
  const { what, to } = PACKAGE_FILES[kind];
  const text = `${what.charAt(0).toUpperCase()}${what.slice(1)}`;
  if (to.length === 0 || /house$/.test(what)) return text;
  return `${text}; to ${to.map((r) => READERS[r]).join(" and ")}`;
}

/** The files of the package with their hashes, folded. */
export function InThePackage() {
  const { id, answer } = useRun();
  const { data, error, mutate } = useManifest(id);
  if (error) return <Failed error={error} again={() => mutate()} />;
  if (!data) return <Skeleton rows={2} />;
  const sheetOf = panelOf(answer.document) ? answer.document.product : undefined;
  const kinds = new Map<PackageFileKind | undefined, typeof data.files>();
  for (const f of data.files) {
    const kind = packageFileKind(f.path, sheetOf);
    kinds.set(kind, [...(kinds.get(kind) ?? []), f]);
  }
  return (
    <details className="mt-5 border-t border-rule pt-3">
      <summary className="font-semibold">In the package: {count(data.files.length, "file")}</summary>
      <div className="mt-2 overflow-x-auto">
        <table className="rows w-full">
          <thead>
            <tr>
              <th>File</th>
              <th className="text-right">Bytes</th>
              <th>SHA-256</th>
            </tr>
          </thead>
          {[...kinds].map(([kind, files]) => (
            <tbody key={kind ?? ""}>
              <tr>
                <th
                  colSpan={3}
                  scope="rowgroup"
                  className="pt-4 text-left text-[14px] font-normal text-ink-2"
                >
                  {kind ? aboutOf(kind) : "something else"}
                </th>
              </tr>
              {files.map((f) => (
                <tr key={f.path}>
                  <td className="num text-[13px] break-all">{f.path}</td>
                  <td className="num text-right">{f.bytes}</td>
                  <td className="num text-[12px] text-ink-3" title={f.sha256}>
                    {f.sha256.slice(0, 12)}…
                  </td>
                </tr>
              ))}
            </tbody>
          ))}
        </table>
      </div>
      <p className="num mt-3 text-[12px] break-all text-ink-3">package {answer.packageSha256}</p>
    </details>
  );
}
