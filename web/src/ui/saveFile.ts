/** Hands a made file to the person. */
export function saveFile(data: Blob | string, name: string, type = "text/plain"): void {
  const url = URL.createObjectURL(typeof data === "string" ? new Blob([data], { type }) : data);
  const a = document.createElement("a");
  a.href = url;
  a.download = name;
  a.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A name as part of a file's: small letters, digits and dashes. */
export const fileWord = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]+/g, "-");
