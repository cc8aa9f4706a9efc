import { Button, Text } from "@mantine/core";
import { Link } from "react-router";
import { useLine } from "../../api/line";
import { KINDS } from "../../api/outbox/kinds";
import { useOutbox, type Waiting } from "../../api/outbox/useOutbox";
import { Page } from "../../parts/Page";
import { dayAndTimeOf } from "../../reading/dates";
import classes from "./Waiting.module.css";

/** Everything recorded here that the server does not have: in the order it is sent in, and what can be done with it. */
export function WaitingPlace() {
  const { list, outbox, sending, forgetful } = useOutbox();
  const lineDown = useLine() !== null;
  return (
    <Page title="Waiting to be sent">
      {list.length === 0 ? (
        <Text size="lg" mt="lg">
          Nothing waits. Everything recorded here is at the server.
        </Text>
      ) : (
        <p className={classes.how}>
          {forgetful
            ? "This browser keeps nothing: leave this page open until all of it is sent."
            : "Saved on this device for you. It outlives a reload, a closed tab and signing out."}{" "}
          {lineDown
            ? "It is sent as soon as there is a line, in this order."
            : sending && "It is being sent."}
        </p>
      )}
      <ol className={classes.list}>
        {list.map((one) => (
          <One key={one.id} one={one} onAgain={outbox.again} onDrop={outbox.drop} />
        ))}
      </ol>
    </Page>
  );
}

function One(props: { one: Waiting; onAgain: (id: string) => void; onDrop: (id: string) => void }) {
  const { one } = props;
  return (
    <li data-refused={one.problem ? true : undefined}>
      <div>
        <Link to={KINDS[one.kind].place(one)}>{one.said}</Link>
        <span className="quiet">
          {one.where}, recorded {dayAndTimeOf(one.at)}
          {one.problem === "" && ", waits"}
        </span>
        {one.problem && <strong role="alert">Not recorded at the server: {one.problem}</strong>}
      </div>
      {one.problem && (
        <span className={classes.acts}>
          <Button variant="default" onClick={() => props.onAgain(one.id)}>
            Send again
          </Button>
          <Button variant="subtle" onClick={() => props.onDrop(one.id)}>
            Drop
          </Button>
        </span>
      )}
    </li>
  );
}
