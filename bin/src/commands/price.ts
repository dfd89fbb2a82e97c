import { priceDocument } from "@kobbin/core";
import { readJson } from "../json-file.ts";
import { printJson, printRows, UsageError } from "../print.ts";

/** `kobbin price`: prints price/1, what one must sell for on each channel. */
export function price(paths: readonly string[], json: boolean): number {
  const [path] = paths;
  if (!path || paths.length > 1) throw new UsageError("usage: kobbin price <price.json> [--json]");
  const p = priceDocument(readJson(path, "docs/cli.md shows the form."));
  if (json) {
    printJson(p);
    return 0;
  }
  printRows([
    ["channel", "shown", "received", "fees", "left", "margin", "nothing left at"],
    ...p.channels.map((c) =>
      c.atPoint
        ? [
            c.name,
            c.pricePoint!,
            c.atPoint.net,
            c.atPoint.fees,
            c.atPoint.contribution,
            c.atPoint.margin === undefined ? "" : `${(100 * c.atPoint.margin).toFixed(1)} %`,
            c.floor ?? "no price",
          ]
        : [c.name, c.impossible ?? "", "", "", "", "", c.floor ?? "no price"],
    ),
  ]);
  if (p.real)
    process.stdout.write(
      p.real.now === undefined
        ? `${p.real.toHold} would hold the price of then\n`
        : `${p.real.now} in the money of then, ${p.real.old} it was; ${p.real.toHold} would hold it\n`,
    );
  return 0;
}
