import { Text } from "@mantine/core";
import { useOutbox } from "../../api/outbox/useOutbox";
import { Page } from "../../parts/Page";
import { WaitingList } from "../../parts/WaitingList";

/** Everything recorded here that the server does not have: in the order it is sent in, and what can be done with it. */
export function WaitingPlace() {
  const waiting = useOutbox();
  return (
    <Page title="Waiting to be sent">
      <Text size="lg" mt="md" maw={640}>
        {!waiting.read
          ? "Looking at what waits."
          : waiting.list.length === 0
            ? "Nothing waits. Everything recorded here is at the server."
            : waiting.forgetful
              ? "This browser keeps nothing: leave this page open until all of it is sent."
              : "Saved on this device for you, through a reload, a closed tab and signing out. It is sent by itself, in this order, when there is a line."}
      </Text>
      <WaitingList waiting={waiting} whole />
    </Page>
  );
}
