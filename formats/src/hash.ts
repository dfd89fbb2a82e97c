import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";

/** SHA-256 of bytes as lower-case hex. */
export const sha256Hex = (bytes: Uint8Array): string => bytesToHex(sha256(bytes));
