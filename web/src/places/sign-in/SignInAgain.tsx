import { Modal, Text } from "@mantine/core";
import { SignInForm } from "./SignInForm";

const stay = () => {};

/** Over whatever is open, which stays as it is underneath. */
export function SignInAgain() {
  return (
    <Modal
      opened
      onClose={stay}
      withCloseButton={false}
      closeOnEscape={false}
      closeOnClickOutside={false}
      title="Sign in again"
    >
      <Text mb="md">
        You are signed out. What you typed is still here: sign in to go on, and send it again.
      </Text>
      <SignInForm />
    </Modal>
  );
}
