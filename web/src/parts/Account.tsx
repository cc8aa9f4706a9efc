import { useComputedColorScheme, useMantineColorScheme } from "@mantine/core";
import { IconLogout, IconMoon, IconSun, IconTextSize, IconUser, IconVolume } from "@tabler/icons-react";
import { Suspense, useState } from "react";
import { NavLink } from "react-router";
import { useWaits } from "../api/outbox/useOutbox";
import { useSession, useSignOut } from "../api/session";
import { late } from "./late";
import { Unloadable } from "./Unloadable";
import { useSetting } from "./useSetting";

const SignOutAsked = late(() => import("./SignOutAsked"));

/** How it looks and sounds on this device, and signing out. */
export function Account({ className }: { className?: string }) {
  const session = useSession().data;
  const { setColorScheme } = useMantineColorScheme();
  const scheme = useComputedColorScheme("light");
  const signOut = useSignOut();
  const [big, toggleBig] = useSetting("big");
  const [aloud, toggleAloud] = useSetting("aloud");
  const waits = useWaits();
  const [asking, ask] = useState(false);
  return (
    <>
      <button
        type="button"
        className={className}
        onClick={() => setColorScheme(scheme === "dark" ? "light" : "dark")}
      >
        {scheme === "dark" ? <IconSun size={22} aria-hidden /> : <IconMoon size={22} aria-hidden />}
        {scheme === "dark" ? "Daylight" : "Dark"}
      </button>
      <button type="button" className={className} aria-pressed={big} onClick={toggleBig}>
        <IconTextSize size={22} aria-hidden />
        {big ? "Big: on" : "Big"}
      </button>
      <button type="button" className={className} aria-pressed={aloud} onClick={toggleAloud}>
        <IconVolume size={22} aria-hidden />
        {aloud ? "Aloud: on" : "Aloud"}
      </button>
      <NavLink to="/own" className={className}>
        <IconUser size={22} aria-hidden />
        You
      </NavLink>
      <button
        type="button"
        className={className}
        onClick={() => (waits() > 0 ? ask(true) : signOut.mutate())}
        title={session ? `${session.name}, ${session.crew}` : undefined}
      >
        <IconLogout size={22} aria-hidden />
        {signOut.isError ? "Still signed in, try again" : "Sign out"}
      </button>
      {asking && (
        <Unloadable over>
          <Suspense>
            <SignOutAsked
              name={session?.name ?? "you"}
              onSignOut={() => {
                ask(false);
                signOut.mutate();
              }}
              onStay={() => ask(false)}
            />
          </Suspense>
        </Unloadable>
      )}
    </>
  );
}
