import {
  ASSEMBLY_FIELDS,
  type House,
  leadText,
  readLead,
  readTiers,
  readTurns,
  tiersText,
  turnsText,
} from "@kobbin/core";
import { useState } from "react";
import { Field } from "../../../ui/Field.tsx";

const wrongOf = (r: object): string | undefined => ("wrong" in r ? String(r.wrong) : undefined);

/** The lists of a profile as they are typed: steps of the price, lead times, packages that lie turned. */
export function useHouseLists(house: House) {
  const [steps, setSteps] = useState(tiersText(house.price.tiers));
  const [leads, setLeads] = useState(leadText(house.price.lead));
  const [turns, setTurns] = useState(turnsText(house.assembly?.turns));
  const read = {
    steps: readTiers(steps),
    leads: readLead(leads, house.price.lead),
    turns: readTurns(turns),
  };
  return {
    isWrong: Object.values(read).some((r) => "wrong" in r),
    /** A profile with them, as far as they can be read. */
    into: <T extends Omit<House, "id">>(profile: T): T => ({
      ...profile,
      price: {
        ...profile.price,
        ...("tiers" in read.steps ? read.steps : {}),
        ...("lead" in read.leads ? read.leads : {}),
      },
      ...(profile.assembly
        ? {
            assembly: {
              ...profile.assembly,
              // a house that expects none turned says nothing of it
              turns: "turns" in read.turns && turns.trim() !== "" ? read.turns.turns : undefined,
            },
          }
        : {}),
    }),
    price: (
      <>
        <Field
          className="col-span-2"
          label="steps of the area price: from so many dm² × a factor"
          value={steps}
          placeholder="0: 1, 10: 0.82"
          maxLength={2000}
          onChange={(e) => setSteps(e.target.value)}
          error={wrongOf(read.steps)}
        />
        <Field
          className="col-span-2"
          label="lead times: days × a factor, the usual one first"
          value={leads}
          placeholder="12: 1, 3: 1.6"
          maxLength={2000}
          onChange={(e) => setLeads(e.target.value)}
          error={wrongOf(read.leads)}
        />
      </>
    ),
    assembly: (
      <Field
        className="col-span-2"
        label={`${ASSEMBLY_FIELDS.turns.label}, degrees counter-clockwise`}
        value={turns}
        placeholder="SOT-23 180, QFN-16 -90"
        maxLength={4000}
        onChange={(e) => setTurns(e.target.value)}
        error={wrongOf(read.turns)}
      />
    ),
  };
}
