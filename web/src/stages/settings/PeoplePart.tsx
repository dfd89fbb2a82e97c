import type { Role } from "@kobbin/contract";
import { useState } from "react";
import {
  dropInvitation,
  forgetPerson,
  invite,
  removeMember,
  setRole,
  useAudit,
  usePeople,
} from "../../resources/people.ts";
import { useRole } from "../../resources/session.ts";
import { Button } from "../../ui/Button.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { useOnce } from "../../ui/once.ts";
import { Failed, Skeleton } from "../../ui/States.tsx";
import { clock, day } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";

const ROLES: readonly (readonly [Role, string])[] = [
  ["owner", "owner: everything"],
  ["bench", "bench: builds, receives, notes"],
];

/** Who belongs to the shop, as what; links that let somebody in; who came and went. */
export function PeoplePart() {
  const { data, error, mutate } = usePeople();
  const isOwner = useRole() === "owner";
  const say = useSay();
  const sayError = useSayError();
  if (error && !data) return <Failed error={error} again={() => void mutate()} />;
  if (!data) return <Skeleton rows={4} label="The people are being fetched" />;
  return (
    <div className="flex flex-col gap-8">
      <section aria-labelledby="members">
        <h2 id="members" className="mb-1">
          Members
        </h2>
        <table className="rows w-full max-w-[680px]">
          <tbody>
            {data.members.map((m) => (
              <tr key={m.id}>
                <td className="font-semibold">
                  {m.person}
                  {m.isMe && <span className="font-normal text-ink-2"> (you)</span>}
                </td>
                <td>
                  {isOwner ? (
                    <select
                      aria-label={`What ${m.person} may do`}
                      value={m.role}
                      onChange={(e) =>
                        setRole(m.id, e.target.value as Role)
                          .then(() => say(`${m.person} is ${e.target.value} now`))
                          .catch((x) => {
                            sayError(x);
                            void mutate();
                          })
                      }
                    >
                      {ROLES.map(([v, text]) => (
                        <option key={v} value={v}>
                          {text}
                        </option>
                      ))}
                    </select>
                  ) : (
                    ROLES.find(([v]) => v === m.role)?.[1]
                  )}
                </td>
                <td className="text-right">
                  {isOwner && !m.isMe && (
                    <button
                      type="button"
                      className="quiet-link"
                      aria-label={`Take ${m.person} out of the shop`}
                      onClick={() =>
                        removeMember(m.id)
                          .then(() =>
                            say(`${m.person} is out of the shop`, { hint: "A new link lets them in again." }),
                          )
                          .catch(sayError)
                      }
                    >
                      take out
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      {isOwner && data.left.length > 0 && <Left names={data.left} />}
      {isOwner && <Invitations list={data.invitations} />}
      {isOwner && <Record />}
    </div>
  );
}

/** Who was here once: the name goes where somebody asks for it, what they did stays. */
function Left({ names }: { names: readonly string[] }) {
  const say = useSay();
  const sayError = useSayError();
  return (
    <section aria-labelledby="left">
      <h2 id="left" className="mb-1">
        Who left
      </h2>
      <p className="mb-1 max-w-[70ch] text-[14.5px] text-ink-2">
        Their names stand at what they built and changed. A name that is forgotten is “somebody who left”
        there, for good; what was frozen at a release and backups made before keep it.
      </p>
      <ul className="max-w-[680px]">
        {names.map((name) => (
          <li key={name} className="flex items-baseline gap-x-4 border-t border-rule py-1">
            <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">{name}</span>
            <button
              type="button"
              className="quiet-link"
              aria-label={`Forget the name of ${name}`}
              onClick={() =>
                forgetPerson(name)
                  .then(() => say("The name is forgotten"))
                  .catch(sayError)
              }
            >
              forget the name
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Invitations({
  list,
}: {
  list: readonly {
    readonly id: string;
    readonly role: Role;
    readonly note: string;
    readonly expiresAt: string;
  }[];
}) {
  const [role, setRoleWanted] = useState<string>("bench");
  const [note, setNote] = useState("");
  const [link, setLink] = useState<string>();
  const say = useSay();
  const sayError = useSayError();
  const once = useOnce();
  const make = () =>
    invite(role as Role, note)
      .then(({ token }) => {
        setLink(`${location.origin}/join/${token}`);
        setNote("");
      })
      .catch(sayError);
  return (
    <section aria-labelledby="links" className="max-w-[680px]">
      <h2 id="links" className="mb-1">
        Let somebody in
      </h2>
      <p className="mb-2 text-ink-2">
        A link opens once, for seven days, for whoever has it. Give it to the person yourself; Kobbin sends
        nothing.
      </p>
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          once(make);
        }}
      >
        <Pick label="As" value={role} onChange={setRoleWanted} options={ROLES} />
        <Field
          label="For whom (a note to yourself)"
          value={note}
          maxLength={120}
          onChange={(e) => setNote(e.target.value)}
        />
        <Button type="submit">Make a link</Button>
      </form>
      {link && (
        <div className="mt-3 flex flex-wrap items-end gap-3 border-l-[3px] border-metal bg-sheet px-3 py-2">
          <Field
            label="The link, shown this once"
            readOnly
            value={link}
            className="min-w-0 flex-1"
            onFocus={(e) => e.target.select()}
          />
          <Button
            onClick={() =>
              void navigator.clipboard.writeText(link).then(() => say("The link is copied"), sayError)
            }
          >
            Copy
          </Button>
        </div>
      )}
      {list.length > 0 && (
        <ul className="mt-3" aria-label="Open links">
          {list.map((i) => (
            <li key={i.id} className="flex items-baseline justify-between gap-3 border-t border-rule py-1.5">
              <span>
                {i.note || "a link"}{" "}
                <span className="text-ink-2">
                  as {i.role}, until {day(i.expiresAt)}
                </span>
              </span>
              <button
                type="button"
                className="quiet-link"
                aria-label={`Close the link ${i.note}`}
                onClick={() => void dropInvitation(i.id).catch(sayError)}
              >
                close it
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

function Record() {
  const { data, error } = useAudit(true);
  return (
    <section aria-labelledby="record" className="max-w-[680px]">
      <h2 id="record" className="mb-1">
        Who came, who was refused, what was released
      </h2>
      {error ? (
        <Failed error={error} />
      ) : !data ? (
        <Skeleton rows={4} />
      ) : data.length === 0 ? (
        <p className="text-ink-2">Nobody came in since this is written down.</p>
      ) : (
        <ul
          className="max-h-[340px] overflow-y-auto"
          aria-label="The record"
          // biome-ignore lint/a11y/noNoninteractiveTabindex: a long list that scrolls is scrolled by keys
          tabIndex={0}
        >
          {data.map((a) => (
            <li key={a.id} className="grid grid-cols-[130px_1fr] gap-3 border-t border-rule py-1 text-[14px]">
              <time className="num text-ink-2" dateTime={a.at}>
                {day(a.at)} {clock(new Date(a.at))}
              </time>
              <span>
                <b>{a.person}</b> {a.what}
              </span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
