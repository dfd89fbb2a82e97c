import type { AskAnswer, PeopleAnswer, RunAnswer, SessionRow } from "@kobbin/contract";
import { JPEG } from "./jpeg.ts";
import { startServer, strangerFiles, type TestServer, Visitor } from "./kit.ts";

/** One pixel. */
const PNG = "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAQAAAC1HAwCAAAAC0lEQVR42mNkYAAAAAYAAjCB0C8AAAAASUVORK5CYII=";
export const PASSWORD = "a long password";
/** Lets somebody in. */
export async function invite(
  server: TestServer,
  owner: Visitor,
  name: string,
  role: "owner" | "bench",
): Promise<Visitor> {
  const { token } = (await owner.post("/api/invitations", { role })).body as { token: string };
  const v = new Visitor(server);
  const { status } = await v.post(`/api/invited/${token}`, { email: name, password: PASSWORD });
  if (status !== 204) throw new Error(`${name} did not come in: ${status}`);
  return v;
}

/** A shop with one of everything, somebody of another one, and the server they are on. */
export interface Peopled extends Awaited<ReturnType<typeof fixture>> {
  readonly server: TestServer;
  readonly stranger: Visitor;
}

/** Somebody of another shop. */
export async function strangerAt(server: TestServer): Promise<Visitor> {
  const stranger = new Visitor(server);
  await stranger.startShop("roles stranger");
  return stranger;
}

/**
 * Fills a database with what {@link fixture} makes, to be copied.
 * @returns what opens a copy, on a server of its own: as quick as a tenth of the requests that filled it
 */
export async function copiedFixture(name: string): Promise<() => Promise<Peopled>> {
  const first = await startServer({}, {}, { name });
  const { owner, bench, ...rest } = await fixture(first);
  const stranger = await strangerAt(first);
  await first.close();
  const cookies = [owner, bench, stranger].map((v) => v.cookies());
  return async () => {
    const server = await startServer({}, {}, { copyOf: name });
    const [a, b, c] = cookies.map((cookie) => new Visitor(server, cookie));
    return { ...rest, server, owner: a!, bench: b!, stranger: c! };
  };
}

let shops = 0;
/** A shop with one of everything, an owner and a member of the bench; a body for every route that takes one. */
export async function fixture(server: TestServer) {
  const owner = new Visitor(server);
  const name = `roles ${shops++}`;
  await owner.startShop(name);
  const bench = await invite(server, owner, `${name} bench`, "bench");
  const kept = (await owner.drop(strangerFiles())).body as Record<
    "productId" | "revisionId" | "boardId",
    string
  >;
  const { id: run } = (
    await owner.post("/api/runs", { revisionId: kept.revisionId, name: "one", goodBoards: 5 })
  ).body as { id: string };
  const { document } = (await owner.get(`/api/runs/${run}`)).body as RunAnswer;
  const line = document.lines[0]!.id;
  const supplier = document.suppliers[0]!.id;
  const offerBody = {
    supplierId: supplier,
    stock: 500,
    currency: "EUR",
    breaks: [{ qty: 1, price: "0.05" }],
  };
  const { id: offer } = (await owner.post(`/api/lines/${line}/offers`, offerBody)).body as { id: string };
  const remarked = await bench.post(`/api/runs/${run}/remarks`, { stage: "parts", text: "hm" });
  const { id: remark } = remarked.body as { id: string };
  const change = remarked.headers.get("X-Change")!;
  await owner.patch(`/api/lines/${line}`, { maker: "M" });
  const { id: released } = (
    await owner.post("/api/runs", { revisionId: kept.revisionId, name: "gone out", goodBoards: 5 })
  ).body as { id: string };
  const plain = { state: "powered", drives: [], reads: [], through: [], expect: "", minutes: 1 };
  const tests = [{ ...plain, id: "rail", name: "rail", unit: "V", min: "3", max: "3.6" }];
  const images = [
    {
      id: "watch",
      at: "J1",
      name: "watch",
      version: "1.4",
      file: "",
      from: "",
      tool: "",
      wires: [],
      settings: "",
      command: "",
      expect: "",
      fits: [],
      values: [{ name: "number", isWiped: false }],
    },
  ];
  await owner.patch(`/api/runs/${released}`, { version: 1, assembly: { tests, images } });
  await owner.post(`/api/runs/${released}/release`);
  const order = `parts ${supplier}`;
  const receiptBody = { order, arrivedOn: "2026-11-24", items: [{ item: offer, qty: 5, unitCost: "0.04" }] };
  const { ids: receipts } = (await bench.post(`/api/runs/${released}/receipts`, receiptBody)).body as {
    ids: string[];
  };
  const workBody = { on: "2026-11-24", started: 1, minutes: 5 };
  const { id: work } = (await bench.post(`/api/runs/${released}/work`, workBody)).body as { id: string };
  const fitBody = { label: "Groove", spec: { kind: "edge", allowsMm: [1, 2] } };
  const { id: fit } = (await owner.post(`/api/products/${kept.productId}/fits`, fitBody)).body as {
    id: string;
  };
  const pins = [{ pin: "1", kind: "supply", volts: 5 }, { pin: "2" }];
  const meetBody = {
    ref: "J1",
    other: "Display",
    spec: { ours: pins, theirs: pins, stopped: ["turned"], stopBy: "a key" },
  };
  const { id: meeting } = (await owner.post(`/api/products/${kept.productId}/meetings`, meetBody)).body as {
    id: string;
  };
  const linkBody = {
    ref: "JP1",
    spec: { positions: [{ name: "open", does: "" }], set: "", variants: {}, isCap: false },
  };
  const { id: link } = (await owner.post(`/api/products/${kept.productId}/links`, linkBody)).body as {
    id: string;
  };
  const foilBody = {
    name: "first foil",
    board: "B",
    foilMm: 0.12,
    form: "loose",
    openings: { top: [1, 1, 0.3, 0.5] },
    without: ["R9"],
    price: "22.00",
    currency: "EUR",
    madeOn: "2026-11-20",
  };
  const { id: foil } = (await owner.post(`/api/products/${kept.productId}/foils`, foilBody)).body as {
    id: string;
  };
  const equipmentBody = {
    kind: "plate",
    name: "plate by the window",
    facts: { spaceMm: [200, 150], mostC: 260, control: "eye" },
    cannot: "boards with parts below",
    hours: 40,
    lastsHours: 500,
  };
  const { id: machine } = (await owner.post("/api/equipment", equipmentBody)).body as { id: string };
  // orders of boards: one that is sent by hand, one that is talked about, one that is free
  const answering = ((await owner.get(`/api/runs/${released}/asks`)).body as AskAnswer).answering;
  const [byHand, talked, free] = answering.map((h) => `boards ${h}`);
  const stepBody = { order: byHand!, state: "sent", on: "2026-11-24" };
  const { id: step } = (await owner.post(`/api/runs/${released}/order-steps`, stepBody)).body as {
    id: string;
  };
  await owner.post(`/api/runs/${released}/send-order`, { order: talked! });
  const bareBody = { item: kept.boardId, label: "1", on: "2026-11-24", tried: 9, faults: [] };
  const measuredBody = {
    item: kept.boardId,
    label: "1",
    on: "2026-11-24",
    readings: { thickness: [1.58, 1.6] },
    looks: { mask: true },
  };
  const { id: measured } = (await bench.post(`/api/runs/${released}/measured`, measuredBody)).body as {
    id: string;
  };
  // boards of their own: what is put by hangs on what came
  await bench.post(`/api/runs/${released}/receipts`, {
    order: `boards ${document.house!.id}`,
    arrivedOn: "2026-11-24",
    items: [{ item: kept.boardId, qty: 20 }],
  });
  const keptBody = {
    item: kept.boardId,
    boards: [{ purpose: "reference", pieces: 1 }],
    place: "drawer 2",
    on: "2026-11-24",
  };
  const { ids: puts } = (await bench.post(`/api/runs/${released}/kept`, keptBody)).body as { ids: string[] };
  const claimBody = { order: byHand!, pieces: 3, because: "three are scratched", on: "2026-11-24" };
  const { id: claim } = (await owner.post(`/api/runs/${released}/claims`, claimBody)).body as { id: string };
  const sittingBody = {
    unit: 1,
    step: 2,
    marks: { R1: "done", R2: "doubt" },
    lost: {},
    minutes: { desk: 2.5 },
    isDone: false,
  };
  await bench.put(`/api/runs/${released}/sittings`, sittingBody);
  const tryBody = { unit: 1, item: "rail", on: "2026-11-24", value: "3.31", words: "3,31 V" };
  const { id: tried } = (await bench.post(`/api/runs/${released}/tries`, tryBody)).body as { id: string };
  const defectBody = { unit: 1, at: "U1.4", code: "bridge", step: 3, on: "2026-11-24", minutes: 2.5 };
  const { id: defect } = (await bench.post(`/api/runs/${released}/defects`, defectBody)).body as {
    id: string;
  };
  const photoBody = {
    order: `boards ${document.house!.id}`,
    item: kept.boardId,
    on: "2026-11-24",
    jpeg: JPEG,
  };
  const { id: photo } = (await bench.post(`/api/runs/${released}/photos`, photoBody)).body as { id: string };
  const loadBody = { unit: 1, image: "watch", on: "2026-11-24", isRight: true, given: { number: "7" } };
  const { id: load } = (await bench.post(`/api/runs/${released}/loads`, loadBody)).body as { id: string };
  const rightBody = { kind: "logo", what: "emblem of a club", place: "top silkscreen" };
  const { id: right } = (
    await owner.post(`/api/products/${kept.productId}/rights`, { ...rightBody, state: "own" })
  ).body as { id: string };
  const lessonBody = {
    title: "every diode tells which way round it sits",
    check: { kind: "marked", letters: "D" },
    since: "2026-11-24",
    revisionId: kept.revisionId,
  };
  const { id: lesson } = (await owner.post("/api/lessons", lessonBody)).body as { id: string };
  const erratumBody = {
    revisionId: kept.revisionId,
    title: "slot too narrow",
    harm: "worse",
    spot: { at: [6.5, 34], side: "top", diameterMm: 1 },
    foundOn: "2026-11-24",
  };
  const { id: erratum } = (await owner.post("/api/errata", erratumBody)).body as { id: string };
  const reworkBody = { runId: released, unit: 2, on: "2026-11-24", minutes: 4 };
  const { id: rework } = (await owner.put(`/api/errata/${erratum}/reworks`, reworkBody)).body as {
    id: string;
  };
  const outsBody = { units: [1], on: "2026-11-24", towards: "a fair", holder: "somebody", reach: "a street" };
  await bench.call("PUT", `/api/runs/${released}/outs`, outsBody);
  const [{ id: out } = { id: "" }] = (await owner.get(`/api/runs/${released}/outs`)).body as { id: string }[];
  const reportBody = { productId: kept.productId, on: "2026-11-24", says: "the lamp flickers" };
  const { id: report } = (await owner.post("/api/reports", reportBody)).body as { id: string };
  const { revisionId: otherRevision } = (
    await owner.drop(strangerFiles(), { productId: kept.productId, revision: "B" })
  ).body as { revisionId: string };
  const meterBody = { kind: "meter", name: "meter", facts: { asked: "hand" } };
  const { id: meter } = (await owner.post("/api/equipment", meterBody)).body as { id: string };
  const { id: bareTest } = (await bench.post(`/api/runs/${released}/bare-tests`, bareBody)).body as {
    id: string;
  };
  const { id: invitation, token } = (await owner.post("/api/invitations", { role: "bench" })).body as {
    id: string;
    token: string;
  };
  const { path: address } = (await owner.post("/api/calendar")).body as { path: string };
  const calendar = address.split("/").at(-1)!;
  const people = (await owner.get("/api/people")).body as PeopleAnswer;
  const [session] = (await owner.get("/api/sessions")).body as SessionRow[];
  const shopId = ((await owner.get("/api/session")).body as { shop: { id: string } }).shop.id;
  const { ids: parts } = (await owner.post("/api/parts", { parts: [{ mpn: "LIB-1" }] })).body as {
    ids: string[];
  };
  const lotBody = { mpn: "LIB-1", qty: 20, currency: "EUR" };
  const { id: lot } = (await owner.post("/api/lots", lotBody)).body as { id: string };
  const sumBody = { kind: "lamp", given: { supply: "5 V" } };
  const { id: sum } = (await owner.post(`/api/revisions/${kept.revisionId}/sums`, sumBody)).body as {
    id: string;
  };
  const { id: variant } = (await owner.post(`/api/revisions/${kept.revisionId}/variants`, { name: "first" }))
    .body as { id: string };
  const ids: Record<string, string> = {
    runs: run,
    sums: sum,
    variants: variant,
    parts: parts[0]!,
    lots: lot,
    suppliers: supplier,
    lines: line,
    houses: document.house!.id,
    boards: kept.boardId,
    revisions: kept.revisionId,
    offers: offer,
    remarks: remark,
    changes: change,
    invitations: invitation,
    people: people.members.find((m) => !m.isMe)!.id,
    sessions: session!.id,
    invited: token,
    calendars: calendar,
    receipts: receipts[0]!,
    work,
    products: kept.productId,
    fits: fit,
    foils: foil,
    equipment: machine,
    lessons: lesson,
    rights: right,
    errata: erratum,
    reworks: rework,
    outs: out,
    reports: report,
    meetings: meeting,
    links: link,
    "bare-tests": bareTest,
    measured,
    kept: puts[0]!,
    claims: claim,
    tries: tried,
    defects: defect,
    photos: photo,
    loads: load,
    "order-steps": step,
  };
  /** Routes that want a run which was released. */
  const releasedRuns: Record<string, string> = Object.fromEntries(
    [
      "PUT /purchases",
      "POST /order-steps",
      "POST /send-order",
      "POST /look-order",
      "POST /receipts",
      "POST /bare-tests",
      "POST /measured",
      "POST /kept",
      "POST /claims",
      "POST /work",
      "PUT /sittings",
      "PUT /outs",
      "POST /tries",
      "POST /defects",
      "POST /photos",
      "POST /loads",
      "PUT /closing",
    ].map((k) => [k.replace(" /", " /api/runs/:id/"), released]),
  );
  // and one that wants a meter, not any machine
  releasedRuns["POST /api/equipment/:id/reading"] = meter;
  const bodies: Record<string, unknown> = {
    "POST /api/session": { email: name, password: PASSWORD },
    "POST /api/shops": {
      name: "x",
      currency: "EUR",
      hourlyRate: "1",
      email: `${name} new`,
      password: PASSWORD,
    },
    "POST /api/invited/:token": { email: `${name} joins`, password: PASSWORD },
    "POST /api/session/password": { old: PASSWORD, fresh: "another long one" },
    "POST /api/session/shop": { shopId },
    "PUT /api/presence": { page: "11111111-1111-4111-8111-111111111111", place: "" },
    "POST /api/runs/:id/remarks": { stage: "parts", text: "x" },
    "POST /api/products/:id/fits": fitBody,
    "PUT /api/fits/:id": fitBody,
    "POST /api/products/:id/links": linkBody,
    "PUT /api/links/:id": linkBody,
    "POST /api/products/:id/meetings": meetBody,
    "PUT /api/meetings/:id": meetBody,
    "POST /api/products/:id/foils": foilBody,
    "PATCH /api/foils/:id": { prints: 12 },
    "POST /api/runs/:id/first-article": { version: 1, sockets: [{ line }] },
    "POST /api/products/:id/rights": rightBody,
    "PATCH /api/rights/:id": { state: "granted", owner: "a club", evidence: "letter of May" },
    "POST /api/lessons": lessonBody,
    "PATCH /api/lessons/:id": { sure: "likely" },
    "POST /api/errata": erratumBody,
    "PATCH /api/errata/:id": { workaround: "file it open", way: "other" },
    "PUT /api/errata/:id/decision": { revisionId: otherRevision, is: "stays", on: "2026-11-24" },
    "PUT /api/errata/:id/reworks": reworkBody,
    "PUT /api/runs/:id/outs": outsBody,
    "PUT /api/products/:id/next-revision": { isNeeded: false, because: "it is good", on: "2026-11-24" },
    "POST /api/reports": reportBody,
    "PATCH /api/reports/:id": { answer: "we send another", erratumId: erratum },
    "POST /api/equipment": equipmentBody,
    "PATCH /api/equipment/:id": { hours: 41, lastsHours: null, state: "broken" },
    "POST /api/runs/:id/bare-tests": bareBody,
    "POST /api/runs/:id/measured": measuredBody,
    "POST /api/runs/:id/kept": keptBody,
    "PATCH /api/kept/:id": { place: "drawer 3" },
    "PATCH /api/receipts/:id": { isApart: true, because: "bent" },
    "POST /api/runs/:id/claims": claimBody,
    "PATCH /api/claims/:id": { state: "sent", answer: "they look at it", credit: "4.50" },
    "PUT /api/runs/:id/sittings": sittingBody,
    "POST /api/runs/:id/tries": tryBody,
    "POST /api/runs/:id/defects": defectBody,
    "POST /api/runs/:id/photos": photoBody,
    "POST /api/lots/:id/air": { is: "out" },
    "PUT /api/boards/:id/picture": {
      key: "ab".repeat(32),
      box: [0, 0, 40, 30],
      png: PNG,
      under: {},
    },
    "POST /api/lots/count": { counts: [{ id: lot, version: 1, qty: 20 }] },
    "POST /api/runs/:id/loads": loadBody,
    "PATCH /api/loads/:id": { on: "2026-11-24" },
    "PATCH /api/photos/:id": { note: "scratched" },
    "PATCH /api/defects/:id": { isMended: true },
    "POST /api/equipment/:id/reading": { unit: "V", near: "3.3" },
    "POST /api/runs/:id/order-steps": { ...stepBody, state: "accepted" },
    "POST /api/runs/:id/send-order": { order: free },
    "POST /api/runs/:id/look-order": { order: talked },
    "PATCH /api/shop": { name: "renamed" },
    "PATCH /api/people/:id": { role: "bench" },
    "POST /api/invitations": { role: "bench" },
    "POST /api/people/forget": { person: "nobody" },
    "POST /api/boards/:id/corrections": { roles: {} },
    "POST /api/revisions/:id/boards": namedForm("second"),
    "PATCH /api/boards/:id": { perProduct: 2 },
    "POST /api/runs": { revisionId: kept.revisionId, name: "two", goodBoards: 2 },
    "PATCH /api/runs/:id": { version: 1, goodBoards: 6 },
    "PUT /api/runs/:id/quotes": {
      houseId: document.house!.id,
      kind: "fab",
      total: "1",
      currency: "EUR",
      days: 1,
    },
    "POST /api/runs/:id/ask-houses": { start: 5 },
    "PUT /api/runs/:id/quotes/:house/answer": { answer: "as they are" },
    "POST /api/revisions/:id/lines": { valueText: "screw" },
    "POST /api/revisions/:id/sums": sumBody,
    "PATCH /api/sums/:id": { wanted: "8 mA" },
    "POST /api/revisions/:id/variants": { name: "second" },
    "PATCH /api/variants/:id": { overrides: { [line]: { dnp: true } } },
    "PATCH /api/lines/:id": { maker: "N" },
    "PUT /api/columns": { source: "a|b", columns: { 0: "refs" } },
    "PUT /api/revisions/:id/lines": { lines: [{ valueText: "screw" }] },
    "PATCH /api/revisions/:id/lines": { lines: [{ id: line, maker: "O" }] },
    "POST /api/lines/:id/merge": { others: [document.lines[0]!.id] },
    "POST /api/suppliers": { name: "S", currency: "EUR", shipping: "1", daysMin: 1, daysMax: 2 },
    "POST /api/lines/:id/offers": offerBody,
    "POST /api/runs/:id/quotation": {
      supplierId: supplier,
      currency: "EUR",
      offers: [{ lineId: line, stock: 5, breaks: [{ qty: 1, price: "1" }] }],
    },
    "PATCH /api/suppliers/:id": { version: 1, handling: "2" },
    "POST /api/parts": { parts: [{ mpn: "LIB-2" }] },
    "PATCH /api/parts/:id": { maker: "N" },
    "PUT /api/alternates": { original: "number LIB-9", partId: parts[0], state: "proposed" },
    "POST /api/lots": lotBody,
    "PATCH /api/lots/:id": { version: 1, place: "drawer" },
    "PUT /api/runs/:id/reservations": { lotId: lot, qty: 5 },
    "POST /api/houses": { copyOf: document.house!.id, name: "mine" },
    "PATCH /api/houses/:id": document.house,
    "POST /api/changes/:id/undo": {},
    "PUT /api/runs/:id/purchases": {
      order,
      currency: "EUR",
      orderedOn: "2026-11-24",
      paid: { [offer]: "0.40" },
    },
    "POST /api/runs/:id/receipts": receiptBody,
    "POST /api/runs/:id/work": workBody,
    "PUT /api/runs/:id/closing": { lesson: "count twice" },
  };
  return { owner, bench, ids, releasedRuns, bodies, houseId: document.house!.id };
}

function namedForm(name: string): FormData {
  const form = new FormData();
  form.set("name", name);
  return form;
}
