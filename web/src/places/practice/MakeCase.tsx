import { Button, Group, Modal, NativeSelect, Stack, Text, Textarea, TextInput } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import client, { answer, type Bench, type Refusal } from "../../api/client";
import { useBeginning } from "../../api/practice";
import { saveFile } from "../../parts/files";
import { Unplaced } from "../../parts/Unplaced";
import { StepChoice } from "./StepChoice";

/** A real point as a case to practise, or to share: what it is, and no name of anything. */
export function MakeCase({ bench }: { bench: Bench }) {
  const [making, make] = useDisclosure();
  return (
    <>
      <Button variant="default" onClick={make.open}>
        Make a case of this
      </Button>
      {making && (
        <Modal opened onClose={make.close} title="A case to practise">
          <Made bench={bench} />
        </Modal>
      )}
    </>
  );
}

type What = "save" | "practise";

function Made({ bench }: { bench: Bench }) {
  const { conditions } = bench.interpretation;
  const [hidden, setHidden] = useState(() => conditions.find((one) => one.standing)?.id ?? "");
  const [title, setTitle] = useState("");
  const [complaint, setComplaint] = useState("");
  const [step, setStep] = useState("2");
  const { open, begin } = useBeginning();
  const made = useMutation<Record<string, unknown>, Refusal, What>({
    mutationFn: () =>
      answer(
        client.POST("/api/points/{point_id}/case", {
          params: { path: { point_id: bench.id } },
          body: { hidden, title, complaint, step: Number(step) },
        }),
      ),
    onSuccess: (file, what) => (what === "save" ? saveFile(file, title) : open({ case: file })),
  });
  const choices = [
    { group: "Still fits here", items: conditions.filter((one) => one.standing) },
    { group: "Ruled out here", items: conditions.filter((one) => !one.standing) },
  ]
    .filter(({ items }) => items.length > 0)
    .map(({ group, items }) => ({
      group,
      items: items.map(({ id, title }) => ({ value: id, label: title })),
    }));
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        made.mutate("practise");
      }}
    >
      <Stack>
        <Text>
          The supply, the contacts, the circuit and the testers of this point, with something hidden. Names
          and readings are left out.
        </Text>
        <TextInput
          label="What the case is called"
          description="Do not give it away."
          required
          maxLength={120}
          value={title}
          onChange={(event) => setTitle(event.currentTarget.value)}
        />
        <NativeSelect
          label="What is hidden"
          value={hidden}
          onChange={(event) => setHidden(event.currentTarget.value)}
          data={choices}
        />
        <Textarea
          label="What the customer says"
          description="Empty: what people usually notice of it."
          autosize
          minRows={2}
          maxLength={4000}
          value={complaint}
          onChange={(event) => setComplaint(event.currentTarget.value)}
        />
        <StepChoice label="How hard it is" value={step} onChange={setStep} />
        <Unplaced error={made.error ?? begin.error} />
        <Group>
          <Button type="submit" loading={begin.isPending || made.isPending} disabled={title.trim() === ""}>
            Practise it
          </Button>
          <Button
            variant="default"
            disabled={title.trim() === ""}
            loading={made.isPending}
            onClick={() => made.mutate("save")}
          >
            Save it as a file
          </Button>
        </Group>
      </Stack>
    </form>
  );
}
