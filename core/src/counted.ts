/** A number with the word for what it counts: "1 hole", "2 holes", "0 holes"; `many` where it is not the word and an s. */
export const counted = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;
