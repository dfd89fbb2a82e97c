import { expect, test } from "@jest/globals";
import ICAL from "ical.js";
import { writeCalendar } from "./calendar.ts";

const NOW = "2026-11-30T09:00:00Z";
const read = (text: string) =>
  new ICAL.Component(ICAL.parse(text) as never).getAllSubcomponents("vevent").map((v) => {
    const e = new ICAL.Event(v);
    return {
      id: e.uid,
      from: e.startDate.toString(),
      after: e.endDate.toString(),
      isDate: e.startDate.isDate,
      title: e.summary,
      about: e.description,
      status: v.getFirstPropertyValue("status"),
      url: v.getFirstPropertyValue("url")?.toString(),
    };
  });

test("days are read back by another reader: whole days without a zone, the end on the day after, sure or not", () => {
  const text = writeCalendar(
    "Waiting",
    [
      {
        id: "a",
        from: "2026-12-30",
        to: "2027-01-02",
        title: "Boards",
        about: "of one",
        url: "https://k.example/runs/1",
      },
      { id: "b", from: "2028-02-28", to: "2028-02-28", title: "Parts", about: "", isOpen: true },
      // a promise before it was begun is one day
      { id: "c", from: "2026-12-05", to: "2026-12-01", title: "Foil", about: "" },
    ],
    { now: NOW },
  );
  expect(read(text)).toEqual([
    {
      id: "a",
      from: "2026-12-30",
      after: "2027-01-03",
      isDate: true,
      title: "Boards",
      about: "of one",
      status: "CONFIRMED",
      url: "https://k.example/runs/1",
    },
    {
      id: "b",
      from: "2028-02-28",
      after: "2028-02-29",
      isDate: true,
      title: "Parts",
      about: "",
      status: "TENTATIVE",
      url: undefined,
    },
    {
      id: "c",
      from: "2026-12-05",
      after: "2026-12-06",
      isDate: true,
      title: "Foil",
      about: "",
      status: "CONFIRMED",
      url: undefined,
    },
  ]);
  expect(text).toContain("DTSTAMP:20261130T090000Z");
});

test("names that would end a line, a field or the file come out as text on one line, what is told on several keeps its lines", () => {
  const nasty = `Moss; Lane, "Boards"\\n\r\nEND:VEVENT\r\nBEGIN:VEVENT\nSUMMARY:x é 漢 \u0007${"long ".repeat(60)}`;
  const [one, ...more] = read(
    writeCalendar(nasty, [{ id: "a", from: "2026-12-01", to: "2026-12-01", title: nasty, about: nasty }], {
      now: NOW,
    }),
  );
  expect(more).toEqual([]);
  const long = "long ".repeat(60).trim();
  expect(one!.title).toBe(`Moss; Lane, "Boards"\\n END:VEVENT BEGIN:VEVENT SUMMARY:x é 漢  ${long}`);
  expect(one!.about).toBe(`Moss; Lane, "Boards"\\n\nEND:VEVENT\nBEGIN:VEVENT\nSUMMARY:x é 漢  ${long}`);
});
