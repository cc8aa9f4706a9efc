import { Button, Group, Stack } from "@mantine/core";
import { useState } from "react";
import client, { answer, type Member, type People } from "../../api/client";
import { newId } from "../../api/ids";
import { useSites } from "../../api/queries";
import { ONE_TIME_LINK, PEOPLE } from "../../api/records";
import { useRecord } from "../../api/useRecord";
import { TwoTapButton } from "../../parts/TwoTapButton";
import { Unplaced } from "../../parts/Unplaced";
import { useRecordForm } from "../../parts/useRecordForm";
import { dayOf } from "../../reading/dates";
import { sentence } from "../../reading/sentence";
import classes from "./People.module.css";
import { RoleFields, roleOf } from "./RoleFields";

/** Somebody of the crew: what they are, when they were last here, and what a keeper can change. */
export function MemberLine(props: { member: Member; roles: People["roles"]; you: boolean }) {
  const { member, roles, you } = props;
  const [open, setOpen] = useState(false);
  const sites = useSites().data ?? [];
  const site = sites.find(({ id }) => id === member.site)?.name;
  const about = [
    member.role === "guest" ? `guest of ${site ?? "a site"} until ${dayOf(member.until ?? "")}` : member.role,
    `signs in as ${member.username}`,
    member.two_step && "in two steps",
    member.left_at
      ? `left ${dayOf(member.left_at)}`
      : member.seen_at
        ? `last signed in ${dayOf(member.seen_at)}`
        : "never signed in here",
  ].filter(Boolean);
  return (
    <li className={classes.member}>
      <div className={classes.about}>
        <strong>
          {member.name}
          {you && " (you)"}
        </strong>
        <span className="quiet">{sentence(about.join(" · "))}</span>
      </div>
      <Button variant="default" aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? "Close" : `Change ${member.name}`}
      </Button>
      {open && <Change member={member} roles={roles} done={() => setOpen(false)} />}
    </li>
  );
}

function Change({ member, roles, done }: { member: Member; roles: People["roles"]; done: () => void }) {
  const path = { path: { account: member.account } };
  const [linkId] = useState(newId);
  const { form, save, write, placed } = useRecordForm(
    { role: member.role as string, site: member.site ?? "", until: member.until ?? "" },
    PEOPLE,
    (typed) => answer(client.PUT("/api/people/{account}", { params: path, body: roleOf(typed) })),
  );
  const left = useRecord(PEOPLE, (leaves: boolean) =>
    answer(client.PUT("/api/people/{account}/left", { params: path, body: { left: leaves } })),
  );
  const password = useRecord(ONE_TIME_LINK, () =>
    answer(
      client.PUT("/api/people/links/{link_id}", {
        params: { path: { link_id: linkId } },
        body: { account: member.account, name: "", role: member.role, site: null, until: null },
      }),
    ),
  );
  if (member.left_at !== null)
    return (
      <div className={classes.change}>
        <Button variant="default" loading={left.isPending} onClick={() => left.mutate(false)}>
          Bring back into the crew
        </Button>
        <Unplaced error={left.error} />
      </div>
    );
  return (
    <form className={classes.change} onSubmit={form.onSubmit(() => write(undefined, done))}>
      <Stack>
        <RoleFields roles={roles} form={form} />
        <Unplaced error={save.error ?? left.error ?? password.error} placed={placed} />
        <Group>
          <Button type="submit" loading={save.isPending}>
            Keep the role
          </Button>
          <Button
            variant="default"
            loading={password.isPending}
            onClick={() => password.mutate(undefined, { onSuccess: done })}
          >
            Link for a new password
          </Button>
          <TwoTapButton
            asks="They left the crew"
            again="Left, and signed out everywhere: tap again"
            loading={left.isPending}
            onTapped={() => left.mutate(true)}
          />
        </Group>
      </Stack>
    </form>
  );
}
