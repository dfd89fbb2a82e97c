import { microsToText, proveBasket, sourceDocument, toInstance } from "@kobbin/core";
import { loadSolver } from "@kobbin/solver";
import { readJson } from "../json-file.ts";
import { printJson, printRows, UsageError } from "../print.ts";

/** `kobbin source`: prints source/1, the cheapest basket of an instance with what is proven of it. */
export async function source(paths: readonly string[], json: boolean, seconds: number): Promise<number> {
  const [path] = paths;
  if (!path) throw new UsageError("usage: kobbin source <instance.json> [--json]");
  const instance = toInstance(readJson(path, "See docs/cli.md for its form."));
  const started = performance.now();
  const { needs, suppliers, options } = instance;
  const basket = await proveBasket(
    needs,
    suppliers,
    () => loadSolver(),
    Math.max(1, seconds - 5),
    () => performance.now(),
    options,
  );
  const doc = sourceDocument(instance, basket, performance.now() - started);
  if (json) {
    printJson(doc);
    return 0;
  }
  const price = (micros: number) => `${microsToText(micros)} ${doc.currency}`;
  const nameOf = (id: string) => suppliers.find((s) => s.id === id)?.name ?? id;
  printRows([
    ["in all", price(basket.total)],
    ["parts", price(basket.parts)],
    ["parcels", price(basket.shipping)],
    ...(basket.duty > 0 ? [["duty", price(basket.duty)]] : []),
    [
      "proof",
      doc.proven ? "nothing is cheaper" : `at most ${(doc.gap * 100).toFixed(3)} % could still be saved`,
    ],
  ]);
  for (const id of basket.suppliers) {
    process.stdout.write(`\n${nameOf(id)}, parcel ${price(basket.shippingOf[id] ?? 0)}\n`);
    printRows(
      basket.lines.flatMap((l) =>
        l.buys
          .filter((b) => b.supplier === id)
          .map((b) => [
            `  ${l.line}`,
            b.offer,
            String(b.qty),
            `at ${microsToText(b.unitPrice)}`,
            price(b.cost),
          ]),
      ),
    );
  }
  for (const m of doc.missing)
    process.stdout.write(`\nmissing: ${m.missing} of ${m.need} of line ${m.line}, nobody has them\n`);
  return 0;
}
