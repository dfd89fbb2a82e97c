import { type FormEvent, useEffect, useState } from "react";
import { enterDemo, signIn, useSession } from "./resources/session.ts";
import { Button } from "./ui/Button.tsx";
import { Dialog } from "./ui/Dialog.tsx";
import { Field } from "./ui/Field.tsx";
import { useSayError } from "./ui/toast/Toast.tsx";

/** The session ended while one was at work: signing in over the page, which keeps everything as it stands. */
export function SignInAgain() {
  const { data } = useSession();
  const [isOut, setOut] = useState(false);
  const sayError = useSayError();
  useEffect(() => {
    const out = () => setOut(true);
    window.addEventListener("kobbin-signed-out", out);
    return () => window.removeEventListener("kobbin-signed-out", out);
  }, []);
  const before = { person: data?.person, shopId: data?.shop?.id };
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    signIn({ email: String(f.get("email")), password: String(f.get("password")) }, before)
      .then(() => setOut(false))
      .catch(sayError);
  };
  return (
    <Dialog
      open={isOut}
      onClose={() => setOut(false)}
      title="You were signed out"
      about="The session ended, here or from another device. What you typed is still on the page; sign in and it goes on."
    >
      {data?.shop?.isDemo ? (
        <Button
          look="main"
          onClick={() =>
            void enterDemo(before)
              .then(() => setOut(false))
              .catch(sayError)
          }
        >
          Enter the demo shop again
        </Button>
      ) : (
        <form onSubmit={submit} className="flex flex-col gap-3">
          <Field
            label="Sign-in name"
            name="email"
            required
            autoComplete="username"
            defaultValue={data?.person ?? ""}
          />
          <Field
            label="Your password"
            name="password"
            type="password"
            required
            autoComplete="current-password"
          />
          <div>
            <Button type="submit" look="main">
              Sign in
            </Button>
          </div>
        </form>
      )}
    </Dialog>
  );
}
