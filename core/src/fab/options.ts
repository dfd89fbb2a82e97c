/** Decisions every house has a list for. */
export const FAB_OPTIONS = ["thickness", "copper", "finish", "mask", "legend"] as const;
export type FabOptionKey = (typeof FAB_OPTIONS)[number];

/** Decisions a house may have a list for. Where it has none, the plain thing is done there. */
export const EXTRA_OPTIONS = [
  "material",
  "contacts",
  "bevel",
  "castellation",
  "edgePlating",
  "via",
  "test",
  "marking",
  "quality",
] as const;
export type ExtraOptionKey = (typeof EXTRA_OPTIONS)[number];

/** Every decision of an order sheet. */
export const ORDER_OPTIONS = [...FAB_OPTIONS, ...EXTRA_OPTIONS, "leadDays", "freight"] as const;
export type OptionKey = (typeof ORDER_OPTIONS)[number];

/** The value that means that nothing is done. */
export const NO_EXTRA = "none";
/** What a house without a list does, and what nobody chooses: a list of such an option begins with it. */
export const PLAIN = {
  material: "standard",
  contacts: NO_EXTRA,
  bevel: NO_EXTRA,
  castellation: NO_EXTRA,
  edgePlating: NO_EXTRA,
  via: "tented",
  test: "probe",
  marking: "house",
  quality: "2",
} as const satisfies Record<ExtraOptionKey, string>;
/** The parcel as a house usually sends it. */
export const ORDINARY_WAY = "ordinary";

/** The decisions of the Fab stage; values out of the house's lists. */
export interface FabOptions {
  readonly thickness: string;
  readonly copper: string;
  readonly finish: string;
  readonly mask: string;
  readonly legend: string;
  /** Laminate. */
  readonly material?: string;
  /** Coating of the contacts on the edge, where it is not the board's finish. */
  readonly contacts?: string;
  /** Degrees, or "none"; only at a house that has it. */
  readonly bevel?: string;
  readonly castellation?: string;
  readonly edgePlating?: string;
  readonly via?: string;
  readonly test?: string;
  /** Where the house's job number goes. */
  readonly marking?: string;
  /** Class the boards are judged by. */
  readonly quality?: string;
  /** Lead time in days, one of the house's. */
  readonly leadDays: number;
  /** Boards ordered at least, in products' worth; as many as are started where left out. */
  readonly pieces?: number;
  /** How the parcel comes: one of the house's services, or the ordinary way. */
  readonly freight?: string;
}

/** What a decision is called: as a heading, in a sentence, and why it is made. */
export interface OptionWords {
  readonly label: string;
  readonly word: string;
  readonly why: string;
}

/** Every decision of an order sheet in the order they are shown: a new one does not compile before it stands here. */
export const OPTION_WORDS: Readonly<Record<OptionKey, OptionWords>> = {
  thickness: {
    label: "Thickness",
    word: "thickness",
    why: "what the board must fit into decides; 1.6 is the usual one",
  },
  finish: {
    label: "Finish",
    word: "finish",
    why: "flat for fine pitch and contacts; levelled solder is cheaper and easy to wet",
  },
  contacts: {
    label: "Contacts",
    word: "coating of the contacts",
    why: "what is plugged in often wants gold that wears slowly",
  },
  bevel: {
    label: "Bevel",
    word: "bevel",
    why: "an edge with contacts goes into its socket; deeper than the copper ends, it grinds contacts off",
  },
  mask: {
    label: "Mask colour",
    word: "mask colour",
    why: "the house's daily colour costs and waits least",
  },
  legend: { label: "Silkscreen", word: "silkscreen colour", why: "must be readable on the mask" },
  copper: { label: "Outer copper", word: "copper", why: "more only where the current asks for it" },
  material: {
    label: "Laminate",
    word: "laminate",
    why: "the usual one, unless it is soldered hot and often, or must lead heat away",
  },
  castellation: {
    label: "Half holes",
    word: "half holes on the edge",
    why: "holes cut through by the edge, to solder the board flat on another",
  },
  edgePlating: {
    label: "Edge plating",
    word: "edge plating",
    why: "copper around the side of the board, for shielding or a seat",
  },
  via: {
    label: "Vias",
    word: "treatment of vias",
    why: "covered by mask as a rule; filled where one lies in a pad",
  },
  test: {
    label: "Electrical test",
    word: "electrical test",
    why: "a house that tested answers for opens and shorts",
  },
  marking: {
    label: "Job mark",
    word: "job mark",
    why: "the number a house prints to tell boards of a sheet apart",
  },
  quality: {
    label: "Class",
    word: "class",
    why: "how narrow rings, walls and blemishes are judged",
  },
  leadDays: { label: "Lead time", word: "lead time", why: "days in the house, without the way" },
  freight: { label: "Way here", word: "way here", why: "days on the road, and how late they may be" },
};

const isAmong = <T extends string>(list: readonly T[], key: string): key is T =>
  (list as readonly string[]).includes(key);
export const isFabOption = (key: string): key is FabOptionKey => isAmong(FAB_OPTIONS, key);
export const isExtraOption = (key: string): key is ExtraOptionKey => isAmong(EXTRA_OPTIONS, key);
export const isOrderOption = (key: string): key is OptionKey => isAmong(ORDER_OPTIONS, key);
