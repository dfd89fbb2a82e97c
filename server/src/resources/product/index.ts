/** What other resources may use of products and their files. */
export { addRevision } from "./add.ts";
export { insertBlob, manyBoardFiles, oneBoard, refuseBeyondQuota } from "./queries.ts";
export { spoolFolder, withUpload } from "./upload.ts";
