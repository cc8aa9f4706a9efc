import { Button, Group, Modal, Text } from "@mantine/core";

/** Something waits to be sent: signing out is asked first. */
export default function SignOutAsked(props: {
  waits: number;
  name: string;
  onSignOut: () => void;
  onStay: () => void;
}) {
  return (
    <Modal opened onClose={props.onStay} title={`${props.waits} waiting to be sent`}>
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
