import { holesOf, type Measure, slotsOf } from "@kobbin/core";
import type { Drawing, ReadDrawing } from "@kobbin/formats";
import { useId, useState } from "react";
import { useBench, useRevision } from "../../../resources/bench.ts";
import { Pick } from "../../../ui/Field.tsx";
import { count, mm } from "../../../ui/text/format.ts";
import { readDrawingFile } from "../../../workers/board.ts";
import type { Draft } from "./draft.ts";
import { circleGroups, holeGroups, postsText, UNIT_CHOICES } from "./taken.ts";

type Change = (change: Partial<Draft>) => void;

/** The other side of a row taken out of a drawing of it, or from another board that is kept here. */
export function TakenFrom({ draft, own, onChange }: { draft: Draft; own: string; onChange: Change }) {
  if (draft.kind === "pattern" || draft.kind === "outline")
    return (
      <div className="flex flex-col gap-2 text-[14px]">
        <FromDrawing draft={draft} onChange={onChange} />
        <FromBoard draft={draft} own={own} onChange={onChange} />
      </div>
    );
  if (draft.kind === "slot" || draft.kind === "edge")
    return <FromBoard draft={draft} own={own} onChange={onChange} />;
  return null;
}

function FromDrawing({ draft, onChange }: { draft: Draft; onChange: Change }) {
  const id = useId();
  const [read, setRead] = useState<{ name: string; drawing: ReadDrawing }>();
  const [unit, setUnit] = useState("");
  const drawing = read?.drawing.kind === "drawing" ? read.drawing : undefined;
  const unitMm = drawing?.unitMm ?? (unit === "" ? undefined : Number(unit));
  return (
    <div>
      <label htmlFor={id} className="text-[13.5px] text-ink-2">
        Or out of a drawing, DXF or SVG
      </label>
      <input
        id={id}
        type="file"
        accept=".dxf,.svg"
        className="block text-[14px]"
        onChange={async (e) => {
          const file = e.target.files?.[0];
          if (!file) return;
          setUnit("");
          setRead({
            name: file.name,
            drawing: await readDrawingFile(new Uint8Array(await file.arrayBuffer())),
          });
        }}
      />
      {read?.drawing.kind === "refused" && (
        <p role="alert" className="text-stop">
          {read.name}: {read.drawing.why}
        </p>
      )}
      {drawing && drawing.unitMm === undefined && (
        <div className="mt-1">
          <p className="text-look">{read!.name} does not say how large its unit is.</p>
          <Pick
            label="One of its units is"
            value={unit}
            options={[["", "choose"], ...UNIT_CHOICES]}
            onChange={setUnit}
          />
        </div>
      )}
      {drawing && unitMm !== undefined && (
        <Found drawing={drawing} unitMm={unitMm} draft={draft} onChange={onChange} />
      )}
      {drawing?.notes.map((n) => (
        <p key={n} className="text-look">
          {n}
        </p>
      ))}
    </div>
  );
}

/** What a drawing has that the row can take, at a press. */
function Found({
  drawing,
  unitMm,
  draft,
  onChange,
}: {
  drawing: Drawing;
  unitMm: number;
  draft: Draft;
  onChange: Change;
}) {
  if (draft.kind === "outline") {
    const { size } = drawing;
    if (!size) return <p className="text-look">Nothing is drawn in it.</p>;
    const mmOf = Math.round((draft.across === "width" ? size[0] : size[1]) * unitMm * 1000) / 1000;
    return (
      <p>
        All that is drawn is{" "}
        <b className="num">
          {mm(size[0] * unitMm)} × {mm(size[1] * unitMm)} mm
        </b>
        :{" "}
        <button type="button" className="quiet-link" onClick={() => onChange({ opening: String(mmOf) })}>
          take its {draft.across}, {mm(mmOf)} mm
        </button>
      </p>
    );
  }
  const groups = circleGroups(drawing, unitMm);
  if (groups.length === 0) return <p className="text-look">It has no circle.</p>;
  return (
    <p className="flex flex-wrap gap-x-4">
      {groups.map((g) => (
        <button
          key={g.diameterMm}
          type="button"
          className="quiet-link"
          onClick={() => onChange({ posts: postsText(g.spots), believesUnit: false, believesMirror: false })}
        >
          take {count(g.spots.length, "circle")} of {mm(g.diameterMm)} mm
        </button>
      ))}
    </p>
  );
}

/** Holes, slots, size or thickness of another board: of any revision kept here. */
function FromBoard({ draft, own, onChange }: { draft: Draft; own: string; onChange: Change }) {
  const { data } = useBench();
  const [chosen, setChosen] = useState("");
  const { data: revision } = useRevision(chosen === "" ? undefined : chosen);
  const options = (data?.products ?? []).flatMap((p) =>
    p.revisions.filter((r) => r.id !== own).map((r) => [r.id, `${p.name} ${r.label}`] as const),
  );
  if (options.length === 0) return null;
  return (
    <div className="text-[14px]">
      <Pick
        label="Or from another board"
        value={chosen}
        options={[["", "choose"], ...options]}
        onChange={setChosen}
      />
      {revision?.boards.map((b) => (
        <p key={b.id} className="mt-1 flex flex-wrap gap-x-4">
          {revision.boards.length > 1 && <span className="text-ink-2">{b.name}:</span>}
          <Offered draft={draft} measure={b.measure} onChange={onChange} />
        </p>
      ))}
    </div>
  );
}

function Offered({ draft, measure: m, onChange }: { draft: Draft; measure: Measure; onChange: Change }) {
  const take = (words: string, change: Partial<Draft>) => (
    <button key={words} type="button" className="quiet-link" onClick={() => onChange(change)}>
      {words}
    </button>
  );
  switch (draft.kind) {
    case "pattern": {
      const groups = holeGroups(holesOf(m));
      if (groups.length === 0) return <span className="text-look">It has no hole of 1.5 mm and more.</span>;
      return groups.map((g) =>
        take(`posts at its ${count(g.spots.length, "hole")} of ${mm(g.diameterMm)} mm`, {
          // what goes through both is thinner than the hole: its diameter is typed
          posts: postsText(g.spots.map(({ x, y }) => ({ x, y }))),
          believesUnit: false,
          believesMirror: false,
        }),
      );
    }
    case "slot":
      return m.thicknessMm === undefined ? (
        <span className="text-look">No file says how thick it is: type it, or readings of it.</span>
      ) : (
        take(`its thickness, ${mm(m.thicknessMm)} mm as its job file says`, { tab: String(m.thicknessMm) })
      );
    case "edge": {
      const slots = slotsOf(m);
      if (slots.length === 0) return <span className="text-look">It has no slot.</span>;
      return slots.slice(0, 12).map((s) =>
        take(`its slot of ${mm(s.widthMm)} × ${mm(s.lengthMm)} mm`, {
          least: "0",
          most: String(s.widthMm),
        }),
      );
    }
    case "outline": {
      const size = draft.across === "width" ? m.outline?.widthMm : m.outline?.heightMm;
      return size === undefined ? (
        <span className="text-look">Its outline is not closed.</span>
      ) : (
        take(`its ${draft.across}, ${mm(size)} mm`, { opening: String(size) })
      );
    }
    default:
      return null;
  }
}
