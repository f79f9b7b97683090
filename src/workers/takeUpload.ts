import type { TextFile } from "../core/plant/readPlantFiles";
import type { Read } from "../core/plant/problem";
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
  for (const entry of form.getAll("files")) {
    if (typeof entry === "string" || entry.name === "") continue;
    const bytes = new Uint8Array(await entry.arrayBuffer());
    try {
      files.push({ name: entry.name, text: new TextDecoder("utf-8", { fatal: true }).decode(bytes) });
    } catch {
      return { ok: false, problem: `${entry.name}: the file is not text (UTF-8). Nothing was stored.` };
    }
  }
  const text = (name: string) => {
    const value = form.get(name);
    return typeof value === "string" ? value : undefined;
  };
  return {
    ok: true,
    actId: form.get("actId"),
    pin: text("pin"),
    seen: text("seen"),
    on: text("on"),
    register: stageRegister(file, files, now_ms),
  };
}
