import { NavLink, useParams } from "react-router";
import { useRole, useShop } from "../../resources/session.ts";
import { AccessPart } from "./AccessPart.tsx";
import { DataPart } from "./DataPart.tsx";
import { EquipmentPart } from "./EquipmentPart.tsx";
import { LossesPart } from "./LossesPart.tsx";
import { PeoplePart } from "./PeoplePart.tsx";
import { ShopPart } from "./ShopPart.tsx";
import { SuppliersPart } from "./SuppliersPart.tsx";

const PARTS = [
  ["shop", "The shop", true],
  ["suppliers", "Suppliers", true],
  ["equipment", "Equipment", true],
  ["losses", "Losses", true],
  ["people", "People", false],
  ["access", "My sign-in", false],
  ["data", "Backup and history", true],
] as const;

/** Settings in parts: the shop, its people, one's own sign-in, the data. */
export function SettingsPage() {
  const shop = useShop();
  const isOwner = useRole() === "owner";
  const part = useParams().part ?? (isOwner ? "shop" : "access");
  return (
    <main id="main" className="mx-auto w-full max-w-[980px] px-6 py-6 max-sm:px-3">
      <h1 className="mb-3">Settings of {shop.name}</h1>
      <div className="grid grid-cols-[180px_minmax(0,1fr)] gap-8 max-md:grid-cols-1 max-md:gap-4">
        <nav aria-label="Parts of the settings">
          <ul className="flex flex-col max-md:flex-row max-md:flex-wrap max-md:gap-x-4">
            {PARTS.filter(([, , forOwner]) => isOwner || !forOwner).map(([key, label]) => (
              <li key={key}>
                <NavLink
                  to={`/settings/${key}`}
                  aria-current={part === key ? "page" : undefined}
                  className={`block border-l-[3px] px-3 py-1.5 ${part === key ? "border-metal bg-sheet font-bold" : "border-transparent hover:bg-sheet"}`}
                >
                  {label}
                </NavLink>
              </li>
            ))}
          </ul>
        </nav>
        {part === "shop" && isOwner ? (
          <ShopPart />
        ) : part === "suppliers" && isOwner ? (
          <SuppliersPart />
        ) : part === "equipment" && isOwner ? (
          <EquipmentPart />
        ) : part === "losses" && isOwner ? (
          <LossesPart />
        ) : part === "people" ? (
          <PeoplePart />
        ) : part === "data" && isOwner ? (
          <DataPart />
        ) : (
          <AccessPart />
        )}
      </div>
    </main>
  );
}
