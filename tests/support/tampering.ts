import type Database from "better-sqlite3";

/** As somebody with the database file and no respect: the triggers that guard it are put back afterwards. */
export function withoutTriggers(client: Database.Database, sql: string): void {
  const triggers = client.prepare("SELECT name, sql FROM main.sqlite_master WHERE type = 'trigger'").all() as {
    name: string;
    sql: string;
  }[];
  for (const { name } of triggers) client.exec(`DROP TRIGGER main."${name}"`);
  client.exec(sql);
  for (const one of triggers) client.exec(one.sql);
}
