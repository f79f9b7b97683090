import type { Metadata } from "next";
import { cookies } from "next/headers";
import type { ReactNode } from "react";
import { signOut } from "./sign-in/actions";
import { chooseUnits } from "./units/actions";
import { stripPermits } from "@/server/job/board";
import { unreadFor } from "@/server/box/removals";
import { currentPerson, isDemo } from "@/server/people/session";
import { drawnAfter } from "@/server/runtime/events";
import { buildId } from "@/server/runtime/build";
import { requestTime_ms, siteTimeZone } from "@/server/runtime/siteTime";
import { KeptBar } from "@/ui/offline/KeptBar";
import { UnreadRemoval } from "@/ui/locks/UnreadRemoval";
import { Keys } from "@/ui/shell/Keys";
import { LiveUpdates } from "@/ui/shell/LiveUpdates";
import { PlacesBar } from "@/ui/shell/PlacesBar";
import { ShiftStrip } from "@/ui/shell/ShiftStrip";
import { UnitSwitch } from "@/ui/shell/UnitSwitch";
import { SignOutButton } from "@/ui/shell/SignOutButton";
import { ThemeSwitch } from "@/ui/shell/ThemeSwitch";
import { TopBar } from "@/ui/shell/TopBar";
import "./globals.css";

export const metadata: Metadata = {
  title: { default: "Heavy Lantern", template: "%s · Heavy Lantern" },
  description: "Finds every energy that reaches a job, computes the lockout points, keeps isolations and permits.",
};
export const dynamic = "force-dynamic";

export default async function Layout({ children }: { children: ReactNode }) {
  const theme = (await cookies()).get("lantern_theme")?.value === "day" ? "day" : "night";
  const person = await currentPerson();
  const unread = person && unreadFor(person.id);
  const isAtBox = person?.crewRound !== undefined;
  const now_ms = requestTime_ms();
  return (
    <html lang="en" data-theme={theme} data-zone={siteTimeZone()}>
      <body className="flex flex-col">
        <a href="#main" className="focus:bg-base-100 sr-only focus:not-sr-only focus:absolute focus:z-20 focus:p-3">
          Skip to the page
        </a>
        {/* A screen that stands at a box for a crew has no other places to go to; alarms it hears like every other. */}
        {isAtBox && <LiveUpdates drawnAfter={drawnAfter()} />}
        {person && !isAtBox && (
          <>
            <TopBar person={person.name} roles={[...person.roles, ...person.competences].join(", ")}>
              <UnitSwitch units={person.units} choose={chooseUnits} />
              <ThemeSwitch theme={theme} />
              <form action={signOut}>
                <SignOutButton />
              </form>
            </TopBar>
            <ShiftStrip {...stripPermits(now_ms)} now_ms={now_ms} timeZone={siteTimeZone()} />
            <LiveUpdates drawnAfter={drawnAfter()} />
            <Keys />
            <KeptBar personId={person.id} build={buildId()} />
          </>
        )}
        <main id="main" className="flex-1">
          {unread ? <UnreadRemoval removal={unread} timeZone={siteTimeZone()} /> : children}
        </main>
        <footer className="no-print px-4 py-4 text-sm opacity-85 max-md:pb-18 md:px-8">
          {isDemo() && "Demo: everybody and everything here is invented. "}A planning and record aid. Local codes,
          licensed people and your own procedures decide.
        </footer>
        {person && !isAtBox && <PlacesBar />}
      </body>
    </html>
  );
}
