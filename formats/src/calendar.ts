import ical, { ICalEventStatus, ICalEventTransparency } from "ical-generator";

/** Something that takes whole days. */
export interface CalendarEvent {
  /** Always the same for the same thing: a calendar that fetches again changes it instead of adding another. */
  readonly id: string;
  /** ISO days, the last one in it. */
  readonly from: string;
  readonly to: string;
  readonly title: string;
  readonly about: string;
  readonly url?: string;
  /** It is not sure yet. */
  readonly isOpen?: boolean;
}

/** What a calendar shows on one line, and what it shows on several: nothing else may end a line of the file. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: they are what is taken out
const oneLine = (text: string) => text.replace(/[\u0000-\u001f\u007f\u2028\u2029]+/g, " ").trim();
const lines = (text: string) =>
  text
    .split(/\r\n?|\n/)
    .map(oneLine)
    .join("\n");

const DAY_MS = 86_400_000;

/**
 * Writes days as an iCalendar file (RFC 5545): whole days without a time zone, which take nobody's time away.
 *
 * @param now when it is written, an ISO instant
 * @param every hours after which whoever subscribed may ask again
 */
export function writeCalendar(
  name: string,
  events: readonly CalendarEvent[],
  { now, every = 4 }: { readonly now: string; readonly every?: number },
): string {
  const calendar = ical({
    name: oneLine(name),
    prodId: { company: "Kobbin", product: "Kobbin", language: "EN" },
    ttl: every * 3600,
  });
  for (const e of events) {
    // midnight in UTC, whatever the zone of the machine: only the day is written
    const day = (iso: string, more = 0) => new Date(Date.parse(`${iso}T00:00:00Z`) + more);
    calendar.createEvent({
      id: e.id,
      stamp: new Date(now),
      timezone: "UTC",
      allDay: true,
      start: day(e.from),
      // the end is the first day after it
      end: day(e.to < e.from ? e.from : e.to, DAY_MS),
      summary: oneLine(e.title),
      description: lines(e.about),
      ...(e.url ? { url: e.url } : {}),
      status: e.isOpen ? ICalEventStatus.TENTATIVE : ICalEventStatus.CONFIRMED,
      transparency: ICalEventTransparency.TRANSPARENT,
    });
  }
  return calendar.toString();
}
