import sharp from "sharp";
import { decodePhoto, isPixels } from "./decodePhoto";

const square = (format: "jpeg" | "png" | "webp" | "gif" | "tiff") =>
  sharp({ create: { width: 8, height: 8, channels: 3, background: "red" } })
    .toFormat(format)
    .toBuffer();

test.each(["jpeg", "png", "webp"] as const)("%s is a picture", async (format) => {
  expect(await decodePhoto(await square(format))).toMatchObject({ width: 8, height: 8 });
});

test("what is drawn by words, or comes in a form that no phone takes, is not even begun", async () => {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><filter id="f"><feTurbulence numOctaves="9999"/></filter></svg>`;
  const began = performance.now();
  for (const bytes of [Buffer.from(svg), Buffer.from(`\ufeff${svg}`), Buffer.from("%PDF-1.7"), Buffer.alloc(0)]) {
    expect(isPixels(bytes)).toBe(false);
    expect(await decodePhoto(bytes)).toBeNull();
  }
  expect(await decodePhoto(await square("gif"))).toBeNull();
  expect(await decodePhoto(await square("tiff"))).toBeNull();
  expect(performance.now() - began).toBeLessThan(5000);
  // The first bytes of a picture and a drawing behind them: no picture.
  expect(await decodePhoto(Buffer.concat([Buffer.from([0xff, 0xd8, 0xff]), Buffer.from(svg)]))).toBeNull();
});
