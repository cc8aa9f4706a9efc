import { Button } from "@mantine/core";
import { useState } from "react";
import { useNavigate } from "react-router";
import { useWaits } from "../../api/outbox/useOutbox";
import { useSession, useSignOut } from "../../api/session";
import { SignOutAsked } from "./SignOutAsked";

/** Of this device; with something waiting to be sent it is asked first. */
export function SignOut() {
  const session = useSession().data;
  const signOut = useSignOut();
  const waits = useWaits();
  const [asking, ask] = useState(false);
  const navigate = useNavigate();
  const go = () =>
    void signOut.mutateAsync().then(
      () => navigate("/today"),
      () => {},
    );
  return (
    <>
      <Button variant="default" loading={signOut.isPending} onClick={() => (waits() > 0 ? ask(true) : go())}>
        {signOut.isError ? "Still signed in, try again" : "Sign out"}
      </Button>
      {asking && (
        <SignOutAsked
          name={session?.name ?? "you"}
          onSignOut={() => {
            ask(false);
            go();
          }}
          onStay={() => ask(false)}
        />
      )}
    </>
  );
}
