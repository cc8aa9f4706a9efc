import { Button, Group, Modal, Text } from "@mantine/core";
import { useOutbox } from "../../api/outbox/useOutbox";

/** Something waits to be sent: signing out is asked first. */
export function SignOutAsked(props: { name: string; onSignOut: () => void; onStay: () => void }) {
  const waits = useOutbox().list.length;
  return (
    <Modal opened onClose={props.onStay} title={`${waits} waiting to be sent`}>
      <Text>
        It stays on this device, and is sent when {props.name} signs in here again. Nobody else can send it.
      </Text>
      <Group mt="md">
        <Button onClick={props.onSignOut}>Sign out</Button>
        <Button variant="default" onClick={props.onStay}>
          Stay signed in
        </Button>
      </Group>
    </Modal>
  );
}
