import { useRouteError } from "react-router";
import { Button } from "../controls/Button";
import { Note, Page, Row, Small, Stack } from "../controls/layout";
import { say } from "../words/say";

/** Where a page could not be loaded, or broke: what was tapped is kept, and the way on is one press. */
export function LoadFailed() {
  const error = useRouteError();
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
