import type { ProductRow } from "@kobbin/contract";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { startRun } from "../../resources/bench.ts";
import { runName } from "../../run/runName.ts";
import { Button } from "../../ui/Button.tsx";
import { Dialog } from "../../ui/Dialog.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { useOnce } from "../../ui/once.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";

/** Starts a run; its name tells how many of what until somebody types another. */
export function StartRun({
  product,
  revisionId,
  onClose,
}: {
  product: ProductRow;
  revisionId: string;
  onClose: () => void;
}) {
  const navigate = useNavigate();
  const sayError = useSayError();
  const once = useOnce();
  const [revision, setRevision] = useState(revisionId);
  const [goodBoards, setGoodBoards] = useState("20");
  const [typed, setTyped] = useState<string>();
  const label = product.revisions.find((v) => v.id === revision)?.label ?? "";
  const name = typed ?? runName(Number(goodBoards) || 0, label);
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    once(() =>
      startRun({ revisionId: revision, name, goodBoards: Number(goodBoards) })
        .then(({ id }) => navigate(`/runs/${id}/board`))
        .catch(sayError),
    );
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={`A run of ${product.name}`}
      about="A revision, a number of good boards, and later the choices made."
    >
      <form onSubmit={submit} className="flex flex-col gap-3">
        <Pick
          label="Revision"
          value={revision}
          onChange={setRevision}
          options={product.revisions.map((v) => [v.id, v.label] as const)}
        />
        <Field
          label="Good boards wanted"
          name="goodBoards"
          type="number"
          min={1}
          max={100000}
          required
          value={goodBoards}
          onChange={(e) => setGoodBoards(e.target.value)}
        />
        <Field
          label="Name of the run"
          name="name"
          required
          maxLength={120}
          value={name}
          onChange={(e) => setTyped(e.target.value)}
        />
        <div>
          <Button type="submit" look="main">
            Start the run
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
