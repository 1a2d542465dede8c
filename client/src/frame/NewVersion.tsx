import { useState, useSyncExternalStore } from "react";
import { newVersion, onVersions } from "../api/versions";
import { Button } from "../controls/Button";
import { Note, Row } from "../controls/layout";
import { say } from "../words/say";
import { takeNewVersion } from "../worker";

/** Stands where nothing is under way: a page that is open goes on as it is until somebody wants the new one. */
export function NewVersion() {
  const ready = useSyncExternalStore(onVersions, newVersion);
  const [wanted, setWanted] = useState(false);
  if (!ready) return null;
  return (
    <div style={{ marginBottom: 16 }}>
      <Note>
        <Row $between>
          <p>{say("frame.a-new-version-is-ready")}</p>
          <Button
            $quiet
            $small
            isDisabled={wanted}
            onPress={() => {
              setWanted(true);
              void takeNewVersion();
            }}
          >
            {wanted ? say("frame.is-loaded") : say("frame.use-it-now")}
          </Button>
        </Row>
      </Note>
    </div>
  );
}
