import { Button, Stack, Text } from "@mantine/core";

/** Something could not be fetched: what, and what to do. */
export function Failure({ error, retry }: { error: Error; retry: () => void }) {
  return (
    <Stack p="xl" align="flex-start" role="alert">
      <Text size="lg">{error.message}</Text>
      <Button onClick={retry}>Try again</Button>
    </Stack>
  );
}
