import { seedSite } from "./seeded";

/** The demo is made once; every server begins on a copy. */
export default function globalSetup(): void {
  seedSite();
}
