import { Button } from "@mantine/core";
import { useRef, useState } from "react";
import { CASE } from "../api/sandbox";
import { smaller } from "./picture";
import wrongs from "./Wrong.module.css";

/** Takes a picture with the device's camera, or any that is on it, small enough to be sent; none of what is not real. */
export function PictureButton(props: { of: string; another: boolean; onTaken: (image: string) => void }) {
  const file = useRef<HTMLInputElement>(null);
  const [unread, setUnread] = useState(false);
  const keep = async (taken: File) => {
    setUnread(false);
    const image = await smaller(taken).catch(() => null);
    if (image === null) setUnread(true);
    else props.onTaken(image);
  };
  if (CASE !== null) return null;
  return (
    <>
      <input
        ref={file}
        type="file"
        accept="image/*"
        capture="environment"
        hidden
        aria-label={`Picture, ${props.of}`}
        onChange={(event) => {
          const taken = event.currentTarget.files?.[0];
          if (taken) void keep(taken);
          event.currentTarget.value = "";
        }}
      />
      <Button variant="subtle" onClick={() => file.current?.click()}>
        {props.another ? "Another picture" : "Picture"}
      </Button>
      {unread && (
        <p className={wrongs.wrong} role="alert">
          That is no picture this browser can read. Take another.
        </p>
      )}
    </>
  );
}
