import {
  ALLOY_WORDS,
  ALLOYS,
  type EquipmentFacts,
  type Typed,
  tipWords,
  typedDay,
  typedHeat,
  typedLength,
  typedSight,
  typedSpace,
  typedTips,
} from "@kobbin/core";
import { typedNumber, written } from "../../ui/text/format.ts";

/** A fact that is typed: how it is shown, how it is read, and what it looks like. */
interface TypedFact {
  readonly label: string;
  readonly like: string;
  readonly show: (facts: EquipmentFacts) => string;
  /** Nothing typed takes it back. */
  readonly read: (text: string) => Typed<Partial<EquipmentFacts>>;
}

const num = (v: number | undefined): string => (v === undefined ? "" : written(String(v)));
/** What was read, as a fact. */
const as = <K extends keyof EquipmentFacts>(
  key: K,
  r: Typed<NonNullable<EquipmentFacts[K]>>,
): Typed<Partial<EquipmentFacts>> =>
  "wrong" in r ? r : { value: { [key]: r.value } as Partial<EquipmentFacts> };

/** The facts that are typed; the others are chosen from a list. */
export const TYPED_FACTS = {
  spaceMm: {
    label: "Room for boards, mm",
    like: "200 × 150",
    show: (f) => f.spaceMm?.map(num).join(" × ") ?? "",
    read: (t) => as("spaceMm", typedSpace(t)),
  },
  heightMm: {
    label: "Room above, mm",
    like: "60",
    show: (f) => num(f.heightMm),
    read: (t) => as("heightMm", typedLength(t)),
  },
  mostC: {
    label: "Hottest, °C",
    like: "260",
    show: (f) => num(f.mostC),
    read: (t) => as("mostC", typedHeat(t)),
  },
  tips: {
    label: "Tips, mm",
    like: "chisel 2.4; bevel 2; cone 0.5",
    show: (f) => (f.tips ?? []).map((t) => written(tipWords(t).replace(" mm", ""))).join("; "),
    read: (t) => as("tips", typedTips(t)),
  },
  magnifies: {
    label: "Magnifies, ×",
    like: "5, or 3 dioptres",
    show: (f) => num(f.magnifies),
    read: (t) => as("magnifies", typedSight(t)),
  },
  asked: {
    label: "Asked over the network as",
    like: "hand",
    show: (f) => f.asked ?? "",
    read: (t) => {
      const name = t.trim().toLowerCase();
      return /^[a-z0-9][a-z0-9-]{0,39}$/.test(name)
        ? { value: { asked: name } }
        : { wrong: "A name of small letters, digits and hyphens." };
    },
  },
  keepsUntil: {
    label: "Good until, by its label",
    like: "31 Dec 2026, or 12/2026",
    show: (f) => f.keepsUntil ?? "",
    read: (t) => as("keepsUntil", typedDay(t)),
  },
  openedOn: {
    label: "Opened on",
    like: "2026-11-20",
    show: (f) => f.openedOn ?? "",
    read: (t) => as("openedOn", typedDay(t)),
  },
  openDays: {
    label: "Good for, days from then",
    like: "30",
    show: (f) => num(f.openDays),
    read: (t) => {
      const days = Number(typedNumber(t));
      return Number.isInteger(days) && days >= 1 && days <= 3650
        ? { value: { openDays: days } }
        : { wrong: `“${t}” is no number of days.` };
    },
  },
  trueUntil: {
    label: "To be checked by",
    like: "31 Dec 2026, or 12/2026",
    show: (f) => f.trueUntil ?? "",
    read: (t) => as("trueUntil", typedDay(t)),
  },
} as const satisfies Partial<Record<keyof EquipmentFacts, TypedFact>>;

export const CHOSEN_FACTS = {
  alloy: {
    label: "Its alloy",
    options: [["", "not said"], ...ALLOYS.map((a) => [a, ALLOY_WORDS[a]] as const)],
  },
  control: {
    label: "Its heat is led by",
    options: [
      ["", "not said"],
      ["profile", "a profile"],
      ["thermostat", "a thermostat"],
      ["eye", "somebody’s eye"],
    ],
  },
  cleans: {
    label: "May be filled with",
    options: [
      ["", "not said"],
      ["water", "water"],
      ["solvent", "solvent"],
      ["both", "either"],
    ],
  },
} as const;

/** Facts with one of them said anew; nothing typed or chosen takes it back. */
export function withFact(
  facts: EquipmentFacts,
  key: keyof EquipmentFacts,
  text: string,
): Typed<EquipmentFacts> {
  const { [key]: _, ...rest } = facts;
  if (text.trim() === "") return { value: rest };
  if (key in CHOSEN_FACTS) return { value: { ...rest, [key]: text } };
  const read = TYPED_FACTS[key as keyof typeof TYPED_FACTS].read(text);
  return "wrong" in read ? read : { value: { ...rest, ...read.value } };
}
