import { type FormEvent, useState } from "react";
import { enterDemo, signIn, startShop, useSession } from "../../resources/session.ts";
import { Button } from "../../ui/Button.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { typedNumber } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";

const CURRENCIES = ["EUR", "USD", "GBP", "CHF", "SEK", "JPY", "AUD", "CAD"] as const;

/** The door: the demo shop with one click, a shop of one's own, or signing in. */
export function WelcomePage() {
  const { data } = useSession();
  const sayError = useSayError();
  const [isBusy, setBusy] = useState(false);
  const run = (work: () => Promise<unknown>) => {
    setBusy(true);
    work()
      .catch(sayError)
      .finally(() => setBusy(false));
  };
  return (
    <main id="main" className="mx-auto w-full max-w-[980px] px-6 py-10">
      <h1 className="max-w-[22ch] text-[34px] leading-[1.12]">
        From a finished board to an order you can trust
      </h1>
      <p className="mt-3 max-w-[62ch] text-[17px] text-ink-2">
        Drop what your layout program wrote. Kobbin measures the board, prices parts, boards and hours for the
        number of good ones you want, and packs the orders.
      </p>
      {data?.demo && (
        <div className="mt-7 flex flex-wrap items-center gap-5 border-y border-rule py-5">
          <Button look="main" disabled={isBusy} onClick={() => run(() => enterDemo())}>
            Enter the demo shop
          </Button>
          <p className="max-w-[54ch] text-ink-2">
            Ashglaze Works sells instruments to pottery studios. Three products, real board files, everything
            made up; change what you like.
          </p>
        </div>
      )}
      <div className="mt-8 grid gap-12 md:grid-cols-2">
        {data?.mayStart === "no" ? (
          <div>
            <h2>Start here</h2>
            <p className="mt-2 text-ink-2">
              Shops are not started freely on this server. Ask an owner of the shop for an invitation link.
            </p>
          </div>
        ) : (
          <NewShop
            isBusy={isBusy}
            needsCode={data?.mayStart === "code"}
            onStart={(body) => run(() => startShop(body))}
          />
        )}
        <SignIn isBusy={isBusy} onSignIn={(body) => run(() => signIn(body))} />
      </div>
    </main>
  );
}

function NewShop({
  isBusy,
  needsCode,
  onStart,
}: {
  isBusy: boolean;
  needsCode: boolean;
  onStart: (body: {
    name: string;
    currency: string;
    hourlyRate: string;
    email: string;
    password: string;
    partners: "made-up" | "none";
    code?: string;
  }) => void;
}) {
  const [currency, setCurrency] = useState<string>("EUR");
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    const text = (key: string) => String(f.get(key) ?? "");
    onStart({
      name: text("name"),
      currency,
      hourlyRate: typedNumber(text("hourlyRate")),
      email: text("email"),
      password: text("password"),
      partners: text("partners") === "none" ? "none" : "made-up",
      ...(needsCode ? { code: text("code") } : {}),
    });
  };
  return (
    <form onSubmit={submit} className="flex flex-col gap-3">
      <h2>{needsCode ? "Set up the first shop" : "Start my own shop"}</h2>
      <Field label="Name of the shop" name="name" required maxLength={120} autoComplete="organization" />
      <div className="grid grid-cols-2 gap-3">
        <Pick
          label="Currency"
          value={currency}
          onChange={setCurrency}
          options={CURRENCIES.map((c) => [c, c] as const)}
        />
        <Field
          label="Worth of an own hour"
          name="hourlyRate"
          required
          inputMode="decimal"
          defaultValue="24.00"
          pattern="\d+([.,]\d{1,4})?"
        />
      </div>
      <Field label="Name to sign in with" name="email" required minLength={3} autoComplete="username" />
      <Field
        label="Password"
        name="password"
        type="password"
        required
        minLength={10}
        autoComplete="new-password"
        hint="at least 10 characters"
      />
      <fieldset className="flex flex-col gap-1 text-[15px]">
        <legend className="text-[13px] text-ink-2">Suppliers and houses to begin with</legend>
        <label className="flex items-baseline gap-2">
          <input type="radio" name="partners" value="made-up" defaultChecked />
          made-up ones that answer as real ones would, to try it; they are marked and go with one press
        </label>
        <label className="flex items-baseline gap-2">
          <input type="radio" name="partners" value="none" />
          none: I add my own
        </label>
      </fieldset>
      {needsCode && (
        <Field
          label="Set-up code"
          name="code"
          required
          autoComplete="off"
          hint="the server printed it when it started"
        />
      )}
      <div>
        <Button type="submit" disabled={isBusy}>
          Start the shop
        </Button>
      </div>
    </form>
  );
}

function SignIn({
  isBusy,
  onSignIn,
}: {
  isBusy: boolean;
  onSignIn: (body: { email: string; password: string }) => void;
}) {
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    onSignIn({ email: String(f.get("email")), password: String(f.get("password")) });
  };
  return (
    <form onSubmit={submit} className="flex flex-col gap-3">
      <h2>Sign in</h2>
      <Field label="Sign-in name" name="email" required autoComplete="username" />
      <Field label="Your password" name="password" type="password" required autoComplete="current-password" />
      <div>
        <Button type="submit" disabled={isBusy}>
          Sign in
        </Button>
      </div>
    </form>
  );
}
