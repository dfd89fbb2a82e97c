import { type FormEvent, useRef } from "react";
import { useNavigate } from "react-router";
import { changePassword, endSession, useSessions } from "../../resources/people.ts";
import { chooseShop, useSession } from "../../resources/session.ts";
import { Button } from "../../ui/Button.tsx";
import { Field } from "../../ui/Field.tsx";
import { Failed, Skeleton } from "../../ui/States.tsx";
import { clock, day } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";

/** "Firefox on Linux", as far as a browser says what it is. */
function deviceOf(agent: string): string {
  const browser = /(Firefox|Edg|Chrome|Safari)\//.exec(agent)?.[1]?.replace("Edg", "Edge");
  const system = /(Windows|Android|iPhone|iPad|Mac OS X|Linux)/.exec(agent)?.[1];
  return browser ? `${browser}${system ? ` on ${system}` : ""}` : agent.slice(0, 40) || "unknown";
}

/** One's own sign-in: password, where one is signed in, which shops one belongs to. */
export function AccessPart() {
  const { data: session } = useSession();
  const { data, error, mutate } = useSessions();
  const form = useRef<HTMLFormElement>(null);
  const say = useSay();
  const sayError = useSayError();
  const navigate = useNavigate();
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    changePassword({ old: String(f.get("old")), fresh: String(f.get("fresh")) })
      .then(() => {
        form.current?.reset();
        say("The password is changed", { hint: "Everywhere else you are signed out." });
      })
      .catch(sayError);
  };
  const shops = session?.shops ?? [];
  return (
    <div className="flex max-w-[680px] flex-col gap-8">
      <section aria-labelledby="password">
        <h2 id="password" className="mb-1">
          Password of {session?.person}
        </h2>
        {session?.shop?.isDemo ? (
          <p className="text-ink-2">The demo shop is entered without one, from this machine only.</p>
        ) : (
          <form ref={form} onSubmit={submit} className="flex flex-wrap items-end gap-3">
            <Field
              label="The one you have"
              name="old"
              type="password"
              required
              autoComplete="current-password"
            />
            <Field
              label="A new one, at least 10 characters"
              name="fresh"
              type="password"
              required
              minLength={10}
              autoComplete="new-password"
            />
            <Button type="submit">Change it</Button>
          </form>
        )}
      </section>
      <section aria-labelledby="sessions">
        <h2 id="sessions" className="mb-1">
          Where you are signed in
        </h2>
        {error && !data ? (
          <Failed error={error} again={() => void mutate()} />
        ) : !data ? (
          <Skeleton rows={3} />
        ) : (
          <ul>
            {data.map((s) => (
              <li
                key={s.id}
                className="flex items-baseline justify-between gap-3 border-t border-rule py-1.5"
              >
                <span>
                  {deviceOf(s.agent)}{" "}
                  <span className="text-ink-2">
                    since {day(s.createdAt)}, last seen {day(s.seenAt)} {clock(new Date(s.seenAt))}
                  </span>
                </span>
                {s.isThis ? (
                  <span className="text-ink-2">here</span>
                ) : (
                  <button
                    type="button"
                    className="quiet-link"
                    aria-label={`End the session on ${deviceOf(s.agent)}`}
                    onClick={() => void endSession(s.id).then(() => say("That session is ended"), sayError)}
                  >
                    end it
                  </button>
                )}
              </li>
            ))}
          </ul>
        )}
      </section>
      {shops.length > 1 && (
        <section aria-labelledby="shops">
          <h2 id="shops" className="mb-1">
            Your shops
          </h2>
          <ul>
            {shops.map((s) => (
              <li
                key={s.id}
                className="flex items-baseline justify-between gap-3 border-t border-rule py-1.5"
              >
                <span>
                  {s.name} <span className="text-ink-2">as {s.role}</span>
                </span>
                {s.id === session?.shop?.id ? (
                  <span className="text-ink-2">here</span>
                ) : (
                  <button
                    type="button"
                    className="quiet-link"
                    onClick={() => void chooseShop(s.id).then(() => navigate("/"), sayError)}
                    aria-label={`Go to ${s.name}`}
                  >
                    go there
                  </button>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}
