import { Button, Group, Modal, Text, useComputedColorScheme, useMantineColorScheme } from "@mantine/core";
import { IconLogout, IconMoon, IconSun } from "@tabler/icons-react";
import { useState } from "react";
import { useOutbox } from "../api/outbox/useOutbox";
import { useSession, useSignOut } from "../api/session";

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
      <Modal opened={asking} onClose={() => ask(false)} title={`${waits} waiting to be sent`}>
        <Text>
          It stays on this device, and is sent when {session?.name ?? "you"} signs in here again. Nobody else
          can send it.
        </Text>
        <Group mt="md">
          <Button
            onClick={() => {
              ask(false);
              signOut.mutate();
            }}
          >
            Sign out
          </Button>
          <Button variant="default" onClick={() => ask(false)}>
            Stay signed in
          </Button>
        </Group>
      </Modal>
    </>
  );
}
