import type { Measure } from "@kobbin/core";
import { Mark } from "../../ui/Mark.tsx";

/** What was found in a drop, the gravest first. */
export function Findings({ measure }: { measure: Measure }) {
  const order = { error: 0, warning: 1, remark: 2 };
  const list = [...measure.findings].sort((a, b) => order[a.level] - order[b.level]);
  return (
    <section aria-labelledby="found">
      <h2 id="found" className="mb-2">
        What was found
      </h2>
      {list.length === 0 ? (
        <p className="text-ink-2">Nothing to remark.</p>
      ) : (
        <ol>
          {list.map((f, i) => (
            <li
              key={`${f.tag} ${f.file} ${f.line} ${f.row} ${f.text}`}
              className="grid grid-cols-[22px_1fr] gap-2 border-t border-rule py-2 text-[14px]"
            >
              <Mark
                kind={f.level === "error" ? "blocked" : f.level === "warning" ? "look" : "remark"}
                count={i + 1}
              />
              <div className="min-w-0">
                <p className="break-words">{f.text}</p>
                {f.do && <p className="text-ink-2">{f.do}</p>}
                {f.file && (
                  <p className="num text-[12px] break-all text-ink-3">
                    {f.file}
                    {f.line ? `, line ${f.line}` : ""}
                    {f.row ? `, row ${f.row}` : ""}
                  </p>
                )}
              </div>
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}
