import { useComputedColorScheme, useMantineColorScheme } from "@mantine/core";
import { IconLogout, IconMoon, IconSun } from "@tabler/icons-react";
import { lazy, Suspense, useState } from "react";
import { useOutbox } from "../api/outbox/useOutbox";
import { useSession, useSignOut } from "../api/session";

const SignOutAsked = lazy(() => import("./SignOutAsked"));

/** Daylight or dark, and signing out. */
export function Account({ className }: { className?: string }) {
  const session = useSession().data;
  const { setColorScheme } = useMantineColorScheme();
  const scheme = useComputedColorScheme("light");
  const signOut = useSignOut();
  const waits = useOutbox().list.length;
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
      <button
        type="button"
        className={className}
        onClick={() => (waits > 0 ? ask(true) : signOut.mutate())}
        title={session ? `${session.name}, ${session.crew}` : undefined}
      >
        <IconLogout size={22} aria-hidden />
        {signOut.isError ? "Still signed in, try again" : "Sign out"}
      </button>
      {asking && (
        <Suspense>
          <SignOutAsked
            waits={waits}
            name={session?.name ?? "you"}
            onSignOut={() => {
              ask(false);
              signOut.mutate();
            }}
            onStay={() => ask(false)}
          />
        </Suspense>
      )}
    </>
  );
}
