/** What other resources may use of connectors and what is put onto them. */
export { manyLinks } from "./link-queries.ts";
export { insertMeeting, manyMeetings } from "./queries.ts";
