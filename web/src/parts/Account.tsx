import { useComputedColorScheme, useMantineColorScheme } from "@mantine/core";
import { IconMoon, IconSun, IconTextSize, IconUser, IconVolume } from "@tabler/icons-react";
import { NavLink } from "react-router";
import { useSetting } from "./useSetting";

/** How it looks and sounds on this device, and who is signed in on it. */
export function Account({ className }: { className?: string }) {
  const { setColorScheme } = useMantineColorScheme();
  const scheme = useComputedColorScheme("light");
  const [big, toggleBig] = useSetting("big");
  const [aloud, toggleAloud] = useSetting("aloud");
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
    </>
  );
}
