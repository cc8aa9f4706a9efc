import { Button } from "@mantine/core";
import { useParams } from "react-router";
import { useSignOff } from "../../api/queries";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { dayAndTimeOf } from "../../reading/dates";
import { Report } from "./Report";
import classes from "./Report.module.css";

/** What was signed, as it was. */
export function SignOffPlace() {
  const { signOffId = "" } = useParams();
  const signed = useSignOff(signOffId);
  if (signed.isError && !signed.data) return <Failure error={signed.error} retry={() => signed.refetch()} />;
  const found = signed.data;
  return (
    <Page
      title={found ? found.content.site : "Sign-off"}
      under={
        found &&
        `Signed by ${found.content.by}, ${dayAndTimeOf(found.signed_at, found.content.practice)}. Number ${found.number}.`
      }
      back={["/record", "Record"]}
      busy={signed.isPending}
      actions={
        found && (
          <>
            <Button component="a" href={`/api/sign-offs/${found.id}/report`} target="_blank">
              Open as PDF
            </Button>
            <Button component="a" href={`/api/sign-offs/${found.id}/file`} variant="default" download>
              Save the signed file
            </Button>
            <Button variant="default" onClick={() => window.print()}>
              Print this page
            </Button>
          </>
        )
      }
    >
      {found && (
        <>
          <p className={classes.hash}>
            <img
              src={`/api/sign-offs/${found.id}/code`}
              alt="QR code of the SHA-256 beside it"
              width="96"
              height="96"
            />
            SHA-256 <span className="mono">{found.link_sha256}</span>. A changed reading, verdict or date
            changes it; <span className="mono">evenprobe verify</span> checks the signed file.
          </p>
          <Report content={found.content} />
        </>
      )}
    </Page>
  );
}
