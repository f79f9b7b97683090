import { statSync } from "node:fs";
import { readShiftHours } from "../../core/schedule/shifts";

type Environment = Readonly<Record<string, string | undefined>>;

/** Minutes without anything asked after which a session ends; a shift in the field with the phone in a pocket is shorter. */
export const IDLE_MINUTES = 240;

/**
 * What is wrong with how this server is set up, each with the setting's name, what it says and how to write it. Asked before
 * anything is opened: a zone that nobody knows would put every time on every permit in doubt.
 */
export function settingFaults(env: Environment, isFolder = folderThere): string[] {
  const faults: string[] = [];
  const set = (name: string) => {
    const value = env[name]?.trim();
    return value === "" ? undefined : value;
  };
  const wrong = (name: string, how: string) => faults.push(`${name} is “${env[name]}”: ${how}`);
  const zone = set("LANTERN_TIME_ZONE");
  if (zone !== undefined && !isZone(zone)) wrong("LANTERN_TIME_ZONE", "write a zone by its name, as in Europe/Lisbon");
  const hours = set("LANTERN_SHIFT_HOURS");
  if (hours !== undefined && readShiftHours(hours) === null)
    wrong("LANTERN_SHIFT_HOURS", "write whole hours from 0 to 23, as in 6,14,22");
  const port = set("PORT");
  if (port !== undefined && !(/^\d{1,5}$/.test(port) && Number(port) >= 1 && Number(port) <= 65_535))
    wrong("PORT", "write a number from 1 to 65535, as in 4180");
  const url = set("LANTERN_URL");
  if (url !== undefined && !isOrigin(url))
    wrong("LANTERN_URL", "write the site's address without a path, as in https://lantern.example");
  const minutes = set("LANTERN_IDLE_MINUTES");
  if (minutes !== undefined && !(/^\d{1,3}$/.test(minutes) && Number(minutes) >= 5 && Number(minutes) <= 840))
    wrong("LANTERN_IDLE_MINUTES", `write whole minutes from 5 to 840, as in ${IDLE_MINUTES}`);
  for (const name of ["LANTERN_HEADS", "LANTERN_BACKUPS"]) {
    const folder = set(name);
    if (folder !== undefined && !isFolder(folder)) wrong(name, "there is no such folder; make it, or mount its disk");
  }
  if ((set("LANTERN_CERT") === undefined) !== (set("LANTERN_KEY") === undefined))
    faults.push("LANTERN_CERT and LANTERN_KEY go together: a certificate and its key, or neither");
  return faults;
}

function isZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat("en-GB", { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}

function isOrigin(text: string): boolean {
  try {
    const url = new URL(text);
    return ["http:", "https:"].includes(url.protocol) && [url.origin, `${url.origin}/`].includes(text);
  } catch {
    return false;
  }
}

function folderThere(path: string): boolean {
  try {
    return statSync(/*turbopackIgnore: true*/ path).isDirectory();
  } catch {
    return false;
  }
}
