import { useComputedColorScheme, useMantineColorScheme } from "@mantine/core";
import { IconLogout, IconMoon, IconSun } from "@tabler/icons-react";
import { useQueryClient } from "@tanstack/react-query";
import client, { answer } from "../api/client";
import { useSession } from "../api/queries";

/** Daylight or dark, and signing out. */
export function Account({ className }: { className?: string }) {
  const queries = useQueryClient();
  const session = useSession().data;
  const { setColorScheme } = useMantineColorScheme();
  const scheme = useComputedColorScheme("light");
  const signOut = async () => {
    await answer(client.DELETE("/api/session"));
    queries.clear();
    queries.setQueryData(["session"], null);
  };
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
        onClick={signOut}
        title={session ? `${session.name}, ${session.crew}` : undefined}
      >
        <IconLogout size={22} aria-hidden />
        Sign out
      </button>
    </>
  );
}
