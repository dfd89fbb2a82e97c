/** What a cell says of whether its line is fitted. */
export type Fitted = "yes" | "no" | "unknown" | "nothing";

/** Says that a part is left off, whatever else stands beside it, in the wordings people use. */
export const LEFT_OFF = new RegExp(
  `(?<=^|[^\\p{L}\\p{N}])(?:${[
    "dnp",
    "dni",
    "dnf",
    "dnm",
    "dns",
    "dnl",
    "dna",
    "d\\.n\\.[pifmsl]\\.?",
    "do ?n[o']t ?(populate|place|fit|mount|install|insert|stuff|load|solder|assemble|use|buy)",
    "don't ?(populate|place|fit|mount|install|stuff|load|solder)",
    "not ?(fitted|populated|placed|mounted|installed|stuffed|loaded|assembled|inserted|used)",
    "no[- ]?(fit|pop|load|stuff|mount|place|populate|assembly)",
    "un(populated|fitted|placed|mounted|loaded|stuffed|used)",
    "omit(ted)?",
    "left? (off|out|open|empty)",
    "leave (off|out|open|empty|unpopulated)",
    "depopulated?",
    "nicht (bestückt|bestücken|bestueckt|bestuecken|montiert)",
    "entfällt",
    "entfaellt",
    "unbestückt",
    "unbestueckt",
    "n\\.?b\\.? ?\\(nicht bestückt\\)",
    "non (monté|monte|placé|câblé|montato|montare)",
    "ne pas (monter|câbler|placer)",
    "(no|sin) (montar|montado|poblar|poblado)",
    "n[ãa]o (montar|montado)",
    "niet (plaatsen|geplaatst|monteren|gemonteerd)",
    "nie ?(montować|montowany|montowane|montowana)",
    "(ej|inte) monter(as|ad|at)",
    "monteras (ej|inte)",
    "neosa(zovat|zeno|dit|zen)",
  ].join("|")})(?=$|[^\\p{L}\\p{N}])`,
  "iu",
);
/** Short marks that mean it only when they stand alone: NP0 and 100 NF are something else. */
const ALONE =
  /^(nf|np|nm|n\.?f\.?|n\.?p\.?|nopop|depop|n\/f|n\/p|nb|n\.b\.|x?dnp|skip(ped)?|excluded?|absent|none|empty|removed?)$/i;
/** Marks that some shops use for a part left off and others for a value of their own. */
const DOUBTFUL =
  /^(nc|n\/c|open|x|tbd|tba|\?+|opt(ion(al)?)?|spare|reserved?|n\/a|na|select|sot|aot|see notes?)$/i;
/** Words that say of themselves that a part is on the board, whatever stands above them. */
export const PUT_ON =
  /^(fit(ted)?|pop(ulated?)?|placed?|mount(ed)?|install(ed)?|load(ed)?|stuff(ed)?|assembled?|include[d]?|bestückt|bestücken|bestueckt|bestuecken|mont(é|er|ado|ato|ar|are)|câblé|geplaatst|plaatsen|gemonteerd|monter(as|ad)|osa(dit|zeno)|(za)?mont(ować|owany))$/i;
/** A short mark behind a dash or in brackets, at the end: 10 n - NM. */
const BEHIND = /(?:\s[-–—]\s*|[([])(?:nf|np|nm|n\.f\.|n\.p\.|nb)\s*[)\]]?$/i;
/** The same in capitals behind a word or a value that has its unit: 2.2uF NM, socket NF; 100 NF is a value. */
const AFTER_UNIT = /(?:^|\s)\S*\p{L}\S*\s+(?:NM|NP|NF|NB)$/u;
const YES =
  /^(true|yes|y|1|x|ja|j|si|sí|sì|oui|o|tak|sim|ano|wahr|vrai|✓|✔|☑|fit(ted)?|pop(ulated?)?|placed?|mount(ed)?|install(ed)?|load(ed)?|stuff(ed)?|assembled?|bestückt|bestueckt|ok|on|include[d]?|in)$/i;
const NO = /^(false|no|n|0|nein|non|nee|nie|nej|não|nao|ne|falsch|faux|-|–|—|✗|✘|☐|off|out|not)$/i;

/** A mark in any cell of a line: value, description, notes. */
export function markIn(text: string): Fitted {
  const t = text.trim();
  if (t === "") return "nothing";
  if (LEFT_OFF.test(t) || ALONE.test(t) || BEHIND.test(t) || AFTER_UNIT.test(t)) return "no";
  return DOUBTFUL.test(t) ? "unknown" : "nothing";
}

/**
 * A mark in a column that says what is left off, or in one that says what is fitted: yes and no are told apart by which
 * it is, words speak for themselves in either. A mark that is neither is unknown, never fitted.
 *
 * @param isLeftOff the column says what is left off
 */
export function markInColumn(text: string, isLeftOff: boolean): Fitted {
  const t = text.trim();
  if (t === "") return "nothing";
  const said = markIn(t);
  if (said === "no") return "no";
  if (PUT_ON.test(t)) return "yes";
  if (YES.test(t)) return isLeftOff ? "no" : "yes";
  if (NO.test(t)) return isLeftOff ? "yes" : "no";
  return "unknown";
}
