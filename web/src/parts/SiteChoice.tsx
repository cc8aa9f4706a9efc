import { NativeSelect } from "@mantine/core";

/** Where something is begun. */
export function SiteChoice(props: {
  sites: { id: string; name: string }[];
  chosen: string;
  onChoose: (site: string) => void;
}) {
  return (
    <NativeSelect
      label="Site"
      value={props.chosen}
      onChange={(event) => props.onChoose(event.currentTarget.value)}
      data={[
        { value: "", label: "Choose a site" },
        ...props.sites.map((site) => ({ value: site.id, label: site.name })),
      ]}
    />
  );
}
