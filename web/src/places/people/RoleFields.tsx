import { NativeSelect, TextInput } from "@mantine/core";
import type { UseFormReturnType } from "@mantine/form";
import type { People, Role } from "../../api/client";
import { useSites } from "../../api/queries";

export type RoleTyped = { role: string; site: string; until: string };

/** What somebody is to be; of a guest, which site until which day. */
export function RoleFields({ roles, form }: { roles: People["roles"]; form: UseFormReturnType<RoleTyped> }) {
  const sites = useSites().data ?? [];
  const chosen = roles.find(({ id }) => id === form.values.role);
  return (
    <>
      <NativeSelect
        label="As what"
        description={
          chosen && `${chosen.does}${chosen.beside && `; ${chosen.beside} only with a second person`}`
        }
        data={roles.map(({ id }) => ({ value: id, label: id }))}
        {...form.getInputProps("role")}
      />
      {form.values.role === "guest" && (
        <>
          <NativeSelect
            label="Which site they read"
            data={[
              { value: "", label: "Choose a site" },
              ...sites.map(({ id, name }) => ({ value: id, label: name })),
            ]}
            {...form.getInputProps("site")}
          />
          <TextInput label="Until and with which day" type="date" {...form.getInputProps("until")} />
        </>
      )}
    </>
  );
}

/** As the server takes it: only a guest has a site and a day. */
export const roleOf = ({ role, site, until }: RoleTyped) => ({
  role: role as Role,
  site: role === "guest" && site ? site : null,
  until: role === "guest" && until ? until : null,
});
