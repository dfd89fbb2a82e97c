import { lookup } from "node:dns";
import { type IncomingMessage, request as plain } from "node:http";
import { request as secure } from "node:https";
import { isIP, type LookupFunction } from "node:net";
import { pipeline, type Readable } from "node:stream";
import { createBrotliDecompress, createGunzip, createInflate } from "node:zlib";
import { createPartners, OutsideError, SilentError } from "./partners.ts";
import { plainWords } from "./words.ts";

/** Those this process asks. */
const PARTNERS = createPartners();

/** Whoever was given less time than that is not called silent. */
const PATIENT_MS = 1000;

/** Bytes an answer may have once it is unpacked; a list of two hundred parts has a tenth of it. */
const MOST_BYTES = 1024 * 1024;

/** A question to somebody outside. */
export interface Outgoing {
  readonly method: "GET" | "POST" | "PUT";
  /** Pieces of the path behind the address; each is one piece, whatever stands in it. */
  readonly path: readonly string[];
  /** Names and values behind the path. */
  readonly query?: readonly (readonly [string, string])[];
  readonly body?: unknown;
  /** Tells the other end which questions are one: it may do what was asked once only. */
  readonly onceUnder?: string;
  /** The whole of it, from looking the name up to the last byte. */
  readonly patienceMs: number;
}

/** What came back; its text is any JSON there is, or none, to be read by a shape. */
export interface Incoming {
  readonly status: number;
  readonly text: string;
}

/**
 * Asks somebody outside: the one way out of the server. The address is one of the installation's own; nothing that was
 * answered or typed leads anywhere else, so there are no redirects, and a name that comes to an inner address is not
 * followed there. What comes back is counted as it comes, unpacked, and ended beyond a megabyte.
 *
 * @param base an address of the configuration
 * @throws OutsideError in words for the person; at once where it rests, or as many questions as may are with it already
 */
export function askOutside(base: string, asked: Outgoing, partners = PARTNERS): Promise<Incoming> {
  // what stands behind one name is one partner, whichever shop asks it
  return partners.asked([base, ...asked.path.slice(0, 2)].join(" "), () => request(base, asked));
}

function request(base: string, asked: Outgoing): Promise<Incoming> {
  const url = addressOf(base, asked);
  const text = asked.body === undefined ? undefined : JSON.stringify(asked.body);
  return new Promise((resolve, reject) => {
    const fail = (why: string | OutsideError) => {
      clearTimeout(late);
      going.destroy();
      reject(typeof why === "string" ? new OutsideError(why) : why);
    };
    const late = setTimeout(
      () =>
        fail(new (asked.patienceMs >= PATIENT_MS ? SilentError : OutsideError)("It did not answer in time.")),
      asked.patienceMs,
    );
    const going = (url.protocol === "https:" ? secure : plain)(url, {
      method: asked.method,
      agent: false,
      headers: {
        Accept: "application/json",
        "Accept-Encoding": "gzip, deflate, br",
        ...(text === undefined
          ? {}
          : { "Content-Type": "application/json", "Content-Length": Buffer.byteLength(text) }),
        ...(asked.onceUnder ? { "Idempotency-Key": asked.onceUnder } : {}),
      },
      ...(isInner(url.hostname) || url.hostname === "localhost" ? {} : { lookup: outerOnly }),
    });
    going.on("error", (error) =>
      fail(error instanceof OutsideError ? error.message : "It cannot be reached."),
    );
    going.on("response", (response) => {
      read(response).then(
        (bytes) => {
          clearTimeout(late);
          const status = response.statusCode!;
          if (status >= 300 && status < 400)
            return fail("It points to another address, which is not followed.");
          resolve({ status, text: bytes.toString("utf8") });
        },
        (error: Error) => fail(error instanceof OutsideError ? error.message : "Its answer broke off."),
      );
    });
    going.end(text);
  });
}

function addressOf(base: string, { path, query = [] }: Outgoing): URL {
  const root = new URL(base);
  if (path.some((p) => p === "" || p === "." || p === ".."))
    throw new OutsideError("It is not known under what name it is asked.");
  root.pathname = [root.pathname.replace(/\/$/, ""), ...path.map(encodeURIComponent)].join("/");
  for (const [name, value] of query) root.searchParams.append(name, value);
  return root;
}

/** The bytes of an answer, unpacked and counted as they come. */
async function read(response: IncomingMessage): Promise<Buffer> {
  const kept: Buffer[] = [];
  let bytes = 0;
  for await (const chunk of unpacked(response)) {
    bytes += (chunk as Buffer).length;
    if (bytes > MOST_BYTES)
      throw new OutsideError(`Its answer is larger than ${MOST_BYTES / 1048576} MB and was not read.`);
    kept.push(chunk as Buffer);
  }
  return Buffer.concat(kept);
}

function unpacked(response: IncomingMessage): Readable {
  const encoding = response.headers["content-encoding"] ?? "identity";
  const by = {
    identity: undefined,
    gzip: createGunzip,
    "x-gzip": createGunzip,
    deflate: createInflate,
    br: createBrotliDecompress,
  }[encoding.trim().toLowerCase()];
  // what breaks off at one end ends the other
  if (by) return pipeline(response, by(), () => undefined);
  if (encoding.trim().toLowerCase() !== "identity")
    throw new OutsideError("Its answer is packed in an unknown way.");
  return response;
}

/** An address of this machine or of the network it stands in, where no partner is. */
export function isInner(host: string): boolean {
  const ip = host.replace(/^\[|\]$/g, "").toLowerCase();
  if (isIP(ip) === 4) {
    const [a, b] = ip.split(".").map(Number) as [number, number];
    return (
      a === 0 ||
      a === 10 ||
      a === 127 ||
      a >= 224 ||
      (a === 100 && b >= 64 && b < 128) ||
      (a === 169 && b === 254) ||
      (a === 172 && b >= 16 && b < 32) ||
      (a === 192 && b === 168)
    );
  }
  if (isIP(ip) !== 6) return false;
  const mapped = /^::ffff:(?:(\d+\.\d+\.\d+\.\d+)|([0-9a-f]{1,4}):([0-9a-f]{1,4}))$/.exec(ip);
  if (mapped?.[1]) return isInner(mapped[1]);
  if (mapped) {
    const [high, low] = [Number.parseInt(mapped[2]!, 16), Number.parseInt(mapped[3]!, 16)];
    return isInner([high >> 8, high & 255, low >> 8, low & 255].join("."));
  }
  return ip === "::" || ip === "::1" || /^f[cd]|^fe[89ab]|^ff/.test(ip);
}

/**
 * Looks a name up, and refuses what it comes to where that lies inside: only an address the installation itself wrote
 * down as one leads there.
 */
export const outerOnly: LookupFunction = (name, options, done) => {
  lookup(name, { ...options, all: true }, (error, found) => {
    if (error) return done(error, "", 4);
    const bad = found.find((f) => isInner(f.address));
    const refused = new OutsideError(`${plainWords(name, 60)} lies in the server's own network.`);
    if (bad || found.length === 0) return done(refused as NodeJS.ErrnoException, "", 4);
    if (options.all) return (done as unknown as (e: null, all: typeof found) => void)(null, found);
    done(null, found[0]!.address, found[0]!.family);
  });
};
