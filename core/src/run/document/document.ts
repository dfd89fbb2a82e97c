import type { OwnLosses } from "../../assembly/attrition.ts";
import type { Method } from "../../assembly/method.ts";
import type { PastRun } from "../../assembly/prior.ts";
import type { PlaceReading } from "../../board/measure/place.ts";
import type { Measure } from "../../board/measure-document.ts";
import type { Equipment } from "../../equipment/equipment.ts";
import { AppError } from "../../errors.ts";
import type { House } from "../../fab/house.ts";
import type { FabOptions } from "../../fab/options.ts";
import type { FitRow } from "../../fit/row.ts";
import type { RunErratum } from "../../learn/erratum.ts";
import type { LessonPlace, RunLesson } from "../../learn/lesson.ts";
import type { Alternate, LibraryPart } from "../../library/part.ts";
import type { ClassRules } from "../../library/rules.ts";
import type { LinkRow } from "../../meet/links.ts";
import type { MeetRow } from "../../meet/row.ts";
import type { PanelChoice } from "../../panel/choice.ts";
import type { Placement } from "../../placement/placement.ts";
import type { Pricing } from "../../price/price.ts";
import type { Right } from "../../rights/right.ts";
import { CHOICE_FIELDS, type ChoiceField } from "../../shape/choice-fields.ts";
import {
  LINE_FIELDS,
  type LineField,
  type LineFieldKey,
  type MOUNTS,
  type ORIGINS,
} from "../../shape/line-fields.ts";
import type { IMAGE_FITS } from "../../shape/program-image.ts";
import { runShape } from "../../shape/run.ts";
import type { TEST_STATES, TEST_UNITS } from "../../shape/test-item.ts";
import type { Foil } from "../../stencil/reuse.ts";
import type { Hold } from "../../steps/hold.ts";
import type { OddWay } from "../../steps/odd.ts";
import type { School } from "../../steps/step.ts";
import type { AttachedSum } from "../../sums/evaluate.ts";
import type { Besides } from "../../testing/besides.ts";
import type { LinePoint } from "../../testing/line-fit.ts";
import type { OutputLoad } from "../../testing/load.ts";
import type { SurplusPurpose } from "./surplus.ts";

/** Who puts a part on: a machine or paste, a hand with an iron, or nobody (screws, box, cable). */
export type Mount = (typeof MOUNTS)[number];

/** A line of the run's parts list. */
export interface RunLine {
  readonly id: string;
  readonly refs: readonly string[];
  readonly qty: number;
  readonly valueText: string;
  readonly package: string;
  readonly mpn: string;
  readonly maker: string;
  readonly description: string;
  readonly dnp: boolean;
  readonly mount: Mount;
  /** Bought, where it is left out. */
  readonly origin?: Origin;
  /** Id of the board it is on: its quantity is for one of those. Absent: the product's own, or the only board's. */
  readonly board?: string;
  /** The made item it belongs to; its quantity is then for one of those. */
  readonly parent?: string;
  /** What one costs to make here, beside the parts it is made of. */
  readonly madeCost?: string | number;
}

// every field of a line stands in the one table of them, and nothing else does: what is forgotten does not compile
LINE_FIELDS satisfies Record<Exclude<keyof RunLine, "id">, LineField>;
({}) as RunLine satisfies Readonly<Partial<Record<LineFieldKey, unknown>>>;

/** An offer as it stands in a document: money as decimal text, currency of the supplier. */
export interface RunOffer {
  readonly id: string;
  readonly line: string;
  readonly supplier: string;
  readonly stock: number;
  readonly moq: number;
  readonly multiple: number;
  readonly packaging?: string;
  readonly currency: string;
  readonly breaks: readonly { readonly qty: number; readonly price: string | number }[];
  /** Where it is not for the line's own number: the library part it is for. */
  readonly part?: string;
  /** Days beside the supplier's usual ones, as quoted. */
  readonly leadDays?: number;
  /** What binds the buyer: no return, a date code, a country. */
  readonly restriction?: string;
  /** Charged once when anything is bought of it, such as winding a reel. */
  readonly fee?: string | number;
  readonly source: "feed" | "typed" | "pasted";
  /** ISO date. */
  readonly capturedOn: string;
  readonly validUntil?: string;
}

export interface RunSupplier {
  readonly id: string;
  readonly name: string;
  readonly currency: string;
  readonly shipping: string | number;
  readonly freeFrom?: string | number;
  readonly daysMin: number;
  readonly daysMax: number;
  /** A fee for orders below a subtotal. */
  readonly smallOrder?: { readonly below: string | number; readonly fee: string | number };
  /** Nothing is sold below this subtotal. */
  readonly minimumOrder?: string | number;
  /** A charge for each parcel, such as import handling. */
  readonly handling?: string | number;
  /** Share of the goods' value that comes on top and is not got back: 0.037 for 3.7 %. */
  readonly dutyRate?: number;
  /** Duty is taken on the freight too; on the goods alone where left out. */
  readonly dutyOnFreight?: boolean;
  readonly sourceClass?: SourceClass;
  /** Its prices contain the tax a shop gets back. */
  readonly includesTax?: boolean;
}

/** How far a source can be trusted; each asks for another check of what comes in. */
export const SOURCE_CLASSES = ["authorised", "broker", "private", "unknown"] as const;
export type SourceClass = (typeof SOURCE_CLASSES)[number];

/** Pieces of one number on the own shelf, as they came: free for this run. */
export interface RunLot {
  readonly id: string;
  readonly mpn: string;
  readonly qty: number;
  readonly place: string;
  /** ISO date. */
  readonly receivedOn: string;
  readonly unitCost: string | number;
  readonly currency: string;
  readonly condition: "new" | "opened" | "salvaged" | "quarantine";
  /** Its date code, as it stands on it. */
  readonly made?: string;
  /** Other runs that count on pieces of it which nobody reserved. */
  readonly alsoIn?: readonly { readonly run: string; readonly qty: number }[];
}

/** A quotation that came from outside; it overrides the estimate. */
export interface RunQuote {
  readonly house: string;
  readonly kind: "fab" | "assembly";
  readonly total: string | number;
  readonly currency: string;
  readonly days: number;
  readonly capturedOn: string;
  readonly validUntil?: string;
  /** What it was asked for; it holds for that alone. */
  readonly basis?: QuoteBasis;
  /** What the house asks back after a look at the files, and what was answered. */
  readonly question?: string;
  readonly answer?: string;
}

/** How the boards are soldered and what the shop pays for it. */
export interface RunAssembly {
  readonly method: Method;
  /** Assembly house when the method is "house". */
  readonly house?: string;
  /** Side → who puts on what goes on paste there, where it is not as the method says. */
  readonly sides?: { readonly top?: Method; readonly bottom?: Method };
  /** Line id, or line id and side (“<id> bottom”) → the way of its parts, where it is not their side's. */
  readonly ways?: Readonly<Record<string, Method>>;
  /** Who solders what goes on by hand when a house places: here, where left out. */
  readonly handParts?: "here" | "house";
  readonly perLoad: number;
  readonly stencilPrice: string | number;
  /** Thickness of the foil, mm; what suits the openings best where left out. */
  readonly foilMm?: number;
  /**
   * How its openings are cut: as drawn, where left out; narrower where pads are close; heat pads in panes; or both. Unless
   * as drawn, those of parts that are not fitted are left out.
   */
  readonly openings?: "drawn" | "corrected" | "narrowed" | "paned";
  /** House the foil is bought at, and its form; `stencilPrice` counts where none is chosen. */
  readonly foilHouse?: string;
  readonly foilForm?: "loose" | "framed";
  /** What the press or the table holds of a foil, mm; nothing is judged by it where left out. */
  readonly pressMm?: readonly [number, number] | null;
  /** Id of a foil the shop has that is used again; a new one where left out. */
  readonly foil?: string;
  readonly consumables: string | number;
  /** Parts kept for rework, per cent of what the boards take; none where left out. */
  readonly reworkReserve?: number;
  /** Alloy of the paste; tin-silver-copper where left out. */
  readonly alloy?: "lead" | "silver" | "bismuth";
  /** What melts it. Nothing is refused for it where left out. */
  readonly heater?: "plate" | "oven" | "air";
  /** References at which boards are programmed, and tested. */
  readonly programAt?: readonly string[];
  readonly testAt?: readonly string[];
  /** References of what is programmed before it goes on. */
  readonly programLoose?: readonly string[];
  /** Line id → references that are out of reach once it is on, beside what the library says of its part. */
  readonly covers?: Readonly<Record<string, readonly string[]>>;
  /** Alloy of the wire; that of the paste where left out. */
  readonly wire?: "lead" | "silver" | "bismuth";
  /** Flux of paste and wire. Water-soluble flux is washed off; nothing is taken for it where left out. */
  readonly flux?: "noclean" | "rosin" | "water";
  /** What the boards are washed with. They are washed where it is said, or where something asks for it. */
  readonly cleaner?: "water" | "solvent";
  /** Line id → how it is soldered unlike the others: a step of its own. */
  readonly odd?: Readonly<Record<string, OddWay>>;
  /** Line id → how it is held until its first joint is firm, where that is not as its kind suggests. */
  readonly held?: Readonly<Record<string, Hold>>;
  /** Reference → what is loaded there, in order, from where, under which licence. */
  readonly programs?: Readonly<Record<string, string>>;
  /** What is loaded, one after the other in this order; where something is said here, the words beside its place are not needed. */
  readonly images?: readonly ProgramImage[];
  /** What is tried on every product, in its order; nothing is known of it where left out. */
  readonly tests?: readonly TestItem[];
  /** Who is competent and stands beside the first power-up, where mains, motion, heat or isolation ask for one. */
  readonly competent?: string;
  readonly testMinutes: number;
  readonly packMinutes: number;
}

/** Versions of an image, and whether they run on a revision of the board. */
export interface ImageFit {
  /** As people write it: "1.4–1.9", "≥ 2.0", "all". */
  readonly versions: string;
  /** With what was done to it, where that matters: "A + 1 rework". */
  readonly revision: string;
  readonly is: (typeof IMAGE_FITS)[number];
  readonly why: string;
}

/** One thing that is loaded into a board: what it is, with what it is loaded, what should be answered. */
export interface ProgramImage {
  readonly id: string;
  /** Reference at which it is loaded, or of the chip that is loaded before it goes on. */
  readonly at: string;
  readonly name: string;
  readonly version: string;
  /** Its file's name, hash and size, where one was shown to Kobbin; the file stays with the person. */
  readonly file: string;
  readonly sha256?: string;
  readonly bytes?: number;
  /** From where it is, under which licence. */
  readonly from: string;
  readonly tool: string;
  /** Which contact of the board goes to which of the tool. */
  readonly wires: readonly { readonly pin: string; readonly to: string }[];
  /** What is set beside the image: clock, start-up, protection. */
  readonly settings: string;
  /** Copied by the person and run by the person; Kobbin runs nothing. */
  readonly command: string;
  /** What the tool says when it went well; nothing is held against it where empty. */
  readonly expect: string;
  readonly fits: readonly ImageFit[];
  /** What is given to each board beside the image, and whether it is wiped before the board is shipped. */
  readonly values: readonly { readonly name: string; readonly isWiped: boolean }[];
}

/** One thing that is tried: where it is driven and read (pins as `U1.4`), through which parts, and what should come. */
export interface TestItem {
  readonly id: string;
  readonly name: string;
  readonly state: (typeof TEST_STATES)[number];
  readonly drives: readonly string[];
  readonly reads: readonly string[];
  readonly through: readonly string[];
  /** What should come, in words; beside a unit, what is to be minded. */
  readonly expect: string;
  readonly minutes: number;
  /** Of what is read; an item without one is answered by yes or no. */
  readonly unit?: (typeof TEST_UNITS)[number];
  /** Limits in that unit, inclusive, and what a reading may be off by: decimal text. */
  readonly min?: string;
  readonly max?: string;
  readonly guard?: string;
  /** References that are not fitted, or not plugged in, while it is done. */
  readonly absent?: readonly string[];
  /** Where its limits come from. */
  readonly because?: string;
  readonly besides?: Besides;
  /** What the output it is about is loaded with while it is tried. */
  readonly load?: OutputLoad;
  /** What is applied while it is read, where constants of each board are worked out of it. */
  readonly point?: LinePoint & { readonly unit: (typeof TEST_UNITS)[number] };
}

/** The usual way to begin: paste through a stencil on a plate, four boards a load. */
export const DEFAULT_ASSEMBLY: RunAssembly = {
  method: "stencil",
  perLoad: 4,
  stencilPrice: "22.00",
  consumables: "6.00",
  testMinutes: 1.5,
  packMinutes: 1,
};

/** A school, lines a person put into an order of their own (those first), and lines that wait for the test. */
export interface OrderOfSteps {
  readonly school: School;
  readonly own?: readonly string[];
  readonly afterTest?: readonly string[];
}

/** What somebody typed without seeing the files: the day, and each answer as it was typed. */
export interface TypedAgain {
  /** ISO day. */
  readonly on: string;
  readonly said: readonly { readonly key: string; readonly text: string }[];
}

export interface RunChoices {
  /** Supplier ids of the chosen basket, sorted; empty or absent: the best one. */
  readonly basket?: readonly string[];
  /** Line id → supplier id. */
  readonly pins?: Readonly<Record<string, string>>;
  /** What is bought and not used: kept as stock value, or charged to this run. */
  readonly leftovers?: "stock" | "expense";
  /** Id of the variant that is made; absent: the bill as it stands. */
  readonly variant?: string;
  /** Own shelf first, as a rule; "leave" buys everything. */
  readonly ownShelf?: "first" | "leave";
  /** Purpose → how many of the bare boards that are left are for it. */
  readonly surplus?: Readonly<Partial<Record<SurplusPurpose, number>>>;
  /** Boards of other products that share its sheets: which, and how many are wanted. */
  readonly guests?: readonly { readonly board: string; readonly boards: number }[];
  /** The sheet its boards are ordered on; singly where there is none. */
  readonly panel?: PanelChoice | null;
  /** In which order its boards are built, within what is allowed; low parts first where left out. */
  readonly steps?: OrderOfSteps;
  /** How it is sold; nothing is said of a price where left out. */
  readonly price?: Omit<Pricing, "unitCost">;
  /** Id of the run of its first article: nothing is released before that came good. */
  readonly first?: string;
  /** Made to be sold or given away, or for this shop alone. */
  readonly use?: "sold" | "private";
  /** Boards its sheets have beyond those that are to be started: left bare, or started with them. */
  readonly overrun?: "bare" | "start";
  /** What somebody typed without seeing the files, to be held against them. */
  readonly again?: TypedAgain;
  /** Note key → reason. */
  readonly accepted?: Readonly<Record<string, string>>;
}

// every decision stands in the one table of them, and nothing else does
CHOICE_FIELDS.options satisfies Record<keyof FabOptions, ChoiceField>;
CHOICE_FIELDS.assembly satisfies Record<keyof RunAssembly, ChoiceField>;
CHOICE_FIELDS.choices satisfies Record<keyof RunChoices, ChoiceField>;
({}) as FabOptions satisfies Partial<Record<keyof typeof CHOICE_FIELDS.options, unknown>>;
({}) as RunAssembly satisfies Partial<Record<keyof typeof CHOICE_FIELDS.assembly, unknown>>;
({}) as RunChoices satisfies Partial<Record<keyof typeof CHOICE_FIELDS.choices, unknown>>;

/** A run as one self-contained document, `run/1`. */
export interface RunDocument {
  readonly kobbin: "run/1";
  readonly name: string;
  readonly product: string;
  readonly revision: string;
  /** ISO date from which days are counted. */
  readonly today: string;
  readonly workshop: {
    readonly name: string;
    readonly currency: string;
    readonly hourlyRate: string | number;
    /** Share of recoverable tax on purchases, 0.2 for 20 %. */
    readonly taxRate: number;
    /** Units of the shop's currency for one of the other. */
    readonly rates: Readonly<Record<string, string | number>>;
    readonly hoursPerDay: number;
    /** Losses by kind of package that the shop set otherwise than usual. */
    readonly attrition?: OwnLosses;
    /** What is taken where a line without a number does not say; a class that is there was confirmed. */
    readonly rules?: ClassRules;
    /** How what is built is numbered; the usual way where it is left out. */
    readonly serialRule?: string;
    /** Where parcels go and who is asked, in lines. */
    readonly address?: string;
  };
  readonly goodBoards: number;
  readonly confidence: number;
  readonly boards: readonly {
    readonly id?: string;
    readonly name: string;
    readonly perProduct: number;
    readonly archive?: string;
    readonly measure: Measure;
    /** What the files have at places that are meant to be something, by the row of the fit sheet. */
    readonly places?: Readonly<Record<string, PlaceReading>>;
    /** What they have at the places of a lesson or an erratum, by its id. */
    readonly learned?: Readonly<Record<string, readonly LessonPlace[]>>;
  }[];
  /** Boards of other products that are chosen to share its sheets. */
  readonly guests?: readonly RunGuest[];
  readonly lines: readonly RunLine[];
  readonly placements: readonly RunPlacement[];
  readonly suppliers: readonly RunSupplier[];
  readonly offers: readonly RunOffer[];
  /** Parts of the shop's library that this run's lines ask for, or may take instead. */
  readonly library?: readonly LibraryPart[];
  readonly alternates?: readonly Alternate[];
  readonly variants?: readonly Variant[];
  /** What the product's boards must go into, onto or beside. */
  readonly fits?: readonly FitRow[];
  /** Links of its boards, and how each is set. */
  readonly links?: readonly LinkRow[];
  /** Connectors of its boards and what is put onto them. */
  readonly meetings?: readonly MeetRow[];
  /** Marks, pictures, files and designs on the product that may be somebody's. */
  readonly rights?: readonly Right[];
  /** Foils the shop has of the product's boards. */
  readonly foils?: readonly Foil[];
  /** Machines and tools of the shop. */
  readonly equipment?: readonly Equipment[];
  /** What the shop has learned and holds every board against. */
  readonly lessons?: readonly RunLesson[];
  /** What is known to be wrong with the product's revisions. */
  readonly errata?: readonly RunErratum[];
  /** Sums attached to lines of the bill. */
  readonly sums?: readonly AttachedSum[];
  /** What lies on the own shelf, oldest first. */
  readonly lots?: readonly RunLot[];
  /** The chosen house. */
  readonly house?: House;
  /** All houses that may be chosen, the chosen one among them. */
  readonly houses?: readonly House[];
  readonly quotes: readonly RunQuote[];
  /** What came of closed runs of the product, oldest first. */
  readonly past?: readonly PastRun[];
  /** Ids of suppliers and houses that are made up, to try Kobbin with: nothing can be bought there. */
  readonly madeUp?: readonly string[];
  /** What came of its first article, where it has one. */
  readonly first?: FirstArticle;
  readonly options: Partial<FabOptions>;
  readonly assembly: RunAssembly;
  readonly choices: RunChoices;
}

/** The run that is built first, in sockets or as it is, and what came of it. */
export interface FirstArticle {
  readonly name: string;
  readonly state: "open" | "released" | "closed";
  readonly good: number;
  readonly scrapped: number;
}

/**
 * Checks that a parsed JSON value is a run document with what the roll-up needs.
 * @throws AppError DOCUMENT_INVALID naming the key
 */
export function toRunDocument(value: unknown): RunDocument {
  const wrong = runShape(value, "");
  if (wrong)
    throw new AppError(
      "DOCUMENT_INVALID",
      `The run document: ${wrong}.`,
      "Export the run again from its Order stage.",
    );
  const doc = value as RunDocument;
  const needs = (what: string): never => {
    throw new AppError(
      "DOCUMENT_INVALID",
      `The run document ${what}.`,
      "Export the run again from its Order stage.",
    );
  };
  for (const key of ["lines", "suppliers"] as const)
    if (new Set(doc[key].map((x) => x.id)).size !== doc[key].length) needs(`names two of “${key}” alike`);
  return {
    ...doc,
    placements: doc.placements ?? [],
    quotes: doc.quotes ?? [],
    options: doc.options ?? {},
    assembly: { ...DEFAULT_ASSEMBLY, ...doc.assembly },
    choices: doc.choices ?? {},
  };
}

/** A board of another product that shares the run's sheets. */
export interface RunGuest {
  readonly id: string;
  readonly name: string;
  readonly product: string;
  readonly revision: string;
  readonly archive?: string;
  readonly measure: Measure;
  /** What stands on it, with the package by its bill. */
  readonly parts?: readonly (Placement & { readonly package: string })[];
}

/** A part's place, on which board. */
export interface RunPlacement extends Placement {
  /** Id of the board; the only one where left out. */
  readonly board?: string;
}

/** What a quotation was asked for. */
export interface QuoteBasis {
  /** Boards in all. */
  readonly boards: number;
  readonly options: Partial<FabOptions>;
  readonly revision: string;
  /** Of an assembly quotation: who solders what goes on by hand. */
  readonly handParts?: "here" | "house";
  /** Of an assembly quotation where parts go several ways: what the house was to put on, in words. */
  readonly placed?: string;
  /** The sheets it was asked for, in words; single boards where left out. */
  readonly sheet?: string;
}

export type Origin = (typeof ORIGINS)[number];

/** What a variant has otherwise than the bill, by line. */
export interface LineOverride {
  readonly dnp?: boolean;
  readonly valueText?: string;
  readonly mpn?: string;
  readonly qty?: number;
}

/** A named set of differences from the bill. */
export interface Variant {
  readonly id: string;
  readonly name: string;
  readonly overrides: Readonly<Record<string, LineOverride>>;
}
