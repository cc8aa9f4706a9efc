import { useKeep } from "../../api/outbox/useOutbox";
import type { HungBody } from "../../api/outbox/waiting";
import { PictureButton } from "../../parts/PictureButton";
import { WaitingList } from "../../parts/WaitingList";

/** Takes a picture and hangs it on a thing of the record; both wait where there is no line. */
export function HangPhoto({ on, of, name }: { on: HungBody["on"]; of: string; name: string }) {
  const { keep: keepPhoto, waiting } = useKeep("photo-of-it", of, name);
  const { keep: hang } = useKeep("hung", of, name);
  return (
    <div>
      <PictureButton
        of={name}
        another={false}
        onTaken={(image) => {
          const photo = keepPhoto({ image }, `Photo of ${name}`);
          hang({ photo, on, of, note: "" }, `Photo hung on ${name}`);
        }}
      />
      <WaitingList waiting={waiting} />
    </div>
  );
}
