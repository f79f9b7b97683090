// The commands, what each takes, and what is wrong with what was given. Checked before anything is installed.

const none = (given) => (given.length > 0 ? `nothing is given after it, and there is ${given.join(" ")}` : null);
const never = () => false;
const always = () => true;

/** `--cert FILE --key FILE`, both or neither. */
const perhapsCertificate = (given, { exists }) => {
  if (given.length === 0) return null;
  const at = (flag) => given[given.indexOf(flag) + 1];
  const isBoth = given.length === 4 && given.includes("--cert") && given.includes("--key");
  if (!isBoth) return "--cert FILE --key FILE are given together, or nothing";
  const missing = [at("--cert"), at("--key")].find((path) => !exists(path));
  return missing === undefined ? null : `there is no file ${missing}`;
};

const files = (least, most, words) => ({
  isPath: always,
  check: (given, { exists }) => {
    if (given.length < least || given.length > most) return words;
    const missing = given.find((path) => !exists(path));
    return missing === undefined ? null : `there is no file ${missing}`;
  },
});

const oneFileOut = {
  isPath: always,
  check: (given) => (given.length > 1 ? "at most one file is given" : null),
};

export const COMMANDS = {
  demo: {
    use: "./lantern demo",
    words: "the demo plant and its day of work, made afresh each time; prints the address and how to sign in",
    check: none,
    isPath: never,
  },
  start: {
    use: "./lantern start [--cert FILE --key FILE]",
    words:
      "your own site's data: LANTERN_DATA, or ./data in this folder. The first start makes one account and prints it. " +
      "PORT and LANTERN_HOST say where it listens; with a certificate and its key it speaks HTTPS",
    check: perhapsCertificate,
    isPath: (index, given) => !given[index].startsWith("--"),
  },
  test: {
    use: "./lantern test",
    words: "everything that must pass; ends with N passed, N failed",
    check: none,
    isPath: never,
  },
  trace: {
    use: "./lantern trace plant.json job.json   (or items.csv links.csv job.json)",
    words: "every energy that reaches the work locations, as JSON",
    ...files(2, 4, "a plant file (or items.csv and links.csv, perhaps areas.csv) and a job file are given"),
  },
  plan: {
    use: "./lantern plan plant.json job.json",
    words: "the isolation points, as JSON",
    ...files(2, 4, "a plant file (or items.csv and links.csv, perhaps areas.csv) and a job file are given"),
  },
  check: {
    use: "./lantern check plant.json job.json",
    words: "what a set that someone else chose really does, as JSON",
    ...files(2, 4, "a plant file (or items.csv and links.csv, perhaps areas.csv) and a job file are given"),
  },
  calc: {
    use: "./lantern calc NAME '{…}'",
    words: "one calculator: JSON in, as an argument or on standard input, JSON out",
    isPath: never,
    check: (given) =>
      given.length < 1 || given.length > 2 ? "a calculator's name is given, then perhaps its inputs" : null,
  },
  person: {
    use: "./lantern person NAME SIGN-IN ROLES [COMPETENCES]",
    words: "adds a person; password and PIN are printed once. Lists with commas",
    isPath: never,
    check: (given) =>
      given.length < 3 || given.length > 4 ? "name, sign-in and roles are given, then perhaps competences" : null,
  },
  unlock: {
    use: "./lantern unlock SIGN-IN",
    words: "forgives somebody's wrong passwords and PINs; a coordinator does it on the People page",
    isPath: never,
    check: (given) => (given.length === 1 ? null : "one sign-in name is given"),
  },
  secrets: {
    use: "./lantern secrets SIGN-IN",
    words: "makes somebody's password and PIN anew and prints them once; with a new key where the site's was lost",
    isPath: never,
    check: (given) => (given.length === 1 ? null : "one sign-in name is given"),
  },
  instrument: {
    use: "./lantern instrument ID gas|gauge|blower [GASES]",
    words: "enters a detector, gauge or blower that sends by itself; its token is printed once",
    isPath: never,
    check: ([, kind, ...more]) =>
      kind === "gas" || ((kind === "gauge" || kind === "blower") && more.length === 0)
        ? null
        : "an id is given, then gas (and gases by name), gauge or blower",
  },
  instruments: {
    use: "./lantern instruments SCENARIO",
    words: "plays a simulated instrument to a running server",
    isPath: never,
    check: () => null,
  },
  import: {
    use: "./lantern import SIGN-IN FILE…",
    words: "a plant register in, signed with LANTERN_PIN",
    isPath: (index) => index > 0,
    check: ([signIn, ...paths], { exists }) => {
      if (!signIn || paths.length === 0) return "a sign-in name and the register's files are given";
      const missing = paths.find((path) => !exists(path));
      return missing === undefined ? null : `there is no file ${missing}`;
    },
  },
  export: {
    use: "./lantern export [FILE]",
    words: "the plant register out, to standard output or a file",
    ...oneFileOut,
  },
  backup: { use: "./lantern backup [FILE]", words: "a copy of the database, beside it or in a file", ...oneFileOut },
  verify: {
    use: "./lantern verify",
    words: "checks the record: ledger, state, pictures, registers and tables; names what was changed",
    check: none,
    isPath: never,
  },
  recover: {
    use: "./lantern recover FILE",
    words: "goes on from a backup, which is verified first; what was there is kept beside it. Not while a server runs",
    ...files(1, 1, "a backup's file is given"),
  },
};

const WIDTH = Math.max(...Object.values(COMMANDS).map(({ use }) => use.split("   ")[0].length)) + 3;

export const HELP = `Heavy Lantern

${Object.values(COMMANDS)
  .map(({ use, words }) => `  ${use.split("   ")[0].padEnd(WIDTH)}${words.split(/\. |; /)[0]}`)
  .join("\n")}
  ${"./lantern COMMAND --help".padEnd(WIDTH)}more of one of them
  ${"./lantern --version".padEnd(WIDTH)}which this is
`;

export const helpOf = (command) => `${COMMANDS[command].use}\n\n  ${COMMANDS[command].words}.\n`;
