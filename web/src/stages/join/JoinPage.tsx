import { type FormEvent, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { join, useInvited } from "../../resources/people.ts";
import { refreshAll } from "../../resources/session.ts";
import { Button } from "../../ui/Button.tsx";
import { Field } from "../../ui/Field.tsx";
import { Failed, Skeleton } from "../../ui/States.tsx";
import { useSayError } from "../../ui/toast/Toast.tsx";

/** Where an invitation link leads: which shop, as what, and a name to sign in with. */
export function JoinPage() {
  const token = useParams().token!;
  const { data, error } = useInvited(token);
  const navigate = useNavigate();
  const sayError = useSayError();
  const [isBusy, setBusy] = useState(false);
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    setBusy(true);
    join(token, { email: String(f.get("email")), password: String(f.get("password")) })
      .then(() => refreshAll())
      .then(() => navigate("/"))
      .catch(sayError)
      .finally(() => setBusy(false));
  };
  return (
    <main id="main" className="mx-auto w-full max-w-[520px] px-6 py-10 max-sm:px-4">
      {error ? (
        <>
          <h1>The link does not open</h1>
          <Failed error={error} />
        </>
      ) : !data ? (
        <Skeleton rows={4} />
      ) : (
        <>
          <h1>Join {data.shop}</h1>
          <p className="my-3 text-ink-2">
            {data.role === "owner"
              ? "As an owner you may do everything: choose, order, price, invite."
              : "At the bench you see everything, build, receive and leave remarks; an owner chooses and orders."}{" "}
            With a name you have here already, type its password.
          </p>
          <form onSubmit={submit} className="flex flex-col gap-3">
            <Field label="Name to sign in with" name="email" required minLength={3} autoComplete="username" />
            <Field
              label="Password"
              name="password"
              type="password"
              required
              autoComplete="new-password"
              hint="at least 10 characters"
            />
            <div>
              <Button type="submit" look="main" disabled={isBusy}>
                Join the shop
              </Button>
            </div>
          </form>
        </>
      )}
    </main>
  );
}
