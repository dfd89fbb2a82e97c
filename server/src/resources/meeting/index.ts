/** What other resources may use of connectors and what is put onto them. */
export { insertMeeting, manyMeetings } from "./queries.ts";
