import { moistureLevel } from "@kobbin/core";
import { addParts, savePart } from "../../resources/library.ts";
import { Field } from "../../ui/Field.tsx";

/** The moisture level on a bag, asked for where the library says none. */
export function LevelField({ text, onText }: { text: string; onText: (text: string) => void }) {
  return (
    <div className="w-full max-w-[420px]">
      <Field
        label="Moisture level on its bag, since it goes through heat here"
        className="[&_input]:max-w-[180px]"
        placeholder="3, or MSL 2a"
        maxLength={20}
        value={text}
        onChange={(e) => onText(e.target.value)}
      />
      {moistureLevel(text) === undefined && (
        <p role="alert" className="text-[14px] text-look">
          “{text.trim()}” is no level: 1, 2, 2a, 3, 4, 5, 5a or 6.
        </p>
      )}
    </div>
  );
}

/** Keeps the level with the part of that number; a number the library does not know is taken into it. */
export async function saveLevel(mpn: string, level: string): Promise<void> {
  const [id] = (await addParts([{ mpn }])).value.ids;
  if (id !== undefined) await savePart(id, { moisture: level });
}
