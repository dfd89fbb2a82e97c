import type { Shop } from "@kobbin/contract";
import { trim } from "../../db/decimal.ts";
import type { Tx } from "../../db/pool.ts";
import { one } from "../../db/tx.ts";

const SHOP = `id, name, currency, hourly_rate as "hourlyRate", tax_rate as "taxRate", hours_per_day as "hoursPerDay", rates, is_demo as "isDemo", decimal_mark as "decimalMark", date_order as "dateOrder", shows_mil as "showsMil", attrition, rules, version`;
type Row = Omit<Shop, "taxRate" | "hoursPerDay"> & { taxRate: string; hoursPerDay: string };
const toShop = (r: Row): Shop => ({
  ...r,
  hourlyRate: trim(r.hourlyRate),
  taxRate: Number(r.taxRate),
  hoursPerDay: Number(r.hoursPerDay),
});

export async function oneShop(tx: Tx): Promise<Shop> {
  const { rows } = await tx.query<Row>(`select ${SHOP} from workshop where id = current_workshop()`);
  return toShop(one(rows, "shop"));
}

export async function insertShop(
  tx: Tx,
  shop: {
    id: string;
    name: string;
    currency: string;
    hourlyRate: string;
    isDemo: boolean;
    taxRate: number;
    rates: Record<string, string>;
  },
): Promise<void> {
  await tx.query(
    "insert into workshop (id, name, currency, hourly_rate, tax_rate, rates, is_demo) values ($1, $2, $3, $4, $5, $6, $7)",
    [
      shop.id,
      shop.name,
      shop.currency,
      shop.hourlyRate,
      shop.taxRate,
      JSON.stringify(shop.rates),
      shop.isDemo,
    ],
  );
}

/** Works for a shop from here on, and records nothing: it begins with what it begins with. */
export async function enterNewShop(tx: Tx, id: string): Promise<void> {
  await tx.query("select set_config('app.workshop', $1, true), set_config('app.change', 'off', true)", [id]);
}
