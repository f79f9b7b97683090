import type { PersonId, Role } from "../people/roles";
import { EVERYWHERE } from "./appointedFor";
import { decideAccount, type Account, type AccountCommand, type AccountFacts } from "./accountLife";

const person = (id: string, roles: Role[], more: Partial<Account> = {}): Account => ({
  id: id as PersonId,
  name: id,
  signIn: id,
  roles,
  competences: [],
  appointed: {},
  firm: "",
  induction: null,
  appointedFor: EVERYWHERE,
  active: true,
  ...more,
});
const ALL = [
  person("maren", ["coordinator"]),
  person("ivo", ["isolator"]),
  person("gone", ["worker"], { active: false }),
];
const facts: AccountFacts = {
  find: (id) => ALL.find((one) => one.id === id),
  isTaken: (signIn) => ALL.some((one) => one.signIn === signIn),
  otherCoordinators: (id) => ALL.filter((one) => one.id !== id && one.roles.includes("coordinator")).length,
  ties: () => [],
};
const by = (id: string) => ({ by: id as PersonId, now_ms: 1_800_000_000_000 });
const said = (command: AccountCommand, more: Partial<AccountFacts> = {}) => {
  const decided = decideAccount(command, { ...facts, ...more });
  return decided.ok ? decided.value : decided.refusal.code;
};

test("nobody changes, lets in or bars themselves", () => {
  const own = { ...by("maren"), person: "maren" };
  const change = {
    type: "change",
    roles: ["coordinator", "approver"],
    competences: [],
    until: {},
    firm: "",
    inductedUntil_ms: null,
    appointedFor: EVERYWHERE,
  } as const;
  for (const command of [
    { ...own, ...change },
    { ...own, type: "leave" },
    { ...own, type: "come back" },
    { ...own, type: "new secrets" },
    { ...own, type: "let in" },
  ] as AccountCommand[]) {
    expect(said(command)).toBe("own account");
  }
});

test("somebody who may coordinate always stays", () => {
  const roles = {
    ...by("ivo"),
    type: "change",
    person: "maren",
    roles: ["issuer"],
    competences: [],
    until: {},
    firm: "",
    inductedUntil_ms: null,
    appointedFor: EVERYWHERE,
  } as const;
  expect(said(roles)).toBe("last coordinator");
  expect(said({ ...by("ivo"), type: "leave", person: "maren" })).toBe("last coordinator");
  expect(said(roles, { otherCoordinators: () => 1 })).toMatchObject({ roles: ["issuer"] });
});

test("nobody leaves with a lock hanging, on a permit, on a post or inside", () => {
  const leave = { ...by("maren"), type: "leave", person: "ivo" } as const;
  expect(said(leave, { ties: () => ["lock L-1 on box B-0001"] })).toBe("still on site");
  expect(said(leave)).toMatchObject({ active: false, roles: ["isolator"] });
  expect(said({ ...leave, person: "gone" })).toBe("already done");
  expect(said({ ...by("maren"), type: "come back", person: "gone" })).toMatchObject({ active: true });
});

test("a sign-in name is one person's; who is unknown is told so", () => {
  expect(said({ ...by("maren"), type: "enter", until: {}, inductedUntil_ms: null, account: person("ivo", []) })).toBe(
    "sign-in taken",
  );
  expect(
    said({ ...by("maren"), type: "enter", until: {}, inductedUntil_ms: null, account: person("new", ["worker"]) }),
  ).toMatchObject({
    name: "new",
  });
  expect(said({ ...by("maren"), type: "let in", person: "nobody" })).toBe("unknown");
});
