import { Button, Group, TextInput } from "@mantine/core";
import { useState } from "react";
import client, { answer, type OneTimeLink } from "../../api/client";
import { PEOPLE } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { TwoTapButton } from "../../parts/TwoTapButton";
import { Unplaced } from "../../parts/Unplaced";
import { dayAndTimeOf } from "../../reading/dates";
import classes from "./People.module.css";

/** A link that nobody used yet: to copy, and to withdraw. */
export function LinkCard({ link }: { link: OneTimeLink }) {
  const [copied, setCopied] = useState(false);
  const withdraw = useRecord(PEOPLE, () =>
    answer(client.PUT("/api/people/links/{link_id}/withdrawn", { params: { path: { link_id: link.id } } })),
  );
  const address = `${window.location.origin}/join#${link.key}`;
  return (
    <li className={classes.link}>
      <div className={classes.about}>
        <strong>{link.name}</strong>
        <span className="quiet">
          {link.for_password ? "a new password" : `to join as ${link.role}`} · made by {link.made_by}, ends{" "}
          {dayAndTimeOf(link.ends_at)}
        </span>
      </div>
      <TextInput
        aria-label={`Link for ${link.name}`}
        value={address}
        readOnly
        onFocus={(event) => event.currentTarget.select()}
      />
      <Group>
        <Button
          variant="default"
          onClick={() => void navigator.clipboard?.writeText(address).then(() => setCopied(true))}
        >
          {copied ? "Copied" : "Copy"}
        </Button>
        <TwoTapButton
          asks="Withdraw"
          again="Withdraw it: tap again"
          loading={withdraw.isPending}
          onTapped={() => withdraw.mutate()}
        />
      </Group>
      <Unplaced error={withdraw.error} />
    </li>
  );
}
