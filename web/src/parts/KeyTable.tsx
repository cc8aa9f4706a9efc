import { Table } from "@mantine/core";

/** Keys and what each does. */
export function KeyTable({ rows }: { rows: readonly (readonly [key: string, what: string])[] }) {
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
