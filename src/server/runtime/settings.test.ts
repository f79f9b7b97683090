import { settingFaults } from "./settings";

const here = () => true;

test("a server set up rightly, or not at all, has no fault", () => {
  const right = {
    LANTERN_TIME_ZONE: "Europe/Lisbon",
    LANTERN_SHIFT_HOURS: "7,19",
    PORT: "443",
    LANTERN_URL: "https://lantern.example",
    LANTERN_IDLE_MINUTES: "60",
    LANTERN_HEADS: "/mnt/heads",
    LANTERN_BACKUPS: "/mnt/backups",
    LANTERN_CERT: "site.crt",
    LANTERN_KEY: "site.key",
  };
  expect(settingFaults(right, here)).toEqual([]);
  expect(settingFaults({}, here)).toEqual([]);
  expect(settingFaults(Object.fromEntries(Object.keys(right).map((name) => [name, " "])), here)).toEqual([]);
});

test.each([
  ["LANTERN_TIME_ZONE", "Lisbon time"],
  ["LANTERN_TIME_ZONE", "Europe/Lisbonn"],
  ["LANTERN_SHIFT_HOURS", "6-14-22"],
  ["PORT", "0"],
  ["PORT", "65536"],
  ["PORT", "http"],
  ["LANTERN_URL", "lantern.example"],
  ["LANTERN_URL", "https://lantern.example/mill"],
  ["LANTERN_URL", "ftp://lantern.example"],
  ["LANTERN_IDLE_MINUTES", "4"],
  ["LANTERN_IDLE_MINUTES", "never"],
])("%s as %s is said by its name, with what it says and how to write it", (name, value) => {
  const [fault, ...more] = settingFaults({ [name]: value }, here);
  expect(more).toEqual([]);
  expect(fault).toMatch(new RegExp(`^${name} is “${value}”: write .+, as in .+$`));
});

test("a folder that is not there, and a certificate without its key, are said", () => {
  expect(settingFaults({ LANTERN_BACKUPS: "/not/there" }, () => false)).toEqual([
    "LANTERN_BACKUPS is “/not/there”: there is no such folder; make it, or mount its disk",
  ]);
  expect(settingFaults({ LANTERN_KEY: "site.key" }, here)).toHaveLength(1);
  expect(settingFaults({ LANTERN_CERT: "site.crt" }, here)).toHaveLength(1);
});
