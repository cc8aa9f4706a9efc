import {
  IconClipboardCheck,
  IconClipboardText,
  IconDots,
  IconListCheck,
  IconLockBolt,
  IconMapPin,
  IconOmega,
  IconPlug,
  IconPlugConnected,
  IconSchool,
  IconSearch,
  IconTargetArrow,
  IconTool,
} from "@tabler/icons-react";
import { type ReactNode, Suspense, useEffect, useRef } from "react";
import { NavLink, useLocation } from "react-router";
import { lastPoints } from "../api/lastPoints";
import { useCase } from "../api/practice";
import { CASE } from "../api/sandbox";
import { Account } from "./Account";
import { LineBar } from "./LineBar";
import { late, loadAhead } from "./late";
import { NewVersion } from "./NewVersion";
import { PlainPage } from "./PlainPage";
import { PracticeBand } from "./PracticeBand";
import { ProofWatch } from "./ProofWatch";
import { forAGuest, inACase, onTheRail, type Place } from "./rail";
import classes from "./Shell.module.css";
import { Unloadable } from "./Unloadable";
import { useArrival } from "./useArrival";
import { useEverywhereKeys } from "./useEverywhereKeys";
import { useLightOnPaper } from "./useLightOnPaper";
import { useSetting } from "./useSetting";

const WHEN_IDLE_MS = 3_000;
const Find = late(() => import("./Find"));
const KeysEverywhere = late(() => import("./KeysEverywhere"));

const ICONS: Record<Place["id"], typeof IconTool> = {
  today: IconListCheck,
  sites: IconMapPin,
  "prove-dead": IconLockBolt,
  "dead-tests": IconOmega,
  bench: IconPlugConnected,
  hunts: IconTargetArrow,
  rounds: IconClipboardCheck,
  "plug-in": IconPlug,
  record: IconClipboardText,
  kit: IconTool,
  practice: IconSchool,
};

/** The rail of places in the order of the work, and whatever place is open. `guest`: the one site somebody reads. */
export function Shell({ children, guest }: { children: ReactNode; guest: string | null }) {
  const { pathname } = useLocation();
  const bench = pathname.match(/^\/bench\/(.+)/)?.[1] ?? lastPoints()[0] ?? null;
  const here = useCase().data;
  const places = guest ? forAGuest(guest) : here ? inACase(here) : onTheRail(pathname, bench);
  const main = useArrival();
  const [asked, ask] = useEverywhereKeys(guest === null && CASE === null);
  const [big] = useSetting("big");
  useLightOnPaper();
  useEffect(() => {
    const timer = setTimeout(loadAhead, WHEN_IDLE_MS);
    return () => clearTimeout(timer);
  }, []);
  const menu = useRef<HTMLDetailsElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the menu closes wherever one goes
  useEffect(() => menu.current?.removeAttribute("open"), [pathname]);
  const find = !guest && (
    <button type="button" className={classes.place} onClick={() => ask("find")} aria-keyshortcuts="/">
      <IconSearch size={22} aria-hidden />
      Find
    </button>
  );
  return (
    <div className={classes.shell} data-big={big || undefined}>
      <a href="#place" className={classes.skip}>
        Skip to the work
      </a>
      <nav className={classes.rail} aria-label="Places">
        <div className={classes.name}>
          Even
          <br />
          Probe
        </div>
        {places.map((place) => (
          <ToPlace key={place.id} place={place} />
        ))}
        {CASE === null && (
          <details ref={menu} className={classes.more}>
            <summary className={classes.place}>
              <IconDots size={22} aria-hidden />
              More
            </summary>
            <div className={classes.menu}>
              {places
                .filter((place) => place.folded)
                .map((place) => (
                  <ToPlace key={place.id} place={{ ...place, folded: false }} />
                ))}
              {find}
              <Account className={classes.place} />
            </div>
          </details>
        )}
        {CASE === null && (
          <div className={classes.foot}>
            {find}
            <Account className={classes.place} />
          </div>
        )}
      </nav>
      <main id="place" ref={main} className={classes.main} tabIndex={-1}>
        {CASE !== null && <PracticeBand />}
        <LineBar />
        {!guest && <ProofWatch />}
        <NewVersion />
        <PlainPage />
        {children}
      </main>
      <Unloadable key={asked} over>
        <Suspense>
          {asked === "find" && <Find onClose={() => ask(null)} />}
          {asked === "keys" && <KeysEverywhere onClose={() => ask(null)} />}
        </Suspense>
      </Unloadable>
    </div>
  );
}

function ToPlace({ place }: { place: Place }) {
  const Icon = ICONS[place.id];
  return (
    <NavLink to={place.to} className={classes.place} data-folded={place.folded || undefined}>
      <Icon size={22} aria-hidden />
      {place.name}
    </NavLink>
  );
}
