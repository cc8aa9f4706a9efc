import { Button, FileButton, Modal, NativeSelect, Text, TextInput } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import client, { answer, type SiteIn, type SiteLine } from "../../api/client";
import { newId } from "../../api/ids";
import { useReference, useSites } from "../../api/queries";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { VerdictShape, WORDS } from "../../parts/VerdictShape";
import { Retired } from "./Retire";
import classes from "./Site.module.css";
import { SiteForm } from "./SiteForm";
import { useBringIn } from "./surveyFile";

export function Sites() {
  const sites = useSites();
  const [adding, add] = useDisclosure();
  const navigate = useNavigate();
  const [siteId, setSiteId] = useState(() => newId());
  const bringIn = useBringIn((id) => navigate(`/sites/${id}`));
  if (sites.isError && !sites.data) return <Failure error={sites.error} retry={() => sites.refetch()} />;
  return (
    <Page
      title="Sites"
      actions={
        <>
          <FileButton
            accept="application/json"
            onChange={(file) => {
              if (file) {
                bringIn.mutate({ siteId, file });
                setSiteId(newId());
              }
            }}
          >
            {(props) => (
              <Button {...props} variant="default" loading={bringIn.isPending}>
                Import a survey file
              </Button>
            )}
          </FileButton>
          <Button onClick={add.open}>Add a site</Button>
        </>
      }
    >
      {bringIn.error && (
        <pre className={classes.problems} role="alert">
          {`The file was not brought in, nothing was changed:\n${bringIn.error.message}`}
        </pre>
      )}
      {sites.data?.length === 0 && (
        <Text size="lg" mt="lg">
          A site holds its supplies, boards, circuits and the points you measure. Add your first one.
        </Text>
      )}
      <ul className={classes.cards}>
        {sites.data?.filter(inUse).map((site) => (
          <li key={site.id}>
            <Link to={`/sites/${site.id}`} className={classes.card}>
              <span className={classes.cardName}>{site.name}</span>
              <Verdicts verdicts={site.verdicts} />
            </Link>
          </li>
        ))}
      </ul>
      <Retired
        list={(sites.data ?? [])
          .filter((site) => site.retired)
          .map(({ id, name }) => ({ what: "site", id, name, under: "" }))}
      />
      <Modal opened={adding} onClose={add.close} title="Add a site">
        <AddSite done={(id) => navigate(`/sites/${id}`)} />
      </Modal>
    </Page>
  );
}

const inUse = (site: SiteLine) => !site.retired && (!site.loose || site.verdicts.length > 0);

/** How many points wear each verdict, the worst first. */
function Verdicts({ verdicts }: { verdicts: string[] }) {
  if (verdicts.length === 0) return <span className="quiet">No points yet</span>;
  return (
    <span className={classes.verdicts}>
      {Object.keys(WORDS)
        .reverse()
        .filter((verdict) => verdicts.includes(verdict))
        .map((verdict) => (
          <span key={verdict} className={classes.verdict}>
            <VerdictShape kind={verdict} size={18} />
            {verdicts.filter((v) => v === verdict).length} {WORDS[verdict]?.toLowerCase()}
          </span>
        ))}
    </span>
  );
}

function AddSite({ done }: { done: (id: string) => void }) {
  const reference = useReference();
  const [id] = useState(() => newId());
  return (
    <SiteForm
      empty={{ name: "", practice: "north-america" }}
      done={(site) => done(site.id)}
      action="Add the site"
      write={({ name, practice }) =>
        answer(
          client.PUT("/api/sites/{site_id}", {
            params: { path: { site_id: id } },
            body: { name, practice: practice as SiteIn["practice"] },
          }),
        )
      }
    >
      {(field) => (
        <>
          <TextInput label="Name" required data-autofocus {...field("name")} />
          <NativeSelect
            label="Practice"
            description="Sets the words, the limits and their sources"
            data={reference.data?.practices.map((p) => ({ value: p.id, label: p.name })) ?? []}
            {...field("practice")}
          />
        </>
      )}
    </SiteForm>
  );
}
