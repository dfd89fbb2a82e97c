import { type House, houseFile, readHouseFile } from "@kobbin/core";
import { useId, useState } from "react";
import { beginHouse } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { fileWord, saveFile } from "../../ui/saveFile.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";

/** The profile of a house as a file, to be kept or sent. */
export function ProfileOut({ house }: { house: House }) {
  return (
    <button
      type="button"
      className="quiet-link"
      onClick={() => {
        const text = JSON.stringify(houseFile(house), null, 2);
        saveFile(text, `house-${fileWord(house.name)}.json`, "application/json");
      }}
    >
      its profile as a file
    </button>
  );
}

/** A house out of a profile's file; what is missing or contradicts itself is named, and then nothing is kept. */
export function ProfileIn({ onDone }: { onDone: () => void }) {
  const { id, change } = useRun();
  const sayError = useSayError();
  const say = useSay();
  const field = useId();
  const [said, setSaid] = useState<{ readonly name: string; readonly wrong: readonly string[] }>();
  const take = async (file: File) => {
    let value: unknown;
    try {
      value = JSON.parse(await file.text());
    } catch (error) {
      setSaid({ name: file.name, wrong: [`The file is no JSON: ${(error as Error).message}`] });
      return;
    }
    const { profile, wrong, unknown } = readHouseFile(value);
    if (!profile) {
      setSaid({ name: file.name, wrong });
      return;
    }
    const { name } = profile;
    try {
      const house = await beginHouse(id, { name, profile: profile as never });
      change({ houseId: house.id }, `Boards by ${name}`);
      if (unknown.length > 0) say(`Of ${file.name} nobody here reads ${unknown.join(", ")}: not kept`);
      onDone();
    } catch (error) {
      sayError(error);
    }
  };
  return (
    <div className="mb-3">
      <label htmlFor={field} className="text-[13.5px] text-ink-2">
        Or from a profile’s file
      </label>
      <input
        id={field}
        type="file"
        accept=".json,application/json"
        className="block text-[14px]"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) void take(file);
        }}
      />
      {said && (
        <div role="alert" className="mt-1 text-[14px] text-stop">
          <p>{said.name} was not taken, and nothing is kept:</p>
          <ul className="list-disc pl-5">
            {said.wrong.slice(0, 12).map((w) => (
              <li key={w}>{w}</li>
            ))}
          </ul>
        </div>
      )}
    </div>
  );
}
