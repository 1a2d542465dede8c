import { Component, type ReactNode } from "react";
import { Button } from "../controls/Button";
import { Note, Page, Row, Small, Stack } from "../controls/layout";
import { say } from "../words/say";

/** Where a page could not be loaded, or broke: what was tapped is kept, and the way on is one press. */
export function Failed({ error }: { error: unknown }) {
  return (
    <Page>
      <Note grave>
        <Stack $gap={3}>
          <h1>{say("frame.this-page-could-not-be-shown")}</h1>
          <p>{say("frame.what-was-tapped-is-kept")}</p>
          <Row $gap={4}>
            <Button onPress={() => location.reload()}>{say("frame.load-again")}</Button>
            <a href="/" style={{ color: "inherit", fontWeight: 600 }}>
              {say("frame.the-day")}
            </a>
          </Row>
          <Small>{error instanceof Error ? error.message : String(error)}</Small>
        </Stack>
      </Note>
    </Page>
  );
}

/** For what stands before the router, which catches what breaks inside. */
export class OrFailed extends Component<{ children: ReactNode }, { error: unknown }> {
  override state = { error: null as unknown };

  static getDerivedStateFromError = (error: unknown) => ({ error });

  override render() {
    return this.state.error === null ? this.props.children : <Failed error={this.state.error} />;
  }
}
