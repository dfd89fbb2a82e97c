import { counted } from "../../counted.ts";
import type { DrillData } from "../../drill/read.ts";
import type { Finding } from "../../findings.ts";
import type { LayerImage } from "../../gerber/image.ts";
import { base, type JobFunctions } from "../../job/read.ts";
import {
  factsOf,
  type LayerFacts,
  type RoleGuess,
  roleFromContent,
  roleFromFunction,
} from "../../role/role.ts";
import { roleFromName } from "../../role/role-name.ts";

/** Role of a layer image: attribute, else job file, else name and content together; contradictions are said. */
export function guessLayer(
  layer: LayerImage,
  path: string,
  functions: JobFunctions | undefined,
  findings: Finding[],
  shared: ReadonlySet<string> = new Set(),
): RoleGuess {
  const own = layer.fileAttributes.FileFunction;
  const byName = roleFromName(path, shared);
  const byAttribute = own ? roleFromFunction(own, "attribute") : undefined;
  if (byAttribute) {
    if (
      byName &&
      byAttribute.role !== "unknown" &&
      byAttribute.role !== "placement" &&
      // a name that is in doubt itself contradicts nothing
      byName.doubt === undefined &&
      (byName.role !== byAttribute.role ||
        (byName.side && byAttribute.side && byName.side !== byAttribute.side))
    )
      findings.push({
        tag: "role-contradiction",
        level: "warning",
        file: path,
        text: `The name reads as ${words(byName)}, the file's own attribute says ${words(byAttribute)}; the attribute counts.`,
        do: "Correct the role if the attribute is wrong.",
      });
    return byAttribute;
  }
  const byJob = functions?.get(base(path));
  const told = byJob ? roleFromFunction(byJob, "job") : undefined;
  if (told) return told;
  const facts: LayerFacts = factsOf(layer);
  const byContent = roleFromContent(facts);
  if (byName) {
    if (byName.doubt !== undefined)
      findings.push({
        tag: "role-guessed",
        level: byName.role === "unknown" ? "remark" : "warning",
        file: path,
        text: byName.doubt,
        do: "Set its role if it is something else.",
      });
    // a closed thin line is no copper, whatever it is called
    if (byName.role === "copper" && byContent?.role === "profile") {
      findings.push({
        tag: "role-contradiction",
        level: "warning",
        file: path,
        text: "Named like copper, but it holds one closed thin line and nothing else; it was taken as the outline.",
        do: "Set its role if it is something else.",
      });
      return byContent;
    }
    if (byName.role === "profile" && byContent?.role === "copper")
      findings.push({
        tag: "role-contradiction",
        level: "warning",
        file: path,
        text: "Named like an outline, but it holds pads and tracks.",
        do: "Check its role.",
      });
    return byName;
  }
  if (byContent) return byContent;
  findings.push({
    tag: "unknown-layer",
    level: "warning",
    file: path,
    text: "A layer whose use neither its content nor its name tells.",
    do: "Give it a role.",
  });
  return { role: "unknown", because: "content", reason: "nothing tells its use" };
}

/** "copper top": a role as a person says it. */
export const words = (r: RoleGuess) => `${r.role}${r.side ? ` ${r.side}` : ""}`;

/** Role of a drill file: attribute, else job file, else plating from content and name. */
export function guessDrill(drill: DrillData, path: string, functions: JobFunctions | undefined): RoleGuess {
  const own = drill.fileAttributes.FileFunction;
  const told =
    (own ? roleFromFunction(own, "attribute") : undefined) ??
    (functions?.get(base(path)) ? roleFromFunction(functions.get(base(path))!, "job") : undefined);
  if (told?.role === "drill") return told;
  const name = base(path);
  const byName = /npth|non[-_ ]?plated|unplated/.test(name)
    ? false
    : /pth|plated/.test(name)
      ? true
      : undefined;
  const plated = drill.plated ?? byName;
  return {
    role: "drill",
    ...(plated === undefined ? {} : { plated }),
    because: drill.plated === undefined && byName !== undefined ? "name" : "content",
    reason: `it drills ${counted(drill.hits.length, "hole")}${byName === undefined ? "" : `; its name says ${byName ? "plated" : "not plated"}`}`,
  };
}
