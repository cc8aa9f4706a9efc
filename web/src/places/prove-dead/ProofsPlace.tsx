import { Button, Modal, Text } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { Link } from "react-router";
import { useCutOff } from "../../api/freshness";
import { useCase } from "../../api/practice";
import { LOOK_AGAIN_MS, useProofs } from "../../api/queries";
import { Failure } from "../../parts/Failure";
import { Page } from "../../parts/Page";
import { BringIn } from "./BringIn";
import { ProofList } from "./ProofList";

/** Every proof of isolation of the crew, what runs and what went wrong first. */
export function ProofsPlace() {
  const proofs = useProofs();
  const cutOff = useCutOff(proofs, LOOK_AGAIN_MS) !== null;
  /** In a practice case there is one circuit, and no file comes in. */
  const here = useCase().data;
  const [bringing, bring] = useDisclosure();
  if (proofs.isError && !proofs.data) return <Failure error={proofs.error} retry={() => proofs.refetch()} />;
  const found = proofs.data?.proofs ?? [];
  return (
    <Page
      title="Prove dead"
      busy={proofs.isPending}
      actions={
        <>
          {!here && (
            <>
              <Button variant="subtle" component={Link} to="/prove-dead/rules">
                This crew's rules
              </Button>
              <Button variant="subtle" onClick={bring.open}>
                Import an isolation log
              </Button>
            </>
          )}
          <Button
            component={Link}
            to={`/prove-dead/new${here ? `?site=${here.site}&circuit=${here.circuit}` : ""}`}
          >
            Prove something dead
          </Button>
        </>
      }
    >
      {proofs.data && found.length === 0 && (
        <Text size="lg" mt="lg">
          Before a hand goes in: every source off and locked, the tester proved, every pair read, the tester
          proved again. Begin with what you are isolating.
        </Text>
      )}
      {proofs.data && <ProofList proofs={found} asked={proofs.data.asked} cutOff={cutOff} />}
      <Modal opened={bringing} onClose={bring.close} title="Import an isolation log">
        <BringIn />
      </Modal>
    </Page>
  );
}
