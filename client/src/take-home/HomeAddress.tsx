import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { QRCodeSVG } from "qrcode.react";
import { api, got } from "../api/client";
import { keys } from "../api/queries";
import { Button } from "../controls/Button";
import { ProblemNote, Row, Small, Stack } from "../controls/layout";
import { say, sayRich } from "../words/say";

/** The home programme at a secret address, where the clinic allows it; where it does not nothing is said. */
export function HomeAddress({ episodeId }: { episodeId: string }) {
  const queries = useQueryClient();
  const path = { params: { path: { id: episodeId } } };
  const { data } = useQuery({
    queryKey: keys.homeAddress(episodeId),
    queryFn: () => got(api.GET("/api/episodes/{id}/home-address", path)),
  });
  const change = useMutation({
    mutationFn: async (open: boolean) => {
      if (open) await got(api.POST("/api/episodes/{id}/home-address", path));
      else await got(api.DELETE("/api/episodes/{id}/home-address", path));
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.homeAddress(episodeId) }),
  });
  if (!data?.allowed) return null;
  return (
    <section aria-label={say("take-home.on-the-phone")}>
      <Stack $gap={3}>
        <h2>{say("take-home.on-the-phone")}</h2>
        <Row>
          {data.path ? (
            <>
              <QRCodeSVG
                value={`${window.location.origin}${data.path}`}
                size={164}
                marginSize={2}
                title={say("take-home.address-as-a-code")}
                role="img"
                style={{ flex: "none" }}
              />
              <span style={{ flex: "1 1 10rem" }}>
                {sayRich("take-home.address", {
                  address: `${window.location.origin}${data.path}`,
                  code: (chunks) => <code style={{ overflowWrap: "anywhere" }}>{chunks}</code>,
                })}
              </span>
              <Button $quiet $small onPress={() => change.mutate(false)}>
                {say("take-home.close-the-address")}
              </Button>
            </>
          ) : (
            <Button $quiet $small onPress={() => change.mutate(true)}>
              {say("take-home.open-an-address")}
            </Button>
          )}
        </Row>
        <ProblemNote error={change.error} />
        <Small>{say("take-home.address-hint")}</Small>
      </Stack>
    </section>
  );
}
