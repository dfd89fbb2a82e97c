import { INTENDED } from "@kobbin/core";
import { useId } from "react";
import { Field, Pick } from "../../../ui/Field.tsx";
import type { Draft } from "./draft.ts";

const row = (...fields: readonly React.ReactNode[]) => <div className="flex flex-wrap gap-4">{fields}</div>;

type Change = (change: Partial<Draft>) => void;

/** A typed field of the draft, and a choice of a side of the board. */
function fieldsOf(d: Draft, onChange: Change) {
  const input = (key: Text, label: string, hint?: string, className = "w-40") => (
    <Field
      key={key}
      label={label}
      {...(hint ? { hint } : {})}
      className={className}
      isNumber
      value={d[key]}
      onChange={(e) => onChange({ [key]: e.target.value })}
    />
  );
  const sideOf = (label: string, value: "top" | "bottom", put: (v: "top" | "bottom") => void) => (
    <Pick
      key={label}
      label={label}
      value={value}
      options={[
        ["top", "top"],
        ["bottom", "bottom"],
      ]}
      onChange={(v) => put(v === "bottom" ? "bottom" : "top")}
    />
  );
  return { input, sideOf };
}

/** What lies over the board, and what a place of it is meant to be. */
function over(d: Draft, others: readonly string[], onChange: Change) {
  const { input, sideOf } = fieldsOf(d, onChange);
  switch (d.kind) {
    case "intended":
      return row(
        <Pick
          key="what"
          label="It is meant to be"
          value={d.what}
          options={Object.entries(INTENDED)}
          onChange={(v) => onChange({ what: v as Draft["what"] })}
        />,
        sideOf("seen from the", d.overSide, (overSide) => onChange({ overSide })),
        input("diameter", "So many mm across"),
      );
    case "lid":
      return row(
        sideOf("Over the board’s", d.overSide, (overSide) => onChange({ overSide })),
        input("gap", "Room above its face, mm"),
        input("gapTol", "± mm"),
        input("area", "In a field only, mm", "left, lower, right, upper from the board’s corner", "w-72"),
      );
    case "facing":
      return row(
        <Pick
          key="other"
          label="The other board"
          value={d.other}
          options={[["", "choose"], ...others.map((o) => [o, o] as const)]}
          onChange={(v) => onChange({ other: v })}
        />,
        sideOf("It lies over this board’s", d.overSide, (overSide) => onChange({ overSide })),
        sideOf("and shows it its", d.faces, (faces) => onChange({ faces })),
        input("gap", "Between the boards, mm"),
        input("gapTol", "± mm"),
        input("corner", "Its lower left corner, mm", "from this board’s: 5 12", "w-52"),
        <Pick
          key="turn"
          label="Turned by"
          value={d.turn}
          options={(["0", "90", "180", "270"] as const).map((t) => [t, `${t}°`] as const)}
          onChange={(v) => onChange({ turn: v as Draft["turn"] })}
        />,
        input("joinedBy", "Connectors that join them", "J1, J4", "w-52"),
      );
    default:
      return null;
  }
}

type Text = { readonly [K in keyof Draft]: Draft[K] extends string ? K : never }[keyof Draft];

/** The side of a row that is not the board: typed, or pasted as points. */
export function OtherSide({
  draft: d,
  others,
  onChange,
}: {
  draft: Draft;
  /** Names of the product's other boards. */
  others: readonly string[];
  onChange: (change: Partial<Draft>) => void;
}) {
  const { input, sideOf } = fieldsOf(d, onChange);
  switch (d.kind) {
    case "slot":
      return row(
        input("tab", "The tab is, mm", "one thickness, or several readings", "w-52"),
        input("tabTol", "± mm"),
        input("tabWidth", "It is wide, mm", "its corners must clear the round ends", "w-56"),
      );
    case "pin":
      return row(
        <Pick
          key="shape"
          label="The pins are"
          value={d.shape}
          options={[
            ["square", "square"],
            ["round", "round"],
          ]}
          onChange={(v) => onChange({ shape: v === "round" ? "round" : "square" })}
        />,
        input("pin", "Side or diameter, mm"),
        input("pinTol", "± mm"),
      );
    case "edge":
      return row(input("least", "Takes from, mm"), input("most", "to, mm"));
    case "contacts":
      return row(
        sideOf("Contacts of the", d.edgeSide, (edgeSide) => onChange({ edgeSide })),
        input("opening", "The socket is wide inside, mm", undefined, "w-56"),
        input("openingTol", "± mm"),
        input("contact", "Its contacts are wide, mm"),
      );
    case "outline":
      return row(
        <Pick
          key="across"
          label="Of the board its"
          value={d.across}
          options={[
            ["width", "width"],
            ["height", "height"],
          ]}
          onChange={(v) => onChange({ across: v === "height" ? "height" : "width" })}
        />,
        input("opening", "The opening is, mm"),
        input("openingTol", "± mm"),
      );
    case "lid":
    case "facing":
    case "intended":
      return over(d, others, onChange);
    case "stack":
      return row(
        input("boards", "Boards in it"),
        input("gap", "The gap is, mm"),
        input("gapTol", "± mm"),
        input("spacers", "What else is in it, mm", "11 ± 0.1; 2 ± 0.05", "w-64"),
      );
    case "pattern":
      return (
        <>
          <Posts text={d.posts} onChange={onChange} />
          {row(
            input("postMm", "Diameter, mm", "where a row has none"),
            input("postTol", "Their places ± mm"),
          )}
        </>
      );
  }
}

/** Posts as they are pasted. */
function Posts({ text, onChange }: { text: string; onChange: (change: Partial<Draft>) => void }) {
  const id = useId();
  return (
    <div className="flex flex-col gap-[3px]">
      <label htmlFor={id} className="text-[13.5px] text-ink-2">
        Posts: x and y of each, mm, as pasted; a third number is its diameter
      </label>
      <textarea
        id={id}
        className="num w-full"
        rows={5}
        placeholder={"0\t0\n70\t0"}
        value={text}
        onChange={(e) => onChange({ posts: e.target.value, believesUnit: false, believesMirror: false })}
      />
    </div>
  );
}
