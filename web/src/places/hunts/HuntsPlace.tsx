import { Button, Text } from "@mantine/core";
import { Link } from "react-router";
import { useHunts } from "../../api/queries";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { HuntList } from "./HuntList";

/** Hunts begun and done, and the way to begin one. */
export function HuntsPlace() {
  const hunts = useHunts();
  if (hunts.isError && !hunts.data) return <Failure error={hunts.error} retry={() => hunts.refetch()} />;
  return (
    <Page
      title="Hunt"
      busy={hunts.isPending}
      actions={
        <Button component={Link} to="/hunts/new">
          Begin a hunt
        </Button>
      }
    >
      {hunts.data?.length === 0 && (
        <Text size="lg" mt="lg">
          A hunt finds where a short, an open or a poor joint is, with the fewest boxes opened; why a device
          trips; which element of a chain is open; which way feeds what. Do not reset a device to find out.
        </Text>
      )}
      <HuntList hunts={hunts.data ?? []} />
    </Page>
  );
}
