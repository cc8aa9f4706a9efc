import {
  IconListCheck,
  IconLockBolt,
  IconMapPin,
  IconOmega,
  IconPlugConnected,
  IconTool,
} from "@tabler/icons-react";
import type { ReactNode } from "react";
import { NavLink, useLocation } from "react-router";
import { lastBench } from "../api/lastBench";
import { Account } from "./Account";
import { LineBar } from "./LineBar";
import { ProofWatch } from "./ProofWatch";
import classes from "./Shell.module.css";

const PLACES = [
  ["/today", "Today", IconListCheck],
  ["/kit", "Kit", IconTool],
  ["/sites", "Site", IconMapPin],
  ["/prove-dead", "Prove dead", IconLockBolt],
  ["/dead-tests", "Dead tests", IconOmega],
] as const;

/** The rail of places, and whatever place is open. */
export function Shell({ children }: { children: ReactNode }) {
  const bench = useLocation().pathname.match(/^\/bench\/(.+)/)?.[1] ?? lastBench();
  return (
    <div className={classes.shell}>
      <nav className={classes.rail} aria-label="Places">
        <div className={classes.name}>
          Even
          <br />
          Probe
        </div>
        {PLACES.map(([to, name, Icon]) => (
          <NavLink key={to} to={to} className={classes.place}>
            <Icon size={22} aria-hidden />
            {name}
          </NavLink>
        ))}
        {bench && (
          <NavLink to={`/bench/${bench}`} className={classes.place}>
            <IconPlugConnected size={22} aria-hidden />
            Bench
          </NavLink>
        )}
        <div className={classes.foot}>
          <Account className={classes.place} />
        </div>
      </nav>
      <main className={classes.main}>
        <LineBar />
        <ProofWatch />
        {children}
      </main>
    </div>
  );
}
