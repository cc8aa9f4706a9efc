import { Table } from "@mantine/core";
import type { Practice } from "../../api/client";

export function Keys({ practice, terminals }: { practice: Practice; terminals: string[] }) {
  const rows = [
    ["0–9 . ,", "type the reading"],
    ["Enter", "record it"],
    ...[...terminals, "REF"].map((t) => [
      practice.letters[t] ?? t,
      `probe at ${practice.words[t] ?? t}: reference first`,
    ]),
    ["Space", "set up the next test"],
    ["?", "this list"],
  ];
  return (
    <Table fz="md">
      <Table.Tbody>
        {rows.map(([key, what]) => (
          <Table.Tr key={key}>
            <Table.Td>
              <kbd style={{ display: "inline", fontSize: 16 }}>{key}</kbd>
            </Table.Td>
            <Table.Td>{what}</Table.Td>
          </Table.Tr>
        ))}
      </Table.Tbody>
    </Table>
  );
}
