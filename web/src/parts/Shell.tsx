import { useComputedColorScheme, useMantineColorScheme } from "@mantine/core";
import { IconLogout, IconMapPin, IconMoon, IconPlugConnected, IconSun } from "@tabler/icons-react";
import { useQueryClient } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { NavLink, useLocation } from "react-router";
import client, { answer, type Session } from "../api/client";
import { lastBench } from "../places/bench/lastBench";
import classes from "./Shell.module.css";

/** The rail of places, and whatever place is open. */
export function Shell({ session, children }: { session: Session; children: ReactNode }) {
  const queries = useQueryClient();
  const { setColorScheme } = useMantineColorScheme();
  const scheme = useComputedColorScheme("light");
  const bench = useLocation().pathname.match(/^\/bench\/(.+)/)?.[1] ?? lastBench();

  const signOut = async () => {
    await answer(client.DELETE("/api/session"));
    queries.clear();
    queries.setQueryData(["session"], null);
  };

  return (
    <div className={classes.shell}>
      <nav className={classes.rail} aria-label="Places">
        <div className={classes.name}>
          Even
          <br />
          Probe
        </div>
        <NavLink to="/sites" className={classes.place}>
          <IconMapPin size={22} aria-hidden />
          Site
        </NavLink>
        {bench && (
          <NavLink to={`/bench/${bench}`} className={classes.place}>
            <IconPlugConnected size={22} aria-hidden />
            Bench
          </NavLink>
        )}
        <div className={classes.foot}>
          <button
            type="button"
            className={classes.place}
            onClick={() => setColorScheme(scheme === "dark" ? "light" : "dark")}
          >
            {scheme === "dark" ? <IconSun size={22} aria-hidden /> : <IconMoon size={22} aria-hidden />}
            {scheme === "dark" ? "Daylight" : "Dark"}
          </button>
          <button
            type="button"
            className={classes.place}
            onClick={signOut}
            title={`${session.name}, ${session.crew}`}
          >
            <IconLogout size={22} aria-hidden />
            Sign out
          </button>
        </div>
      </nav>
      <main className={classes.main}>{children}</main>
    </div>
  );
}
