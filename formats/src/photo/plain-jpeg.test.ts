import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { PHOTO_BYTES, plainJpeg } from "./plain-jpeg.ts";

/** Twelve by eight pixels, as a browser wrote them, cut by hand to what a decoder needs. */
const PLAIN = new Uint8Array(
  Buffer.from(
    "/9j/2wBDABsSFBcUERsXFhceHBsgKEIrKCUlKFE6PTBCYFVlZF9VXVtqeJmBanGQc1tdhbWGkJ6jq62rZ4C8ybqmx5moq6T/2wBDARweHigjKE4rK06kbl1upKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKT/wAARCAAIAAwDASIAAhEBAxEB/8QAFgABAQEAAAAAAAAAAAAAAAAAAAIE/8QAIBAAAQIFBQAAAAAAAAAAAAAAABIUAgQREyExUVJhcf/EABUBAQEAAAAAAAAAAAAAAAAAAAMF/8QAFhEBAQEAAAAAAAAAAAAAAAAAAAER/9oADAMBAAIRAxEAPwCVyjJFqNzzrjX3bozAAqcmP//Z",
    "base64",
  ),
);
const ascii = (text: string) => [...text].map((c) => c.charCodeAt(0));
const segment = (marker: number, body: readonly number[]) => [
  0xff,
  marker,
  (body.length + 2) >> 8,
  (body.length + 2) & 255,
  ...body,
];
/** What a phone writes: which way is up, and a place of degrees, minutes, seconds. */
const exif = (turned: number, little: boolean) => {
  const n = (value: number, bytes: number) => {
    const list = Array.from({ length: bytes }, (_, i) => (value >> (8 * (bytes - 1 - i))) & 255);
    return little ? list.reverse() : list;
  };
  const entry = (tag: number, type: number, value: number) => [
    ...n(tag, 2),
    ...n(type, 2),
    ...n(1, 4),
    ...(type === 3 ? [...n(value, 2), 0, 0] : n(value, 4)),
  ];
  return segment(0xe1, [
    ...ascii("Exif\0\0"),
    ...ascii(little ? "II" : "MM"),
    ...n(42, 2),
    ...n(8, 4),
    ...n(3, 2),
    ...entry(0x010f, 2, 0x4d414b45),
    ...entry(0x0112, 3, turned),
    ...entry(0x8825, 4, 999),
    ...n(0, 4),
    ...ascii("48 12 31 N 11 34 55 E"),
  ]);
};
const withIn = (...more: readonly number[][]) =>
  new Uint8Array([0xff, 0xd8, ...more.flat(), ...PLAIN.slice(2)]);
const wrongOf = (bytes: Uint8Array) => {
  const read = plainJpeg(bytes);
  return "wrong" in read ? read.wrong : "none";
};
const frameAt = PLAIN.findIndex((b, i) => b === 0xff && PLAIN[i + 1] === 0xc0);
const changed = (at: number, ...to: number[]) => {
  const bytes = PLAIN.slice();
  bytes.set(to, at);
  return bytes;
};

test("nothing of what a camera writes beside the picture is kept; the picture's own bytes are", () => {
  const kept = { bytes: PLAIN, widthPx: 12, heightPx: 8 };
  expect(plainJpeg(PLAIN)).toEqual(kept);
  for (const little of [true, false])
    expect(
      plainJpeg(
        withIn(
          segment(0xe0, ascii("JFIF\0")),
          exif(1, little),
          segment(0xe1, ascii("http://ns.example/xap/1.0/\0<place/>")),
          segment(0xe2, ascii("a profile of its maker")),
          segment(0xed, ascii("a name")),
          segment(0xfe, ascii("taken at home")),
          [0xff],
        ),
      ),
    ).toEqual(kept);
  // other pictures and notes behind its end
  expect(plainJpeg(new Uint8Array([...PLAIN, ...exif(1, true), ...PLAIN]))).toEqual(kept);
  // how its colours are coded is of the picture, a longer word of the same name is not
  const colours = segment(0xee, [...ascii("Adobe"), 0, 100, 0, 0, 0, 0, 1]);
  expect(plainJpeg(withIn(colours))).toEqual({ ...kept, bytes: withIn(colours) });
  expect(plainJpeg(withIn(segment(0xee, ascii("Adobe, taken at home"))))).toEqual(kept);
});

test("a picture in several pieces, with bytes of its own that look like marks, is kept whole", () => {
  const at = PLAIN.findIndex((b, i) => b === 0xff && PLAIN[i + 1] === 0xda);
  const scan = [...PLAIN.slice(at, -2)];
  const pieces = [...segment(0xdd, [0, 1]), ...scan, 0xff, 0xd0, 1, 2, 0xff, 0xd7, 3, 0xff, 0];
  const whole = new Uint8Array([...PLAIN.slice(0, at), ...pieces, ...PLAIN.slice(-2)]);
  expect(plainJpeg(whole)).toEqual({ bytes: whole, widthPx: 12, heightPx: 8 });
  // between two scans other words may stand; they go
  const more = (words: number[]) =>
    new Uint8Array([...PLAIN.slice(0, at), ...scan, ...words, ...scan, ...PLAIN.slice(-2)]);
  expect(plainJpeg(more(segment(0xfe, ascii("at home"))))).toMatchObject({ bytes: more([]) });
});

test("what is no picture to be kept is refused in words", () => {
  for (const turned of [2, 3, 6, 8])
    for (const little of [true, false])
      expect(wrongOf(withIn(exif(turned, little)))).toMatch(/lies on its side/);
  expect(wrongOf(new Uint8Array(Buffer.from("<svg xmlns='x'/>")))).toMatch(/no JPEG/);
  expect(wrongOf(new Uint8Array([0x89, 0x50, 0x4e, 0x47]))).toMatch(/no JPEG/);
  expect(wrongOf(new Uint8Array())).toMatch(/no JPEG/);
  expect(wrongOf(new Uint8Array(PHOTO_BYTES + 1))).toBe("The photo takes 1.5 MB.");
  expect(wrongOf(new Uint8Array([0xff, 0xd8, 0xff, 0xd9]))).toMatch(/no picture/);
  const scanAt = PLAIN.findIndex((b, i) => b === 0xff && PLAIN[i + 1] === 0xda);
  expect(wrongOf(new Uint8Array([...PLAIN.slice(0, scanAt), 0xff, 0xd9]))).toMatch(/no picture/);
  expect(wrongOf(changed(2, 0))).toMatch(/damaged/);
  expect(wrongOf(changed(frameAt + 5, 0, 0))).toMatch(/no size/);
  expect(wrongOf(changed(frameAt + 7, 0, 0))).toMatch(/no size/);
  expect(wrongOf(changed(frameAt + 7, 2001 >> 8, 2001 & 255))).toBe("The photo is 2001 pixels long.");
  expect(plainJpeg(changed(frameAt + 7, 2000 >> 8, 2000 & 255))).toMatchObject({ widthPx: 2000 });
  expect(wrongOf(changed(frameAt + 1, 0xc3))).toMatch(/browsers do not show/);
  expect(wrongOf(withIn([...PLAIN.slice(frameAt, frameAt + 19)]))).toMatch(/more than one/);
  // cut anywhere it is no whole photo
  for (let n = 2; n < PLAIN.length; n++) expect(wrongOf(PLAIN.slice(0, n))).toMatch(/breaks off|damaged/);
});

test("of any bytes at all a photo comes out that is read the same again, or words", () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(PLAIN.length - 1), fc.nat(255)), { maxLength: 6 }),
      fc.uint8Array({ maxLength: 60 }),
      (changes, more) => {
        const bytes = withIn(segment(0xe1, [...more]));
        for (const [at, to] of changes) bytes[2 + at] = to;
        const read = plainJpeg(bytes);
        if ("wrong" in read) return;
        expect(plainJpeg(read.bytes)).toEqual(read);
        expect(read.bytes.length).toBeLessThanOrEqual(bytes.length);
      },
    ),
  );
});
