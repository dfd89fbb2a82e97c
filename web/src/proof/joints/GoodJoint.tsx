import type { ReactNode } from "react";
import type { JointLook } from "./jointLook.ts";

const [W, H] = [118, 62];
const solder = { fill: "var(--metal)", fillOpacity: 0.55, stroke: "var(--ink)", strokeWidth: 1 };
const metal = { fill: "var(--sheet)", stroke: "var(--ink)", strokeWidth: 1.4 };
const land = { fill: "var(--ink)" };

const Board = () => (
  <path d={`M2 46H${W - 2}V56H2Z`} fill="var(--rule)" stroke="var(--ink)" strokeWidth="0.8" />
);

/** How far the solder reaches, from none (0) over right (1) to a ball (2). */
const CHIP: readonly string[] = [
  "M76 46Q78 43 78 40L74 40L74 46Z",
  "M74 22Q78 40 98 46L74 46Z",
  "M70 16Q104 14 104 46L74 46L74 18Z",
];
const LEAD: readonly string[] = [
  "M64 46L90 46L90 44L64 44Z",
  "M58 46Q60 34 62 32L66 42L90 42Q98 43 102 46Z",
  "M50 46Q50 20 62 22Q96 26 108 46Z",
];
const BELOW: readonly string[] = [
  "M60 46L88 46L88 44L60 44Z",
  "M60 46L60 43L86 43L86 32Q94 42 104 46Z",
  "M60 46L60 40L84 40L84 18Q110 22 110 46Z",
];
const THROUGH: readonly string[] = [
  "M48 46L70 46L68 43L50 43Z",
  "M40 46Q54 38 56 18L62 18Q64 38 78 46L62 46L62 56L56 56L56 46Z",
  "M36 46Q34 12 59 12Q84 12 82 46L62 46L62 56L56 56L56 46Z",
];

const DRAWN: Readonly<
  Record<
    JointLook,
    {
      readonly words: readonly [string, string, string];
      readonly part: ReactNode;
      readonly solder: readonly string[];
    }
  >
> = {
  chip: {
    words: [
      "too little: only the edge is wet",
      "good: hollow, up the end, out over the land",
      "too much: a ball, the end is not to be seen",
    ],
    solder: CHIP,
    part: (
      <>
        <path d="M64 46H100V43H64Z" {...land} />
        <path d="M2 16H60V40H2Z" {...metal} />
        <path d="M60 16H74V40H60Z" fill="var(--ink-3)" stroke="var(--ink)" strokeWidth="1.4" />
      </>
    ),
  },
  lead: {
    words: [
      "too little: no heel behind the foot",
      "good: heel behind, sides wet, the foot's shape shows",
      "too much: the foot is buried, it may bridge",
    ],
    solder: LEAD,
    part: (
      <>
        <path d="M50 46H108V43H50Z" {...land} />
        <path d="M2 6H34V30H2Z" {...metal} />
        <path d="M34 14H54L64 40H92V43H61L52 18H34Z" {...metal} />
      </>
    ),
  },
  below: {
    words: [
      "too little: nothing comes out at the side",
      "good: a small hollow slope up the side",
      "too much: a bulge, look for a bridge below",
    ],
    solder: BELOW,
    part: (
      <>
        <path d="M56 46H106V43H56Z" {...land} />
        <path d="M2 14H84V40H2Z" {...metal} />
        <path d="M62 36H84V40H62Z" fill="var(--ink-3)" stroke="var(--ink)" strokeWidth="1" />
      </>
    ),
  },
  through: {
    words: [
      "too little: a ring, the hole is not filled",
      "good: a hollow cone, the lead shows, the hole is full",
      "too much: a ball; what is below it cannot be seen",
    ],
    solder: THROUGH,
    part: (
      <>
        <path d="M38 46H80V43H38Z" {...land} />
        <path d="M56 6H62V60H56Z" {...metal} />
      </>
    ),
  },
};

/** A joint cut through: too little, good, too much, drawn beside each other. */
export function GoodJoint({ look, isBig = false }: { look: JointLook; isBig?: boolean }) {
  const { words, part, solder: amounts } = DRAWN[look];
  return (
    <ul className="grid grid-cols-3 gap-2" aria-label="How its joints should look">
      {amounts.map((d, i) => (
        <li
          key={d}
          className={`leading-tight text-ink-2 ${isBig ? "text-[18px] max-sm:text-[14px]" : "text-[12.5px]"}`}
        >
          <svg
            viewBox={`0 0 ${W} ${H}`}
            className={`w-full border-b-2 ${i === 1 ? "border-fine" : "border-rule"}`}
            aria-hidden="true"
          >
            <Board />
            <path d={d} {...solder} />
            {part}
          </svg>
          <span className={i === 1 ? "font-semibold text-ink" : ""}>{words[i]}</span>
        </li>
      ))}
    </ul>
  );
}
