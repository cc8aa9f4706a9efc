import { Button } from "@mantine/core";
import { useParams } from "react-router";
import { useLine } from "../../api/line";
import { useDraft } from "../../api/queries";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { dayAndTimeOf } from "../../reading/dates";
import { Report } from "./Report";
import classes from "./Report.module.css";
import { SignForm } from "./SignForm";

const OF: Record<string, string> = { circuit: "circuit", site: "site", visit: "visit" };

/** What is so now of a circuit, a site or a visit, to print or to sign. */
export function DraftPlace() {
  const { what = "", of = "" } = useParams();
  const draft = useDraft(what, of);
  const lineDown = useLine() !== null;
  if (draft.isError && !draft.data) return <Failure error={draft.error} retry={() => draft.refetch()} />;
  const content = draft.data?.content;
  return (
    <Page
      title={content ? content.site : "Report"}
      under={
        content &&
        `Report of a ${OF[what] ?? what}: ${content.of.name}. As it is on ${dayAndTimeOf(content.signed_at, content.practice)}, not signed.`
      }
      back={what === "visit" ? [`/record/visits/${of}`, "Visit"] : ["/record", "Record"]}
      busy={draft.isPending}
      actions={
        content && (
          <>
            <Button component="a" href={`/api/drafts/${what}/${of}/report`} target="_blank" variant="default">
              Open as PDF
            </Button>
            <Button variant="default" onClick={() => window.print()}>
              Print this page
            </Button>
          </>
        )
      }
    >
      {content && (
        <>
          {lineDown ? (
            <p role="alert" className={classes.caution}>
              Signing needs the line: it puts your name to what the server has. What you recorded here first
              has to arrive.
            </p>
          ) : (
            <SignForm what={what} of={of} name={draft.data?.name ?? ""} content={content} />
          )}
          <Report content={content} />
        </>
      )}
    </Page>
  );
}
