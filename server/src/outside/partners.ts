/** A question that went wrong at the other end, in words for the person. */
export class OutsideError extends Error {}

/** It said nothing in the time it had. */
export class SilentError extends OutsideError {}

/** It was not asked: it rests. */
export class NotAskedError extends OutsideError {}

/** It was not asked: as many questions as one partner gets at once are with it already. Nobody's fault, and not counted. */
export class InTurnError extends NotAskedError {}

/** How much one partner gets, and when it is left alone. */
export interface PartnerLimits {
  /** Questions of all shops at once. */
  readonly atOnce: number;
  /** How long another waits for its turn. */
  readonly waitMs: number;
  /** So many in a row it did not answer. */
  readonly silentAfter: number;
  /** How long it rests then; twice as long each time it goes on saying nothing, up to the longest. */
  readonly restMs: number;
  readonly longestMs: number;
}

const LIMITS: PartnerLimits = { atOnce: 8, waitMs: 1000, silentAfter: 3, restMs: 15_000, longestMs: 300_000 };

interface Partner {
  /** Questions with it now. */
  with: number;
  /** Those that wait for their turn, the oldest first. */
  readonly waiting: (() => void)[];
  silent: number;
  restsUntil: number;
}

/** Whoever is asked outside: each gets a share of what this process asks, and one that says nothing rests. */
export interface Partners {
  /**
   * Asks a partner something, where it is its turn.
   * @throws InTurnError, or OutsideError while it rests; whatever the question throws
   */
  asked<T>(partner: string, question: () => Promise<T>): Promise<T>;
}

/** @param now milliseconds of a clock that only goes forward */
export function createPartners(other: Partial<PartnerLimits> = {}, now = () => performance.now()): Partners {
  const limits = { ...LIMITS, ...other };
  const partners = new Map<string, Partner>();
  return {
    async asked(name, question) {
      const p = partners.get(name) ?? { with: 0, waiting: [], silent: 0, restsUntil: 0 };
      partners.set(name, p);
      refuseResting(p.restsUntil - now());
      await turnWith(p, limits);
      const began = now();
      try {
        // it may have been found silent meanwhile
        refuseResting(p.restsUntil - now());
        const answer = await question();
        p.silent = 0;
        return answer;
      } catch (error) {
        if (error instanceof SilentError) {
          // those that were with it together fell silent together: one rest, not one on top of another
          if (p.silent >= limits.silentAfter && began < p.restsUntil) throw error;
          const more = ++p.silent - limits.silentAfter;
          if (more >= 0)
            p.restsUntil = now() + Math.min(limits.longestMs, limits.restMs * 2 ** Math.min(more, 20));
        } else if (!(error instanceof NotAskedError)) p.silent = 0;
        throw error;
      } finally {
        const next = p.waiting.shift();
        // who waited takes the place over
        if (next) next();
        else p.with--;
        // of one that answers nothing has to be remembered
        if (p.with === 0 && p.silent === 0) partners.delete(name);
      }
    },
  };
}

/** Ends when it is the question's turn. @throws InTurnError when that did not come in time */
function turnWith(p: Partner, { atOnce, waitMs }: PartnerLimits): Promise<void> {
  if (p.with < atOnce) {
    p.with++;
    return Promise.resolve();
  }
  return new Promise((done, refuse) => {
    const go = () => {
      clearTimeout(late);
      done();
    };
    const late = setTimeout(() => {
      p.waiting.splice(p.waiting.indexOf(go), 1);
      refuse(new InTurnError("It is being asked as much as one partner is asked at once."));
    }, waitMs);
    p.waiting.push(go);
  });
}

function refuseResting(leftMs: number): void {
  if (leftMs > 0)
    throw new NotAskedError(
      `It has not answered for a while and is left alone for another ${Math.ceil(leftMs / 1000)} s.`,
    );
}
