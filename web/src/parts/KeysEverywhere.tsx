import { Modal, Table } from "@mantine/core";

const ROWS = [
  ["/", "find a site, circuit, outlet, tester or proof"],
  ["Enter", "record what is typed"],
  ["Tab", "go to the next field or button; Shift and Tab goes back"],
  ["Esc", "close what is open over the place"],
  ["?", "this list; the Bench has keys of its own"],
];

export default function KeysEverywhere({ onClose }: { onClose: () => void }) {
  return (
    <Modal opened onClose={onClose} title="Keys">
      <Table fz="md">
        <Table.Tbody>
          {ROWS.map(([key, what]) => (
            <Table.Tr key={key}>
              <Table.Td>
                <kbd style={{ display: "inline", fontSize: 16 }}>{key}</kbd>
              </Table.Td>
              <Table.Td>{what}</Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </Modal>
  );
}
