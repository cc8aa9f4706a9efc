import { Modal, TextInput } from "@mantine/core";
import { useQueries } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { lastPoints } from "../api/lastPoints";
import { siteAsked, useProofs, useSearch, useSitesInUse, useTesters } from "../api/queries";
import classes from "./Find.module.css";
import { beside, matching, named } from "./find";
import { useSettled } from "./useSettled";

/** Finds whatever has a name, the points last measured first: Enter opens the first. Without a line, what was seen here. */
export default function Find({ onClose }: { onClose: () => void }) {
  const [typed, type] = useState("");
  const navigate = useNavigate();
  const sites = useQueries({ queries: (useSitesInUse().data ?? []).map((site) => siteAsked(site.id)) });
  const testers = useTesters().data ?? [];
  const proofs = useProofs().data?.proofs ?? [];
  const all = named(
    sites.flatMap((site) => (site.data ? [site.data] : [])),
    testers,
    proofs,
  );
  const here = matching(all, typed, lastPoints());
  const onRecord = useSearch(useSettled(typed.trim())).data ?? [];
  const found = typed.trim() === "" ? here : beside(here, onRecord);
  const isSought = typed.trim() !== "";
  const open = (to: string) => {
    onClose();
    navigate(to);
  };
  return (
    <Modal opened onClose={onClose} title="Find" centered={false}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (found[0]) open(found[0].to);
        }}
      >
        <TextInput
          label="A place, tester, person, lock number or day"
          value={typed}
          onChange={(event) => type(event.currentTarget.value)}
          data-autofocus
        />
      </form>
      {!isSought && found.length > 0 && <p className="quiet">Last measured</p>}
      <ul className={classes.found} aria-label={isSought ? "Found" : "Last measured"}>
        {found.map(({ to, name, what }) => (
          <li key={to}>
            <Link to={to} onClick={onClose}>
              <strong>{name}</strong>
              <span className="quiet">{what}</span>
            </Link>
          </li>
        ))}
      </ul>
      {isSought && found.length === 0 && <p role="status">Nothing has that name.</p>}
    </Modal>
  );
}
