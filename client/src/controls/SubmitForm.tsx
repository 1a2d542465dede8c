import type { ReactNode } from "react";
import { Form } from "react-aria-components";
import { Stack } from "./layout";

/** Fields that are sent together, by Enter too. */
export function SubmitForm(props: { gap?: number; onSubmit: () => void; children: ReactNode }) {
  return (
    // Native validity would stay wrong after a refusal, and nothing could be sent again.
    <Form
      validationBehavior="aria"
      onSubmit={(e) => {
        e.preventDefault();
        props.onSubmit();
      }}
    >
      <Stack $gap={props.gap ?? 4}>{props.children}</Stack>
    </Form>
  );
}
