import type { TextFile } from "../core/plant/readPlantFiles";
import type { Problem, Read } from "../core/plant/problem";
import { readWorkbook } from "./workbook";
import { stageRegister, type StagedRegister } from "./stageRegister";

/** A form with the files of a register, as it came over the network. */
export type Upload = Readonly<{ body: Uint8Array; contentType: string }>;

export type TakenUpload =
  | Readonly<{
      ok: true;
      actId: unknown;
      pin: string | undefined;
      /** What was looked at before: the register's hash, and the revision that was today's then. */
      seen: string | undefined;
      on: string | undefined;
      register: Read<StagedRegister>;
    }>
  /** It could not be taken apart, and why. */
  | Readonly<{ ok: false; problem: string }>;

/** Takes an upload apart, reads the register in it, and puts it into the database where it is good. */
export async function takeUpload(file: string, upload: Upload, now_ms: number): Promise<TakenUpload> {
  let form: FormData;
  try {
    const body = new Uint8Array(upload.body);
    form = await new Response(body, { headers: { "content-type": upload.contentType } }).formData();
  } catch {
    return { ok: false, problem: "The upload was cut short or is not a form. Send it again." };
  }
  const files: TextFile[] = [];
  const said: Problem[] = [];
  for (const entry of form.getAll("files")) {
    if (typeof entry === "string" || entry.name === "") continue;
    const bytes = new Uint8Array(await entry.arrayBuffer());
    if (/\.xlsx$/i.test(entry.name)) {
      const book = await readWorkbook(entry.name, bytes);
      if (!book.ok) return book;
      files.push(...book.files);
      continue;
    }
    const read = decoded(bytes);
    if (read === null) return { ok: false, problem: `${entry.name}: the file is not text. Nothing was stored.` };
    files.push({ name: entry.name, text: read.text });
    if (read.as !== "UTF-8")
      said.push({ file: entry.name, message: `read as ${read.as}: look at names with letters such as ä or é` });
  }
  const text = (name: string) => {
    const value = form.get(name);
    return typeof value === "string" ? value : undefined;
  };
  const register = stageRegister(file, files, now_ms);
  return {
    ok: true,
    actId: form.get("actId"),
    pin: text("pin"),
    seen: text("seen"),
    on: text("on"),
    register: register.ok
      ? { ...register, value: { ...register.value, warnings: [...said, ...register.value.warnings] } }
      : register,
  };
}

/** Text by its mark or as UTF-8; what is neither, and holds no character that text never holds, as Windows-1252. Null where it is no text. */
function decoded(bytes: Uint8Array): Readonly<{ text: string; as: string }> | null {
  const marks: readonly [readonly number[], string][] = [
    [[0xff, 0xfe], "utf-16le"],
    [[0xfe, 0xff], "utf-16be"],
  ];
  const marked = marks.find(([mark]) => mark.every((byte, i) => bytes[i] === byte));
  const attempt = (encoding: string): string | null => {
    try {
      return new TextDecoder(encoding, { fatal: true }).decode(bytes);
    } catch {
      return null;
    }
  };
  if (marked) {
    const text = attempt(marked[1]);
    return text === null ? null : { text, as: marked[1].toUpperCase() };
  }
  const utf8 = attempt("utf-8");
  if (utf8 !== null) return { text: utf8, as: "UTF-8" };
  const text = bytes.some((byte) => byte < 9 || (byte > 13 && byte < 32) || byte === 127)
    ? null
    : attempt("windows-1252");
  return text === null ? null : { text, as: "Windows-1252" };
}
