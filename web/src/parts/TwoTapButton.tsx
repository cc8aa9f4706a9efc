import { Button, type ButtonProps } from "@mantine/core";
import { useState } from "react";

/** For what is hard to take back: a first tap may be a glove's, so that it asks and a second does it. */
export function TwoTapButton(props: ButtonProps & { asks: string; again: string; onTapped: () => void }) {
  const { asks, again, onTapped, ...button } = props;
  const [asking, ask] = useState(false);
  return (
    <Button
      variant="subtle"
      {...button}
      onClick={() => {
        ask(!asking);
        if (asking) onTapped();
      }}
      onBlur={() => ask(false)}
    >
      {asking ? again : asks}
    </Button>
  );
}
