import { Button } from "@mantine/core";
import { Link } from "react-router";
import { useOwn } from "../../api/queries";
import { useMay, useSession } from "../../api/session";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { Devices } from "./Devices";
import classes from "./Own.module.css";
import { PasswordForm } from "./PasswordForm";
import { SignInLog } from "./SignInLog";
import { SignOut } from "./SignOut";
import { TwoStep } from "./TwoStep";

/** One's own account: where one is signed in, the password, a second step, and what happened to the way in. */
export function OwnPlace() {
  const own = useOwn();
  const session = useSession().data;
  const keeps = useMay("people");
  return (
    <Page
      title={session?.name ?? "You"}
      under={session ? `${session.role} of ${session.crew}` : ""}
      busy={own.isPending}
      actions={
        <>
          {keeps && (
            <Button component={Link} to="/people" variant="default">
              People of the crew
            </Button>
          )}
          <SignOut />
        </>
      }
    >
      {own.isError && !own.data && <Failure error={own.error} retry={() => own.refetch()} />}
      {own.data && (
        <div className={classes.columns}>
          <div>
            <Devices devices={own.data.devices} />
            <SignInLog log={own.data.log} />
          </div>
          <div>
            <PasswordForm username={own.data.username} />
            <TwoStep on={own.data.two_step} />
          </div>
        </div>
      )}
    </Page>
  );
}
