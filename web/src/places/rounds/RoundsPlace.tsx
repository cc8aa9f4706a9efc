import { Button, Text } from "@mantine/core";
import { Link } from "react-router";
import { useCase } from "../../api/practice";
import { useRounds } from "../../api/queries";
import { CASE } from "../../api/sandbox";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { Complaint } from "../practice/CasePanel";
import { RoundList } from "./RoundList";

/** Rounds begun and done, and the way to begin one. */
export function RoundsPlace() {
  const rounds = useRounds();
  const here = useCase().data;
  if (rounds.isError && !rounds.data) return <Failure error={rounds.error} retry={() => rounds.refetch()} />;
  return (
    <Page
      title="Rounds"
      busy={rounds.isPending}
      actions={
        <Button
          component={Link}
          to={here ? `/rounds/new?site=${here.site}&circuit=${here.circuit}` : "/rounds/new"}
        >
          Begin a round
        </Button>
      }
    >
      {CASE !== null && <Complaint />}
      {rounds.data?.length === 0 && (
        <Text size="lg" mt="lg">
          A round goes through all outlets of a circuit or a room: the quick set at each, its verdict, the
          next. It can be left and taken up again, and shows which outlets had the full check.
        </Text>
      )}
      <RoundList rounds={rounds.data ?? []} />
    </Page>
  );
}
