import { NativeSelect, TextInput } from "@mantine/core";
import type { GetInputPropsReturnType } from "@mantine/form";
import { useReference } from "../../api/queries";
import classes from "./RatingFields.module.css";

/** What is printed on a part: its category, and the voltage that comes with it. */
export function RatingFields(props: { category: GetInputPropsReturnType; volts: GetInputPropsReturnType }) {
  const categories = Object.keys(useReference().data?.categories ?? {});
  return (
    <div className={classes.two}>
      <NativeSelect
        label="Category, as printed"
        data={[{ value: "", label: "Not printed" }, ...categories.map((c) => ({ value: c, label: c }))]}
        {...props.category}
      />
      <TextInput label="at volts" inputMode="decimal" {...props.volts} />
    </div>
  );
}
