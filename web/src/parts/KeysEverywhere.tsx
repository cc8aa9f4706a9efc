import { Modal } from "@mantine/core";
import { KeyTable } from "./KeyTable";

const ROWS = [
  ["/", "find a site, circuit, outlet, tester or proof"],
  ["Enter", "record what is typed"],
  ["Tab", "go to the next field or button; Shift and Tab goes back"],
  ["Esc", "close what is open over the place"],
  ["?", "this list; the Bench has keys of its own"],
] as const;

export default function KeysEverywhere({ onClose }: { onClose: () => void }) {
  return (
    <Modal opened onClose={onClose} title="Keys">
      <KeyTable rows={ROWS} />
    </Modal>
  );
}
