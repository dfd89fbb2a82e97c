import { PACKAGE_FILES, packageFileKind, panelOf } from "@kobbin/core";
import { useManifest } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Failed, Skeleton } from "../../ui/States.tsx";
import { count } from "../../ui/text/format.ts";

/** The files of the package with their hashes, folded. */
export function InThePackage() {
  const { id, answer } = useRun();
  const { data, error, mutate } = useManifest(id);
  const sheetOf = panelOf(answer.document) ? answer.document.product : undefined;
  const about = (path: string): string => {
    const kind = packageFileKind(path, sheetOf);
    return kind ? PACKAGE_FILES[kind].what : "";
  };
  if (error) return <Failed error={error} again={() => mutate()} />;
  if (!data) return <Skeleton rows={2} />;
  return (
    <details className="mt-5 border-t border-rule pt-3">
      <summary className="font-semibold">In the package: {count(data.files.length, "file")}</summary>
      <div className="mt-2 overflow-x-auto">
        <table className="rows w-full">
          <thead>
            <tr>
              <th>File</th>
              <th>What it is</th>
              <th className="text-right">Bytes</th>
              <th>SHA-256</th>
            </tr>
          </thead>
          <tbody>
            {data.files.map((f) => (
              <tr key={f.path}>
                <td className="num text-[13px] break-all">{f.path}</td>
                <td className="text-[14px] text-ink-2">{about(f.path)}</td>
                <td className="num text-right">{f.bytes}</td>
                <td className="num text-[12px] text-ink-3" title={f.sha256}>
                  {f.sha256.slice(0, 12)}…
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="num mt-3 text-[12px] break-all text-ink-3">package {answer.packageSha256}</p>
    </details>
  );
}
